import { wholeSectors } from './sectors';

/** The content that came is longer or shorter than was announced. */
export class NotTaken extends Error {
  override name = 'NotTaken';
  constructor(readonly why: 'too much' | 'too little') {
    super(why);
  }
}

const PIECE = 1024 * 1024;
/** Compared with as a whole: byte by byte, 8 GiB would take minutes. */
const EMPTY = Buffer.alloc(PIECE);

/** Where an image is kept: an empty file. */
export interface Keeping {
  /** Writes all of some bytes at an offset. */
  write: (bytes: Uint8Array, offset: number) => Promise<void>;
  truncate: (bytes: number) => Promise<void>;
}

/** Writes a piece of an image at its offset; what is nothing but zeros is left out and reads as zeros. Throws what `file` throws. */
export async function writeSparse(
  file: Pick<Keeping, 'write'>,
  piece: Uint8Array,
  offset: number,
): Promise<void> {
  for (let from = 0; from < piece.length; from += PIECE) {
    const part = piece.subarray(from, from + PIECE);
    if (!EMPTY.subarray(0, part.length).equals(part)) await file.write(part, offset + from);
  }
}

/**
 * Keeps an image of so many bytes as it comes, filled up to whole sectors. An image of which most is
 * empty takes little. Throws NotTaken, what `content` throws,
 * and what `file` throws.
 */
export async function keepSparse(
  file: Keeping,
  bytes: number,
  content: AsyncIterable<Uint8Array>,
  told: (come: number) => void = () => undefined,
): Promise<void> {
  let at = 0;
  for await (const piece of content) {
    if (at + piece.length > bytes) throw new NotTaken('too much');
    await writeSparse(file, piece, at);
    at += piece.length;
    told(at);
  }
  if (at < bytes) throw new NotTaken('too little');
  await file.truncate(wholeSectors(bytes));
}
