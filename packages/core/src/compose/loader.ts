import { fromHex, put16, put32, put64, putText } from './bytes';

/*
 * x64 code: ConOut->OutputString(text), BootServices->Stall(5 s), RuntimeServices->ResetSystem(shutdown).
 * Offsets into the system tables: UEFI 2.10 §4.3 (0x40, 0x58, 0x60), §4.4 (0xF8), §4.5 (0x68), §12.4 (8).
 */
const SAY_X64 =
  '534883ec204889d3488b4b40488d1528000000ff5108b9404b4c00488b4360ff90f8000000b90200000031d24531c04531c9488b4358ff5068ebfe';

/* The same for ia32: arguments on the stack, tables half as wide (0x2C, 0x3C, 0x38; 0x88; 0x40; 4). */
const SAY_IA32 =
  '538b5c240ce800000000580532000000508b4b2c51ff510483c40868404b4c008b433cff908800000083c4046a006a006a006a028b4338ff5040ebfe';

/* The same for aa64: arguments in x0–x3, offsets as for x64. */
const SAY_AA64 =
  'fd7bbea9f30b00f9f30301aa602240f901020010090440f920013fd6006889528009a072693240f9297d40f920013fd640008052010080d2' +
  '020080d2030080d2692e40f9293540f920013fd600000014';

/** Code and machine type (PE/COFF specification, "Machine Types") by architecture. */
const ARCHS = {
  x64: { code: SAY_X64, machine: 0x8664 },
  ia32: { code: SAY_IA32, machine: 0x014c },
  aa64: { code: SAY_AA64, machine: 0xaa64 },
} as const;
export type ComposedArch = keyof typeof ARCHS;

const ALIGN = 512;

/**
 * A small EFI application that prints one line and switches the machine off after five seconds. PE32 headers for ia32,
 * PE32+ for the others, as in the PE/COFF specification; subsystem 10 (EFI application); no relocations are needed
 * since the code only uses addresses relative to itself.
 */
export function efiLoader(line: string, arch: ComposedArch = 'x64'): Uint8Array {
  const wide = arch !== 'ia32';
  const code = fromHex(ARCHS[arch].code);
  const text = `\r\n${line}\r\n`;
  const raw = Math.ceil((code.length + 2 * text.length + 2) / ALIGN) * ALIGN;
  const out = new Uint8Array(ALIGN + raw + ALIGN);
  const pe = 0x40;
  const optional = wide ? 240 : 224;
  putText(out, 0, 'MZ');
  put32(out, 0x3c, pe);
  putText(out, pe, 'PE\0\0');
  put16(out, pe + 4, ARCHS[arch].machine);
  put16(out, pe + 6, 2);
  put16(out, pe + 20, optional);
  put16(out, pe + 22, wide ? 0x0022 : 0x0102);
  const opt = pe + 24;
  put16(out, opt, wide ? 0x20b : 0x10b);
  put32(out, opt + 4, raw);
  put32(out, opt + 16, 0x1000);
  put32(out, opt + 20, 0x1000);
  if (wide) put64(out, opt + 24, 0x10000);
  else put32(out, opt + 28, 0x10000);
  put32(out, opt + 32, 0x1000);
  put32(out, opt + 36, ALIGN);
  put32(out, opt + 56, 0x3000);
  put32(out, opt + 60, ALIGN);
  put16(out, opt + 68, 10);
  const directories = opt + (wide ? 112 : 96);
  put32(out, directories - 4, 16);
  const section = (
    at: number,
    name: string,
    rva: number,
    file: number,
    size: number,
    flags: number,
  ): void => {
    putText(out, at, name, 8);
    put32(out, at + 8, size);
    put32(out, at + 12, rva);
    put32(out, at + 16, ALIGN * Math.ceil(size / ALIGN));
    put32(out, at + 20, file);
    put32(out, at + 36, flags);
  };
  const table = opt + optional;
  section(table, '.text\0\0\0', 0x1000, ALIGN, raw, 0x60000020);
  // An empty relocation block (base relocation directory, entry 5) keeps strict loaders content.
  section(table + 40, '.reloc\0\0', 0x2000, ALIGN + raw, 12, 0x42000040);
  put32(out, directories + 5 * 8, 0x2000);
  put32(out, directories + 5 * 8 + 4, 12);
  put32(out, ALIGN + raw + 4, 12);
  put32(out, ALIGN + raw, 0x1000);
  out.set(code, ALIGN);
  for (let i = 0; i < text.length; i += 1) put16(out, ALIGN + code.length + 2 * i, text.charCodeAt(i));
  return out;
}
