import { expose, wrap, type Remote } from 'comlink';
import { createDigest } from '@zb/core/checksum/digest';
import { readWhole } from '@zb/core/starting/whole';
import { checkListSignature, type SignatureCheck } from '@zb/core/checksum/signature';
import { compareImages, type ImageComparison } from '@zb/core/write/compareImages';
import type { ByteSource } from '@zb/core/formats/source';
import { inspectImage } from '@zb/core/starting/inspect';
import type { Inspection } from '@zb/core/model/inspection';
import type { DigestAlgorithm } from '@zb/core/formats/checksumList';
import { digestsElsewhere } from './digestElsewhere';
import type { PieceWorker } from './pieceWorker';

/** Large enough to keep the disk busy, small enough to keep memory flat: AHEAD + 1 of these exist at a time. */
const CHUNK = 8 * 1024 * 1024;
const AHEAD = 2;
const TELL_MS = 120;

let remote: Remote<PieceWorker> | undefined;
const reader = (): Remote<PieceWorker> =>
  (remote ??= wrap<PieceWorker>(
    new Worker(new URL('./pieceWorker.ts', import.meta.url), { type: 'module' }),
  ));

export interface Digesting {
  /** Undefined where it was cancelled. */
  digests: Partial<Record<DigestAlgorithm, string>> | undefined;
  /** Of a packed file: the inspection anew, with what is inside. */
  inspection?: Inspection;
  seconds: number;
}

/** Runs told to stop; a run leaves the set when it ends. */
const stopped = new Set<number>();
const piece = async (file: Blob, from: number, length: number): Promise<Uint8Array> =>
  new Uint8Array(await file.slice(from, from + length).arrayBuffer());

const sourceOf = (file: Blob): ByteSource => ({
  size: file.size,
  read: (offset, length) => piece(file, offset, length),
});

const api = {
  inspect(file: Blob): Promise<Inspection> {
    return inspectImage(sourceOf(file));
  },

  /** Reads the file once, in order; the next pieces are fetched while the last is being digested. */
  async digest(
    run: number,
    file: Blob,
    algorithms: DigestAlgorithm[],
    onProgress: (bytes: number, seconds: number) => void,
  ): Promise<Digesting> {
    const begun = performance.now();
    const elapsed = (): number => (performance.now() - begun) / 1000;
    const digest = await createDigest(algorithms);
    let told = begun;
    const waiting: Promise<ArrayBuffer>[] = [];
    let asked = 0;
    const ask = (): void => {
      while (waiting.length < AHEAD && asked < file.size) {
        const next = reader().read(file, asked, CHUNK);
        // A fault is thrown where the piece is used; until then it must not count as unhandled.
        next.catch(() => undefined);
        waiting.push(next);
        asked += CHUNK;
      }
    };
    for (let at = 0; at < file.size; at += CHUNK) {
      ask();
      const bytes = new Uint8Array((await waiting.shift()) ?? new ArrayBuffer(0));
      ask();
      digest.update(bytes);
      if (stopped.delete(run)) return { digests: undefined, seconds: elapsed() };
      if (performance.now() - told > TELL_MS) {
        told = performance.now();
        onProgress(at + bytes.length, elapsed());
      }
    }
    onProgress(file.size, elapsed());
    return { digests: digest.finish(), seconds: elapsed() };
  },

  /** Unpacks a file piece by piece, digesting it and its content as both go by, and reads the content as an image. */
  async unpack(
    run: number,
    file: Blob,
    algorithms: DigestAlgorithm[],
    onProgress: (bytes: number, seconds: number) => void,
  ): Promise<Digesting> {
    const begun = performance.now();
    let told = begun;
    const elsewhere = digestsElsewhere();
    const done = await readWhole(sourceOf(file), {
      algorithms,
      startDigest: elsewhere.start,
      onProgress: (read) => {
        const now = performance.now();
        if (now - told < TELL_MS) return;
        told = now;
        onProgress(read, (now - begun) / 1000);
      },
      stopped: () => stopped.has(run),
    }).finally(elsewhere.end);
    stopped.delete(run);
    const seconds = (performance.now() - begun) / 1000;
    return done ? { ...done, seconds } : { digests: undefined, seconds };
  },

  /** Compares two files byte by byte, and what their readings and trees tell; undefined where it was cancelled. */
  async compare(
    run: number,
    image: Blob,
    dump: Blob,
    onProgress: (bytes: number) => void,
  ): Promise<ImageComparison | undefined> {
    let told = performance.now();
    const found = await compareImages(sourceOf(image), sourceOf(dump), (bytes) => {
      if (performance.now() - told > TELL_MS) {
        told = performance.now();
        onProgress(bytes);
      }
      return !stopped.has(run);
    });
    stopped.delete(run);
    return found;
  },

  async checkSignature(list: Blob, signature: Blob | null, key: Blob): Promise<SignatureCheck> {
    const all = (blob: Blob): Promise<Uint8Array> => piece(blob, 0, blob.size);
    return checkListSignature(await all(list), signature ? await all(signature) : undefined, await all(key));
  },

  cancel(run: number): void {
    stopped.add(run);
  },
};

export type ImageWorker = typeof api;
expose(api);
