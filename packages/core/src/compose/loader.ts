import { fromHex, put16, put32, put64, putText } from './bytes';

/*
 * x64 code: ConOut->OutputString(text), BootServices->Stall(5 s), RuntimeServices->ResetSystem(shutdown).
 * Offsets into the system tables: UEFI 2.10 §4.3 (0x40, 0x58, 0x60), §4.4 (0xF8), §4.5 (0x68), §12.4 (8).
 */
const SAY_X64 =
  '534883ec204889d3488b4b40488d1528000000ff5108b9404b4c00488b4360ff90f8000000b90200000031d24531c04531c9488b4358ff5068ebfe';

const ALIGN = 512;

/**
 * A small EFI application for x64 that prints one line and switches the machine off after five seconds.
 * PE32+ headers as in the PE/COFF specification; subsystem 10 (EFI application); no relocations are needed since the
 * code only uses addresses relative to itself.
 */
export function efiLoader(line: string): Uint8Array {
  const code = fromHex(SAY_X64);
  const text = `\r\n${line}\r\n`;
  const raw = Math.ceil((code.length + 2 * text.length + 2) / ALIGN) * ALIGN;
  const out = new Uint8Array(ALIGN + raw + ALIGN);
  const pe = 0x40;
  putText(out, 0, 'MZ');
  put32(out, 0x3c, pe);
  putText(out, pe, 'PE\0\0');
  put16(out, pe + 4, 0x8664);
  put16(out, pe + 6, 2);
  put16(out, pe + 20, 240);
  put16(out, pe + 22, 0x0022);
  const opt = pe + 24;
  put16(out, opt, 0x20b);
  put32(out, opt + 4, raw);
  put32(out, opt + 16, 0x1000);
  put32(out, opt + 20, 0x1000);
  put64(out, opt + 24, 0x10000);
  put32(out, opt + 32, 0x1000);
  put32(out, opt + 36, ALIGN);
  put32(out, opt + 56, 0x3000);
  put32(out, opt + 60, ALIGN);
  put16(out, opt + 68, 10);
  put32(out, opt + 108, 16);
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
  const table = opt + 240;
  section(table, '.text\0\0\0', 0x1000, ALIGN, raw, 0x60000020);
  // An empty relocation block (base relocation directory, entry 5) keeps strict loaders content.
  section(table + 40, '.reloc\0\0', 0x2000, ALIGN + raw, 12, 0x42000040);
  put32(out, opt + 112 + 5 * 8, 0x2000);
  put32(out, opt + 112 + 5 * 8 + 4, 12);
  put32(out, ALIGN + raw + 4, 12);
  put32(out, ALIGN + raw, 0x1000);
  out.set(code, ALIGN);
  for (let i = 0; i < text.length; i += 1) put16(out, ALIGN + code.length + 2 * i, text.charCodeAt(i));
  return out;
}
