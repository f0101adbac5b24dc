import { createHash } from 'node:crypto';
import { rename, rm, type FileHandle } from 'node:fs/promises';
import { join } from 'node:path';
import type { DepotFile } from '@zb/core/model/standIns';
import { brokenDownload, depotImages, type DepotImage } from '@zb/core/demo/depot';
import { faultWords } from './files/faultWords';
import { inFolder } from './files/inFolder';
import { makeFolder } from './files/makeFolder';
import { openOwn, piecesOf, readFully, writeFully } from './files/ownFile';

interface Offered extends DepotFile {
  /** Sum that the depot's list names for it. */
  listed: string;
  build: () => Uint8Array;
}
interface Made extends Offered {
  /** What the file looked like when its digest was last found right: a file that was replaced looks otherwise. */
  seen: string;
  /** The last look at the file: looking and mending go one after the other. */
  last: Promise<unknown>;
}

const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** What the depot offers. Every image is composed once to learn its size and digest, and let go again. */
function offer(images: readonly DepotImage[]): Offered[] {
  return images.flatMap((image) => {
    const { file, title, about, profile } = image;
    const build = (): Uint8Array => image.build();
    const bytes = build();
    const listed = sha256(bytes);
    const whole = { file, title, about, profile, bytes: bytes.length, sha256: listed, listed, build };
    if (file !== brokenDownload.of) return [whole];
    const spoilt = brokenDownload.spoil(bytes);
    return [
      whole,
      {
        file: brokenDownload.file,
        title: brokenDownload.title,
        about: brokenDownload.about,
        profile: null,
        bytes: spoilt.length,
        sha256: sha256(spoilt),
        // Listed with the sum of the whole image, as published.
        listed,
        build: () => brokenDownload.spoil(build()),
      },
    ];
  });
}

/** So long nothing is tried again after it failed. */
const RETRY_MS = 2000;

/**
 * The stand-in depot: demo images made once into the data folder, and the checksum list that belongs to them. A file that is
 * gone, damaged or cannot be kept is made again when it is asked for.
 */
export class Depot {
  private readonly made: Made[];
  private readonly dir: string;
  /** GNU format, one line each. */
  readonly sums: string;
  /** Why a file cannot be kept at present, in words; null where all are. */
  trouble: string | null = null;
  private tried = -Infinity;

  constructor(dataDir: string, images: readonly DepotImage[] = depotImages) {
    this.dir = join(dataDir, 'depot');
    this.made = offer(images).map((f) => ({ ...f, seen: '', last: Promise.resolve() }));
    this.sums = this.made.map((f) => `${f.listed}  ${f.file}\n`).join('');
  }

  get files(): DepotFile[] {
    return this.made.map(({ build: _b, seen: _s, listed: _l, last: _p, ...file }) => file);
  }

  find(file: string): DepotFile | undefined {
    return this.made.find((f) => f.file === file);
  }

  /** Puts every file in its place, as far as there is room. Never throws. */
  async keepAll(): Promise<void> {
    for (const made of this.made) await (await this.sound(made))?.close();
  }

  /** Keeps what could not be kept before; nothing where all is, or it was tried a moment ago. */
  async tryAgain(): Promise<void> {
    if (this.trouble === null || performance.now() - this.tried < RETRY_MS) return;
    this.tried = performance.now();
    this.trouble = null;
    await this.keepAll();
  }

  /**
   * The bytes of a file of the depot: of the kept one where it is whole, made anew where it is not. Nothing is opened before
   * they are asked for. Throws only for a name the depot does not have.
   */
  async *pieces(file: string): AsyncGenerator<Uint8Array> {
    const made = this.made.find((f) => f.file === file);
    if (!made) throw new Error('The depot has no such file.');
    const kept = await this.sound(made);
    yield* kept ? piecesOf(kept) : inPieces(made.build());
  }

  /** Where a file lies whole, and its bytes; undefined where the depot has no such file, or cannot keep it. */
  async kept(file: string): Promise<{ path: string; bytes: number } | undefined> {
    const made = this.made.find((f) => f.file === file);
    const open = made && (await this.sound(made));
    if (!made || !open) return undefined;
    await open.close();
    return { path: inFolder(this.dir, made.file), bytes: made.bytes };
  }

  /** The kept file, proven whole, or made again; undefined where it can be neither read nor kept. */
  private sound(made: Made): Promise<FileHandle | undefined> {
    const mine = made.last.then(() => this.soundNow(made));
    made.last = mine;
    return mine;
  }

  /** Never rejects. */
  private async soundNow(made: Made): Promise<FileHandle | undefined> {
    const path = inFolder(this.dir, made.file);
    const whole = await this.whole(path, made).catch(() => undefined);
    if (whole) return whole;
    const fresh = `${path}.new`;
    try {
      await makeFolder(this.dir);
      const file = await openOwn(fresh, 'anew');
      try {
        await writeFully(file, made.build(), 0);
      } finally {
        await file.close();
      }
      await rename(fresh, path);
      return await this.whole(path, made);
    } catch (error) {
      this.trouble = `“${made.file}” cannot be kept: ${faultWords(error)}`;
      console.error(`The depot: ${this.trouble}. It is made anew each time it is asked for.`);
      await rm(fresh, { force: true }).catch(() => undefined);
      return undefined;
    }
  }

  private async whole(path: string, made: Made): Promise<FileHandle | undefined> {
    const file = await openOwn(path, 'read');
    try {
      const { ino, size, mtimeMs } = await file.stat();
      const looks = `${ino} ${size} ${mtimeMs}`;
      if (looks === made.seen) return file;
      if (size === made.bytes) {
        const digest = createHash('sha256');
        const piece = Buffer.alloc(1024 * 1024);
        for (let at = 0; at < size; at += piece.length)
          digest.update(piece.subarray(0, await readFully(file, piece, at)));
        if (digest.digest('hex') === made.sha256) {
          made.seen = looks;
          return file;
        }
      }
    } catch (error) {
      await file.close().catch(() => undefined);
      throw error;
    }
    await file.close().catch(() => undefined);
    return undefined;
  }
}

async function* inPieces(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  const PIECE = 1024 * 1024;
  for (let at = 0; at < bytes.length; at += PIECE)
    yield await Promise.resolve(bytes.subarray(at, at + PIECE));
}
