import { sameBytes } from '../formats/bytes';
import type { ByteSource } from '../formats/source';
import type { BlockResult } from './readback';

/** Small enough to name a place and to see a step between bad blocks. Bytes. */
export const BLOCK = 4096;
/** More bad blocks than this are counted and no longer listed: the picture is clear by then. */
const LISTED = 200_000;

/** What a comparison block by block counted; bytes. */
export interface BlockTally {
  /** Bytes of the image that the dump has as well. */
  compared: number;
  bad: BlockResult[];
  badBlocks: number;
  differingBytes: number;
  /** The first byte that differs, exactly; null where none does. */
  first: number | null;
}

const bitsOf = (x: number): number => {
  let bits = 0;
  for (let rest = x; rest > 0; rest >>= 1) bits += rest & 1;
  return bits;
};

function tallyBlock(tally: BlockTally, offset: number, a: Uint8Array, b: Uint8Array): void {
  if (sameBytes(a, b)) return;
  let bits = 0;
  let zeros = true;
  for (let i = 0; i < a.length; i += 1) {
    const x = a[i] ?? 0;
    const y = b[i] ?? 0;
    if (y !== 0) zeros = false;
    if (x === y) continue;
    tally.first ??= offset + i;
    tally.differingBytes += 1;
    bits += bitsOf(x ^ y);
  }
  tally.badBlocks += 1;
  if (tally.bad.length < LISTED) tally.bad.push({ index: Math.floor(offset / BLOCK), zeros, bits });
}

/**
 * Compares an image, as it comes piece by piece, with a dump of what it was written to. `told` is asked to go on after
 * every piece and given the bytes compared; false ends the run, and undefined is answered.
 */
export async function compareBlocks(
  image: AsyncIterable<Uint8Array>,
  dump: ByteSource,
  told: (bytes: number) => boolean = () => true,
): Promise<BlockTally | undefined> {
  const tally: BlockTally = { compared: 0, bad: [], badBlocks: 0, differingBytes: 0, first: null };
  let rest = new Uint8Array(0);
  const take = async (piece: Uint8Array, last: boolean): Promise<void> => {
    const whole = last ? piece.length : piece.length - (piece.length % BLOCK);
    const other = await dump.read(tally.compared, whole);
    const shared = Math.min(whole, other.length);
    for (let at = 0; at < shared; at += BLOCK) {
      const to = Math.min(shared, at + BLOCK);
      tallyBlock(tally, tally.compared + at, piece.subarray(at, to), other.subarray(at, to));
    }
    tally.compared += shared;
    rest = piece.slice(whole);
  };
  for await (const piece of image) {
    const joined = rest.length > 0 ? new Uint8Array(rest.length + piece.length) : piece;
    if (joined !== piece) {
      joined.set(rest);
      joined.set(piece, rest.length);
    }
    await take(joined, false);
    if (!told(tally.compared)) return undefined;
    if (tally.compared >= dump.size) return tally;
  }
  if (rest.length > 0) await take(rest, true);
  return tally;
}
