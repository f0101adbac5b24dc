import { createReadStream, createWriteStream, mkdirSync, rmSync } from 'node:fs';
import { open } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { Readable } from 'node:stream';
import { openPacked } from '@zb/core/container/unpack';
import type { ContainerKind } from '@zb/core/image/types';
import type { Job } from '@zb/core/media/job';
import type { StartRequest } from './types';
import { WriterRefusal, type Writer } from './writer';

type Upload = Extract<StartRequest['image'], { from: 'upload' }>;
type Packing = Exclude<ContainerKind, 'none'>;

/**
 * Files that a page sends to be written. A plain image goes to the stick as it comes. One that has to wait for its turn is
 * kept until then, so that the page may be left; a packed one is kept until it is whole, since unpacking reads it from
 * more than one place. What was kept goes when the write is over.
 */
export class Uploads {
  private readonly packed = new Map<string, Packing>();

  constructor(
    private readonly writer: Writer,
    private readonly dir: string,
  ) {
    // What an earlier run left behind belongs to writes that are over.
    rmSync(dir, { recursive: true, force: true });
    mkdirSync(dir, { recursive: true });
  }

  open(request: StartRequest, image: Upload): Job {
    if (image.container === 'none') return this.writer.open(request, image.bytes);
    if (image.innerBytes === null)
      throw new WriterRefusal(
        'What is inside this packed file has not been read yet, so its size is not known. Open it at Verify first. Nothing was written.',
      );
    const job = this.writer.open(request, image.innerBytes);
    this.packed.set(job.id, image.container);
    return job;
  }

  async take(id: string, content: Readable): Promise<Job> {
    const kind = this.packed.get(id);
    if (!kind && !this.writer.mustWait(id)) return this.writer.run(id, content);
    this.packed.delete(id);
    const path = join(this.dir, `${id}.kept`);
    try {
      await pipeline(content, createWriteStream(path));
      return await this.writer.run(id, kind ? unpacked(path, kind) : createReadStream(path));
    } finally {
      rmSync(path, { force: true });
    }
  }
}

async function* unpacked(path: string, kind: Packing): AsyncGenerator<Uint8Array> {
  const file = await open(path, 'r');
  try {
    const { size } = await file.stat();
    const packed = await openPacked(kind, {
      size,
      async read(offset, length) {
        const out = new Uint8Array(Math.max(0, Math.min(length, size - offset)));
        if (out.length > 0) await file.read(out, 0, out.length, offset);
        return out;
      },
    });
    yield* packed.content();
  } finally {
    await file.close();
  }
}
