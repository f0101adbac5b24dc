import { ZSTDDecoder } from 'zstddec/stream';
import { faultOf } from './fault';
import type { PackedSource } from './packedSource';

/** A sound file gives output for every few pieces; this many empty answers in a row mean that the decoder is stuck. */
const STUCK = 64;

/** Pieces that the decoder draws on as it likes; `ended` says that no more will come. */
class Queue {
  private readonly waiting: Uint8Array[] = [];
  ended = false;
  add(piece: Uint8Array): void {
    this.waiting.push(piece);
  }
  get ready(): boolean {
    return this.waiting.length > 0 || this.ended;
  }
  *[Symbol.iterator](): Generator<Uint8Array> {
    for (let next = this.waiting.shift(); next; next = this.waiting.shift()) yield next;
  }
}

/** Unpacks a Zstandard file (RFC 8878). The decoder draws at most one piece for each step, so one is kept ready. */
export async function* unzstd(packed: PackedSource): AsyncGenerator<Uint8Array> {
  const decoder = new ZSTDDecoder();
  await decoder.init();
  const queue = new Queue();
  const pieces = packed.pieces();
  const steps = decoder.decodeStreaming(queue);
  let empty = 0;
  try {
    for (;;) {
      if (!queue.ready) {
        const next = await pieces.next();
        if (next.done) queue.ended = true;
        else queue.add(next.value);
      }
      const step = steps.next();
      if (step.done) break;
      empty = step.value.length === 0 ? empty + 1 : 0;
      if (empty > STUCK) throw new Error('no output');
      if (step.value.length > 0) yield step.value;
    }
    if (!queue.ended && !(await pieces.next()).done) throw new Error('ended early');
  } catch (error) {
    throw faultOf(error);
  }
}
