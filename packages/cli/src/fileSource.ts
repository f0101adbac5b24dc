import { open, type FileHandle } from 'node:fs/promises';
import type { ByteSource } from '@zb/core/image/source';

export class OpenFile implements ByteSource {
  private constructor(
    private readonly handle: FileHandle,
    readonly size: number,
  ) {}

  static async open(path: string): Promise<OpenFile> {
    const handle = await open(path, 'r');
    const info = await handle.stat();
    if (!info.isFile()) {
      await handle.close();
      throw new Error(`${path} is not a file`);
    }
    return new OpenFile(handle, info.size);
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
