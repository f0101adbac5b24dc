import { ascii, u32, u8, utf8 } from '../bytes';
import type { ByteSource } from '../source';
import { ISO_SECTOR } from './layout';

/** Continuation areas followed for one name; a chain that bites its tail ends here. */
const MAX_CONTINUED = 8;

/**
 * The name a Rock Ridge volume gives a file: the entries NM of its system use area (RRIP 1.12 §4.1.4), through the
 * continuation entries CE (SUSP 1.12 §5.1). Undefined where there is none.
 */
export async function rockRidgeName(area: Uint8Array, source: ByteSource): Promise<string | undefined> {
  let name: string | undefined;
  let piece = area;
  for (let turn = 0; turn < MAX_CONTINUED; turn += 1) {
    let next: Uint8Array | undefined;
    for (let o = 0; o + 4 <= piece.length;) {
      const length = u8(piece, o + 2);
      if (length < 4 || o + length > piece.length) break;
      const mark = ascii(piece, o, 2);
      // Flags 2 and 4 mean "." and ".."; they carry no name.
      if (mark === 'NM' && (u8(piece, o + 4) & 6) === 0) name = (name ?? '') + utf8(piece, o + 5, length - 5);
      if (mark === 'CE')
        next = await source.read(
          u32(piece, o + 4) * ISO_SECTOR + u32(piece, o + 12),
          Math.min(ISO_SECTOR, u32(piece, o + 20)),
        );
      if (mark === 'ST') break;
      o += length;
    }
    if (!next || next.length === 0) break;
    piece = next;
  }
  return name === '' ? undefined : name;
}
