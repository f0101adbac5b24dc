import { constants } from 'node:fs';
import { open, type FileHandle } from 'node:fs/promises';

const { O_RDONLY, O_RDWR, O_CREAT, O_TRUNC, O_NOFOLLOW, O_NONBLOCK } = constants;
const FLAGS = {
  read: O_RDONLY,
  change: O_RDWR | O_CREAT,
  anew: O_RDWR | O_CREAT | O_TRUNC,
};

/**
 * Opens a file of the server's own: a regular file and nothing else. A link is not followed, since it could lead to
 * anything; a pipe does not hold anybody up. Throws the file system's error.
 */
export async function openOwn(path: string, how: keyof typeof FLAGS): Promise<FileHandle> {
  const file = await open(path, FLAGS[how] | O_NOFOLLOW | O_NONBLOCK, 0o600);
  try {
    const info = await file.stat();
    if (info.isFile()) return file;
    throw Object.assign(new Error('not a file'), { code: info.isDirectory() ? 'EISDIR' : 'ENXIO' });
  } catch (error) {
    await file.close().catch(() => undefined);
    throw error;
  }
}

/** Writes all of it: one call may take only a part, above all where room runs out. */
export async function writeFully(file: FileHandle, bytes: Uint8Array, offset: number): Promise<void> {
  for (let at = 0; at < bytes.length;) {
    const { bytesWritten } = await file.write(bytes, at, bytes.length - at, offset + at);
    if (bytesWritten === 0) throw Object.assign(new Error('nothing was taken'), { code: 'ENOSPC' });
    at += bytesWritten;
  }
}

/** Reads into the whole of `into` from `offset`; what lies beyond the end of the file stays as it is. */
export async function readFully(file: FileHandle, into: Uint8Array, offset: number): Promise<number> {
  let at = 0;
  while (at < into.length) {
    const { bytesRead } = await file.read(into, at, into.length - at, offset + at);
    if (bytesRead === 0) break;
    at += bytesRead;
  }
  return at;
}

const PIECE = 1024 * 1024;

/** The bytes of an open file from the front, piece by piece; the file is closed at the end, whatever the end is. */
export async function* piecesOf(file: FileHandle): AsyncGenerator<Uint8Array> {
  try {
    for (let at = 0; ;) {
      const piece = new Uint8Array(PIECE);
      const have = await readFully(file, piece, at);
      if (have === 0) return;
      yield piece.subarray(0, have);
      at += have;
    }
  } finally {
    await file.close().catch(() => undefined);
  }
}
