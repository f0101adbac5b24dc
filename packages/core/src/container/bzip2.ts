import bitIterator from 'unbzip2-stream/lib/bit_iterator.js';
import bzip2 from 'unbzip2-stream/lib/bzip2.js';
import { faultOf } from './fault';
import type { PackedSource } from './packedSource';

/** A block is at most this much longer packed than unpacked: what the decoder may ask for at once. */
const SLACK = 25_000;
const UNIT = 100_000;
const SINK = 1024 * 1024;

/** Collects bytes one by one into pieces of a fixed size: a block of zeros unpacks to fifty times its size. */
class ByteSink {
  private readonly full: Uint8Array[] = [];
  private piece = new Uint8Array(SINK);
  private at = 0;
  readonly take = (byte: number): void => {
    if (this.at === SINK) {
      this.full.push(this.piece);
      this.piece = new Uint8Array(SINK);
      this.at = 0;
    }
    this.piece[this.at] = byte;
    this.at += 1;
  };
  pieces(): Uint8Array[] {
    return [...this.full, this.piece.subarray(0, this.at)].filter((p) => p.length > 0);
  }
}

/** Unpacks a bzip2 file, several streams in a row too; every block and the whole are held against their CRC-32. */
export async function* unbzip2(packed: PackedSource): AsyncGenerator<Uint8Array> {
  const pieces = packed.pieces();
  // The bit reader takes its first piece before anything is asked of it.
  const waiting: Uint8Array[] = [new Uint8Array(0)];
  let have = 0;
  let ended = false;
  const bits = bitIterator(() => {
    const next = waiting.shift();
    if (!next) throw new Error('ended early');
    return next;
  });
  /** Has so much at hand, or all that is left. */
  const ready = async (wanted: number): Promise<void> => {
    while (!ended && have - bits.bytesRead < wanted) {
      const next = await pieces.next();
      if (next.done) ended = true;
      else {
        waiting.push(next.value);
        have += next.value.length;
      }
    }
  };
  try {
    for (await ready(SLACK); have > bits.bytesRead; await ready(SLACK)) {
      const size = UNIT * bzip2.header(bits);
      const work = new Int32Array(size);
      let sum: number | null = 0;
      while (sum !== null) {
        await ready(SLACK + size);
        const sink = new ByteSink();
        sum = bzip2.decompress(bits, sink.take, work, size, sum);
        yield* sink.pieces();
      }
    }
  } catch (error) {
    throw faultOf(error);
  }
}
