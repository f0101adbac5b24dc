import { rm, statfs } from 'node:fs/promises';
import { dirname } from 'node:path';
import { keepSparse } from '@zb/emulator/sparse';
import { makeFolder } from '../files/makeFolder';
import { openOwn, writeFully } from '../files/ownFile';

/** Room that is left to whatever else the machine does, bytes. */
const LEFT_FREE = 256 * 1024 * 1024;

/** Whether there is room for a file at all, as far as the file system says: what is empty in it takes none. */
export async function hasRoom(path: string): Promise<boolean> {
  const folder = dirname(path);
  await makeFolder(folder);
  const { bavail, bsize } = await statfs(folder);
  return bavail * bsize >= LEFT_FREE;
}

/** Takes a file as it comes. Throws what keepSparse throws; then nothing of it stays. */
export async function takeFile(
  path: string,
  bytes: number,
  content: AsyncIterable<Uint8Array>,
  told: (come: number) => void,
): Promise<void> {
  await makeFolder(dirname(path));
  const file = await openOwn(path, 'anew');
  try {
    const keeping = {
      write: (piece: Uint8Array, at: number) => writeFully(file, piece, at),
      truncate: (n: number) => file.truncate(n),
    };
    await keepSparse(keeping, bytes, content, told);
    await file.close();
  } catch (error) {
    await file.close().catch(() => undefined);
    await rm(path, { force: true });
    throw error;
  }
}
