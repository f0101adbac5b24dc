/**
 * The few parts of the platform's streams that unpacking uses (WHATWG Streams and Compression Streams, in every browser
 * and in Node). Written down here since this package knows no platform of its own.
 */
export interface PieceReader {
  read(): Promise<{ done: boolean; value?: Uint8Array }>;
  cancel(): Promise<void>;
}
/** A stream of bytes as platforms have it, as far as it is used here (WHATWG Streams). */
export interface PieceStream {
  getReader(): PieceReader;
  pipeThrough(through: object): PieceStream;
}
interface Platform {
  ReadableStream: new (from: {
    pull(to: { enqueue(piece: Uint8Array): void; close(): void }): Promise<void>;
    cancel(): void;
  }) => PieceStream;
  DecompressionStream: new (format: 'gzip' | 'deflate-raw') => object;
}
const platform = globalThis as unknown as Platform;

/** Bytes, piece by piece. */
export type Pieces = AsyncIterator<Uint8Array>;

/** A platform stream over pieces, which are asked for one by one as they are wanted. */
export const streamOf = (pieces: Pieces): PieceStream =>
  new platform.ReadableStream({
    async pull(to) {
      const next = await pieces.next();
      if (next.done) to.close();
      else to.enqueue(next.value);
    },
    cancel: () => void pieces.return?.(undefined),
  });

/** The pieces of a platform stream; ending early ends the stream too. */
export async function* piecesOf(stream: PieceStream): AsyncGenerator<Uint8Array> {
  const reader = stream.getReader();
  try {
    for (let next = await reader.read(); !next.done; next = await reader.read())
      if (next.value) yield next.value;
  } finally {
    await reader.cancel().catch(() => undefined);
  }
}

/** The platform's own inflater: for whole gzip files, and for the bare deflate data inside a zip. */
export const inflate = (pieces: Pieces, format: 'gzip' | 'deflate-raw'): AsyncGenerator<Uint8Array> =>
  piecesOf(streamOf(pieces).pipeThrough(new platform.DecompressionStream(format)));
