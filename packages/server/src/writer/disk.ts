import { open, type FileHandle } from 'node:fs/promises';
import type { VirtualStick } from '@zb/core/demo/sticks';

/** Thrown when a stick set to be pulled out goes away in the middle of a write. */
export class PulledOut extends Error {
  override name = 'PulledOut';
}

/**
 * The bytes of a virtual stick: a sparse file of its claimed size. A lying stick drops what lies beyond its real
 * size and reads zeros there; a weak place answers with one bit turned.
 */
export class VirtualDisk {
  private constructor(
    private readonly file: FileHandle,
    private readonly stick: VirtualStick,
  ) {}

  static async open(path: string, stick: VirtualStick): Promise<VirtualDisk> {
    const file = await open(path, 'a').then(async (f) => {
      await f.close();
      return open(path, 'r+');
    });
    await file.truncate(stick.bytes);
    return new VirtualDisk(file, stick);
  }

  async write(offset: number, bytes: Uint8Array): Promise<void> {
    const real = this.stick.fault.realBytes ?? this.stick.bytes;
    const keep = Math.max(0, Math.min(bytes.length, real - offset));
    if (keep > 0) await this.file.write(bytes, 0, keep, offset);
  }

  async read(offset: number, length: number): Promise<Uint8Array> {
    const out = new Uint8Array(length);
    const { realBytes = this.stick.bytes, weakAt } = this.stick.fault;
    const keep = Math.max(0, Math.min(length, realBytes - offset));
    if (keep > 0) await this.file.read(out, 0, keep, offset);
    if (weakAt !== undefined && weakAt >= offset && weakAt < offset + length) {
      out[weakAt - offset] = (out[weakAt - offset] ?? 0) ^ 0x04;
    }
    return out;
  }

  close(): Promise<void> {
    return this.file.close();
  }
}
