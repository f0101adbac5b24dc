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

/**
 * Keeps an image of so many bytes as it comes, filled up to whole sectors. What is nothing but zeros is
 * left out and read as zeros, so that an image of which most is empty takes little. Throws NotTaken, what `content` throws,
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
    for (let from = 0; from < piece.length; from += PIECE) {
      const part = piece.subarray(from, from + PIECE);
      if (!EMPTY.subarray(0, part.length).equals(part)) await file.write(part, at + from);
    }
    at += piece.length;
    told(at);
  }
  if (at < bytes) throw new NotTaken('too little');
  await file.truncate(wholeSectors(bytes));
}
