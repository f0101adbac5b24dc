import type { FileHandle } from 'node:fs/promises';
import type { StickFault, VirtualStick } from '@zb/core/model/standIns';
import { openOwn, readFully, writeFully } from '../files/ownFile';

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
    private readonly bytes: number,
    private readonly fault: StickFault,
  ) {}

  /** Throws the file system's error where the file cannot be had; nothing of it is changed then. */
  static async open(path: string, stick: Pick<VirtualStick, 'bytes' | 'fault'>): Promise<VirtualDisk> {
    const file = await openOwn(path, 'change');
    try {
      if ((await file.stat()).size !== stick.bytes) await file.truncate(stick.bytes);
    } catch (error) {
      await file.close().catch(() => undefined);
      throw error;
    }
    return new VirtualDisk(file, stick.bytes, stick.fault);
  }

  async write(offset: number, bytes: Uint8Array): Promise<void> {
    const real = this.fault.realBytes ?? this.bytes;
    const keep = Math.max(0, Math.min(bytes.length, real - offset));
    if (keep > 0) await writeFully(this.file, bytes.subarray(0, keep), offset);
  }

  async read(offset: number, length: number): Promise<Uint8Array> {
    const out = new Uint8Array(length);
    const { realBytes = this.bytes, weakAt } = this.fault;
    const keep = Math.max(0, Math.min(length, realBytes - offset));
    if (keep > 0) await readFully(this.file, out.subarray(0, keep), offset);
    if (weakAt !== undefined && weakAt >= offset && weakAt < offset + length) {
      out[weakAt - offset] = (out[weakAt - offset] ?? 0) ^ 0x04;
    }
    return out;
  }

  /** Has everything on its way put down, so that what is read back is not only remembered. */
  flush(): Promise<void> {
    return this.file.datasync();
  }

  /** Never throws: what was written has been flushed, and nothing else hangs on the end. */
  close(): Promise<void> {
    return this.file.close().catch(() => undefined);
  }
}
