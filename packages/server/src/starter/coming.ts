import { mkdir, rm, statfs } from 'node:fs/promises';
import { dirname } from 'node:path';
import { wholeSectors } from '@zb/emulator/sectors';
import { openOwn, writeFully } from '../files/ownFile';

/** The file that came is another than was announced. */
export class NotTaken extends Error {
  override name = 'NotTaken';
  constructor(readonly why: 'too much' | 'too little') {
    super(why);
  }
}

/** Room that is left to whatever else the machine does, bytes. */
const LEFT_FREE = 256 * 1024 * 1024;
const PIECE = 1024 * 1024;
/** Compared with as a whole: byte by byte, 8 GiB would take minutes. */
const EMPTY = Buffer.alloc(PIECE);
/** Whether there is room for a file at all, as far as the file system says: what is empty in it takes none. */
export async function hasRoom(path: string): Promise<boolean> {
  const folder = dirname(path);
  await mkdir(folder, { recursive: true });
  const { bavail, bsize } = await statfs(folder);
  return bavail * bsize >= LEFT_FREE;
}

/**
 * Takes a file as it comes, whole sectors of it. What is nothing but zeros is left out of it and read as zeros, so that an image of
 * which most is empty takes little. Throws NotTaken, and the file system's error; then nothing of it stays.
 */
export async function takeFile(
  path: string,
  bytes: number,
  content: AsyncIterable<Uint8Array>,
  told: (come: number) => void,
): Promise<void> {
  await mkdir(dirname(path), { recursive: true });
  const file = await openOwn(path, 'anew');
  let at = 0;
  try {
    for await (const piece of content) {
      if (at + piece.length > bytes) throw new NotTaken('too much');
      for (let from = 0; from < piece.length; from += PIECE) {
        const part = piece.subarray(from, from + PIECE);
        if (!EMPTY.subarray(0, part.length).equals(part)) await writeFully(file, part, at + from);
      }
      at += piece.length;
      told(at);
    }
    if (at < bytes) throw new NotTaken('too little');
    await file.truncate(wholeSectors(bytes));
    await file.close();
  } catch (error) {
    await file.close().catch(() => undefined);
    await rm(path, { force: true });
    throw error;
  }
}
