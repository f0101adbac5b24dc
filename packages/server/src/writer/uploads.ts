import { rmSync } from 'node:fs';
import type { Readable } from 'node:stream';
import type { ContainerKind } from '@zb/core/model/inspection';
import type { Job } from '@zb/core/model/job';
import { faultWords } from '../files/faultWords';
import { clearKept } from '../files/clearKept';
import { inFolder } from '../files/inFolder';
import { makeFolder } from '../files/makeFolder';
import { openOwn, piecesOf, writeFully } from '../files/ownFile';
import { unpacked } from '../files/unpacked';
import { CalledOff, incoming } from './incoming';
import { WriterRefusal } from './refusal';
import type { WriteRequest } from '@zb/core/model/standIns';
import { NOT_WAITING, type Writer } from './writer';

type Upload = Extract<WriteRequest['image'], { from: 'upload' }>;

const KEPT = /^[0-9a-f-]{36}\.kept$/;

/**
 * Files that a page sends to be written. A plain image goes to the stick as it comes. One that has to wait for its turn is
 * kept until then, so that the page may be left; a packed one is kept until it is whole, since unpacking reads it from
 * more than one place. What was kept goes when the write is over.
 */
export class Uploads {
  /** What was announced for each write whose file has not begun to come. */
  private readonly announced = new Map<string, Upload>();

  constructor(
    private readonly writer: Writer,
    private readonly dir: string,
    private readonly idleMs: number,
  ) {
    // What an earlier run left behind belongs to writes that are over.
    clearKept(dir, KEPT, 'Files of earlier uploads');
  }

  /** Opens a write whose bytes are still to come; given up where none begin to come in time. */
  open(request: WriteRequest, image: Upload): Job {
    const total = image.container === 'none' ? image.bytes : image.innerBytes;
    if (total === null)
      throw new WriterRefusal(
        'What is inside this packed file has not been read yet, so its size is not known. Open it at Verify first. Nothing was written.',
      );
    if (image.sha256 === null)
      throw new WriterRefusal(
        'The digest of this image is not known, so a write of it could not be proven. Open it at Verify first. Nothing was written.',
      );
    const { stickId, serialTail, tag, shelf } = request;
    const job = this.writer.open({
      stickId,
      serialTail,
      tag,
      shelf,
      total,
      imageName: image.name,
      sha256: image.sha256,
    });
    this.announced.set(job.id, image);
    setTimeout(() => {
      if (this.announced.delete(job.id))
        this.writer.giveUp(
          job.id,
          'The file never began to come. The stick is as it was: start the write again.',
        );
    }, this.idleMs).unref();
    return job;
  }

  /** Takes the file of a write, once. Throws WriterRefusal where this write does not wait for one. */
  async take(id: string, content: Readable): Promise<Job> {
    const image = this.announced.get(id);
    const job = this.writer.book.job(id);
    const signal = this.writer.signalOf(id);
    this.announced.delete(id);
    if (!image || !job || !signal) {
      content.destroy();
      throw new WriterRefusal(NOT_WAITING);
    }
    const pieces = incoming(content, { bytes: image.bytes, idleMs: this.idleMs, signal });
    if (image.container === 'none' && !this.writer.mustWait(id)) await this.writer.run(id, () => pieces);
    else await this.keepAndRun(id, pieces, image.container);
    return job;
  }

  private async keepAndRun(
    id: string,
    pieces: AsyncIterable<Uint8Array>,
    container: ContainerKind,
  ): Promise<void> {
    const path = inFolder(this.dir, `${id}.kept`);
    try {
      const why = await this.keep(path, pieces);
      if (why !== null) this.writer.giveUp(id, why);
      // Called off or given up while it came: told already.
      if (this.writer.signalOf(id))
        await this.writer.run(id, () => (container === 'none' ? plain(path) : unpacked(path, container)));
    } finally {
      try {
        rmSync(path, { force: true });
      } catch (error) {
        console.error(`A kept upload could not be taken away: ${faultWords(error)}.`);
      }
    }
  }

  /** Answers null where all of it is kept, else why not, for the user. */
  private async keep(path: string, pieces: AsyncIterable<Uint8Array>): Promise<string | null> {
    try {
      await makeFolder(this.dir);
      const file = await openOwn(path, 'anew');
      try {
        let at = 0;
        for await (const piece of pieces) {
          await writeFully(file, piece, at);
          at += piece.length;
        }
      } finally {
        await file.close();
      }
      return null;
    } catch (error) {
      if (error instanceof CalledOff) return 'Cancelled before the first byte. The stick is as it was.';
      return `The file could not be taken: ${faultWords(error)}. The stick is as it was, and so is the image file.`;
    }
  }
}

async function* plain(path: string): AsyncGenerator<Uint8Array> {
  yield* piecesOf(await openOwn(path, 'read'));
}
