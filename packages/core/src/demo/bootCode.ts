import { composeKernel } from '../formats/linuxKernel';
import { fromHex, put64 } from '../formats/put';

/*
 * 16-bit code, assembled once by hand; what it does stands beside the bytes it became. All pieces are ours and small
 * on purpose: they exist so that the demo images really start.
 */

/*
 * Sector 0: set up a stack, copy itself to 0x600, look for the active entry at 0x7BE; its first sector, or the one
 * patched in at byte 0x54, is read with INT 13h function 42h (four sectors) to 0x7C00 and jumped to.
 */
const MBR_CODE = fromHex(
  'fa31c08ed0bc007c8ed88ec0fcbe007cbf0006b90001f3a5ea1d060000fbbebe07b90400803c80740783c610e2f6eb08668b440866a35406' +
    'be4c06b442cd137205ea007c0000f4ebfd8d740010000400007c00000000000000000000',
);
const MBR_LBA_AT = 0x54;

/*
 * Says the text that follows it, on the screen (INT 10h function 0Eh) and on the first serial line (INT 14h), then
 * halts. Reads the text relative to CS, so it runs at 0000:7C00 and at 07C0:0000 alike.
 */
const SAY_CODE = fromHex(
  'fa31c08ed88ec08ed0bc007cfbfcb8e30031d2cd14e800005e81c61f002eac84c0741150b40ebb0700cd1058b40131d2cd14ebe9f4ebfd',
);

/** Boot code for sector 0 (bytes 0–439). Goes to the active part, or to `sector` where none is active. */
export function mbrBootCode(sector = 0): Uint8Array {
  const code = MBR_CODE.slice();
  put64(code, MBR_LBA_AT, sector);
  return code;
}

/*
 * Boot record: four sectors from the one patched in at byte 0x2C are read with INT 13h function 42h to 0800:0000, and
 * entered at 0820:0000, as a loader enters a kernel.
 */
const LOAD_CODE = fromHex(
  'fa31c08ed88ec08ed0bc007cfbfce800005e81c61300b442cd137205ea00002008f4ebfd10000400000000080000000000000000',
);
const LOAD_LBA_AT = 0x2c;

/** Code for a boot record that loads the kernel of four sectors at `sector`, counted from the start of the disk. */
export function loadBootCode(sector: number): Uint8Array {
  const code = LOAD_CODE.slice();
  put64(code, LOAD_LBA_AT, sector);
  return code;
}

/** A kernel of four sectors that prints one line and halts; for lines of up to 200 characters. */
export function sayKernel(line: string): Uint8Array {
  const text = Array.from(`\r\n${line}\r\n\0`, (c) => c.charCodeAt(0) & 0x7f);
  const kernel = composeKernel(Uint8Array.from([...SAY_CODE, ...text]));
  const out = new Uint8Array(4 * 512);
  out.set(kernel);
  return out;
}
