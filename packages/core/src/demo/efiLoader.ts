import { composeEfi } from '../formats/pe/write';
import { fromHex, put16 } from '../formats/put';

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

const CODE = { x64: SAY_X64, ia32: SAY_IA32, aa64: SAY_AA64 } as const;

/** A small EFI application that prints one line and switches the machine off after five seconds. */
export function efiLoader(line: string, arch: keyof typeof CODE = 'x64'): Uint8Array {
  const code = fromHex(CODE[arch]);
  const text = `\r\n${line}\r\n\0`;
  const program = new Uint8Array(code.length + 2 * text.length);
  program.set(code);
  for (let i = 0; i < text.length; i += 1) put16(program, code.length + 2 * i, text.charCodeAt(i));
  return composeEfi(program, arch);
}
