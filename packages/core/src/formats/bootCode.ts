import { fromHex, put16, put64 } from './put';

/*
 * 16-bit code, assembled once by hand; the listing stands beside the bytes it became. Both pieces are ours and small
 * on purpose: they exist so that the demo images really start.
 */

/*
 * Sector 0: set up a stack, copy itself to 0x600, look for the active entry at 0x7BE; its first sector, or the one
 * patched in at byte 0x54, is read with INT 13h function 42h (four sectors) to 0x7C00 and jumped to.
 */
export const MBR_CODE = fromHex(
  'fa31c08ed0bc007c8ed88ec0fcbe007cbf0006b90001f3a5ea1d060000fbbebe07b90400803c80740783c610e2f6eb08668b440866a35406' +
    'be4c06b442cd137205ea007c0000f4ebfd8d740010000400007c00000000000000000000',
);
export const MBR_LBA_AT = 0x54;

/*
 * Says the text that follows it, on the screen (INT 10h function 0Eh) and on the first serial line (INT 14h), then
 * halts. Reads the text relative to CS, so it runs at 0000:7C00 and at 07C0:0000 alike.
 */
export const SAY_CODE = fromHex(
  'fa31c08ed88ec08ed0bc007cfbfcb8e30031d2cd14e800005e81c61f002eac84c0741150b40ebb0700cd1058b40131d2cd14ebe9f4ebfd',
);

/** Boot code for sector 0 (bytes 0–439). Goes to the active part, or to `sector` where none is active. */
export function mbrBootCode(sector = 0): Uint8Array {
  const code = MBR_CODE.slice();
  put64(code, MBR_LBA_AT, sector);
  return code;
}

/** Code that prints one line and halts; fits a boot record for lines of up to 380 characters. */
export function sayBootCode(line: string): Uint8Array {
  const text = Array.from(`\r\n${line}\r\n\0`, (c) => c.charCodeAt(0) & 0x7f);
  return Uint8Array.from([...SAY_CODE, ...text]);
}

/** A 512-byte boot record holding the code, with its end mark. */
export function bootRecord(code: Uint8Array): Uint8Array {
  const out = new Uint8Array(512);
  out.set(code.subarray(0, 510));
  put16(out, 510, 0xaa55);
  return out;
}
