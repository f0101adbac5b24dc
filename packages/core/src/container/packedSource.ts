import type { ByteSource } from '../formats/source';
import { UnreadableSource } from './fault';

const PIECE = 1024 * 1024;

/**
 * A packed file as it is read for unpacking: piece by piece from the front, as often as a decoder needs. Bytes that are
 * read for the first time are handed to `fresh`, in order and once, so that the file's own digest costs no second pass.
 */
export class PackedSource {
  private seen = 0;

  constructor(
    readonly source: ByteSource,
    private readonly fresh: (piece: Uint8Array) => void,
  ) {}

  async *pieces(from = 0, to = this.source.size): AsyncGenerator<Uint8Array> {
    const ask = (at: number): Promise<Uint8Array> | undefined => {
      const asked =
        at < to
          ? this.source.read(at, Math.min(PIECE, to - at)).catch((error: unknown) => {
              throw new UnreadableSource(error);
            })
          : undefined;
      // A fault is thrown where the piece is used; until then it must not count as unhandled.
      asked?.catch(() => undefined);
      return asked;
    };
    // One piece is fetched while the one before it is unpacked.
    let next = ask(from);
    for (let at = from; next; at += PIECE) {
      const piece: Uint8Array = await next;
      if (piece.length === 0) return;
      next = ask(at + PIECE);
      if (at <= this.seen && at + piece.length > this.seen) {
        this.fresh(piece.subarray(this.seen - at));
        this.seen = at + piece.length;
      }
      yield piece;
    }
  }

  /** Reads on to the end what no decoder asked for: bytes behind the packed data belong to the file as well. */
  async rest(): Promise<void> {
    const pieces = this.pieces(this.seen);
    while (!(await pieces.next()).done);
  }
}
