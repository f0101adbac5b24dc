import { constants, readFileSync } from 'node:fs';
import { open, stat, type FileHandle } from 'node:fs/promises';
import type { ByteSource } from '@zb/core/formats/source';

/** What was given cannot be used; the message is for the user. */
export class InputError extends Error {
  override name = 'InputError';
}

/** Larger than any report, bench or list of systems that is read whole. Bytes. */
const LARGEST_TEXT = 500_000_000;

/**
 * Opens a regular file for reading. Anything else (a pipe, a device, a folder) is refused before it is opened: opening a
 * pipe waits for its other end, and opening a device can do something to it. Throws InputError.
 */
async function openRegular(path: string): Promise<{ handle: FileHandle; size: number }> {
  const kind = (await stat(path)).isFile();
  if (!kind) throw new InputError(`${path} is not a file`);
  // Somebody may have put a pipe there meanwhile: not waiting costs nothing.
  const handle = await open(path, constants.O_RDONLY | constants.O_NONBLOCK);
  const info = await handle.stat();
  if (info.isFile()) return { handle, size: info.size };
  await handle.close();
  throw new InputError(`${path} is not a file`);
}

/** A file as the readers of core want it. */
export class OpenFile implements ByteSource {
  private constructor(
    private readonly handle: FileHandle,
    readonly size: number,
  ) {}

  static async open(path: string): Promise<OpenFile> {
    const { handle, size } = await openRegular(path);
    return new OpenFile(handle, size);
  }

  async read(offset: number, length: number): Promise<Uint8Array> {
    const out = new Uint8Array(Math.max(0, Math.min(length, this.size - offset)));
    if (out.length > 0) await this.handle.read(out, 0, out.length, offset);
    return out;
  }

  close(): Promise<void> {
    return this.handle.close();
  }
}

/** The whole of a file. Throws InputError for what is no file, or larger than is read whole. */
export async function readBytes(path: string): Promise<Uint8Array> {
  const file = await OpenFile.open(path);
  try {
    if (file.size > LARGEST_TEXT) throw new InputError(`${path} is too large to be read whole`);
    return await file.read(0, file.size);
  } finally {
    await file.close();
  }
}

/** A file's text, or that of standard input for "-", without a leading byte-order mark, as the page reads it. */
export async function readText(path: string): Promise<string> {
  const bytes = path === '-' ? readFileSync(0) : await readBytes(path);
  return new TextDecoder().decode(bytes);
}

/** No line of a list is longer; what is, is something else, and only its front is kept. Characters. */
const LONGEST_LINE = 65_536;
const PIECE = 1024 * 1024;

/** The lines of a file, one by one; only a piece of it is in memory at a time, however long a line is. */
export async function* linesOf(path: string): AsyncGenerator<string> {
  const file = await OpenFile.open(path);
  const decoder = new TextDecoder();
  let rest = '';
  try {
    for (let at = 0; at < file.size; at += PIECE) {
      const lines = (rest + decoder.decode(await file.read(at, PIECE), { stream: true })).split('\n');
      rest = (lines.pop() ?? '').slice(0, LONGEST_LINE);
      yield* lines;
    }
    if (rest !== '') yield rest;
  } finally {
    await file.close();
  }
}
