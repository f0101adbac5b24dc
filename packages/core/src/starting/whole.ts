import { createDigest, type PacedDigest } from '../checksum/digest';
import { readGpt } from '../formats/gpt/read';
import { inspectImage, readDisk, type InspectOptions } from './inspect';
import { readMbr } from '../formats/mbr/read';
import type { ByteSource } from '../formats/source';
import type { Packing, ImageReading, Inspection } from '../model/inspection';
import type { DigestAlgorithm } from '../formats/checksumList';
import { GrowsBeyond, PackedFault } from '../container/fault';
import { KeptPages, PAGE } from '../container/keptPages';
import { PassSource } from '../container/passSource';
import { openPacked } from '../container/unpack';

/** How a whole file is read; bytes. */
export interface UnpackOptions extends InspectOptions {
  /** Digests of the packed file itself that are wanted; its content is always digested by SHA-256. */
  algorithms: readonly DigestAlgorithm[];
  /** Begins a digest; where none is given it runs on this thread. */
  startDigest?: (algorithms: readonly DigestAlgorithm[]) => Promise<PacedDigest>;
  /** Bytes of the packed file that have been read, and of the content that came out. */
  onProgress?: (read: number, unpacked: number) => void;
  /** Given what comes out of a packed file as it goes by, with its offset in bytes; it is waited for. */
  onContent?: (piece: Uint8Array, offset: number) => Promise<void>;
  /** Bytes of content beyond which unpacking is given up with GrowsBeyond; no end where there is none. */
  limit?: number;
  /** Asked after every piece; true ends the run. */
  stopped?: () => boolean;
}

/** A whole file as read: what it is, and its digests in hex. */
export interface Unpacked {
  inspection: Inspection;
  digests: Partial<Record<DigestAlgorithm, string>>;
}

const MIB = 1024 * 1024;
/** What is kept of the first pass, since tables and file systems begin there: the front, and the front of each part. */
const FRONT = 8 * MIB;
const PART_FRONT = 2 * MIB;
const MAX_PARTS = 8;
/** The table stands in the front of the front; it is looked for when so much has gone by. */
const TABLE = MIB;

/** Which pages of the first pass are kept; the parts are known as soon as the table has gone by. */
class WantedPages {
  private readonly fronts: { from: number; to: number }[] = [{ from: 0, to: FRONT }];
  readonly page = (page: number): boolean =>
    this.fronts.some((f) => (page + 1) * PAGE > f.from && page * PAGE < f.to);

  async readTable(pages: KeptPages): Promise<void> {
    // Only the front is at hand; whatever lies behind it reads as nothing, as in a file that is cut short.
    const front: ByteSource = {
      size: Number.MAX_SAFE_INTEGER,
      read: (offset, length) => {
        const out = new Uint8Array(Math.max(0, Math.min(length, TABLE - offset)));
        for (let at = offset; at < offset + out.length; at = (Math.floor(at / PAGE) + 1) * PAGE) {
          const page = pages.get(Math.floor(at / PAGE), TABLE);
          const piece = page?.subarray(at % PAGE, Math.min(PAGE, (at % PAGE) + offset + out.length - at));
          if (piece) out.set(piece, at - offset);
        }
        return Promise.resolve(out);
      },
    };
    const gpt = await readGpt(front);
    const parts = [...(gpt?.parts ?? []), ...((await readMbr(front, gpt?.sectorSize))?.entries ?? [])];
    for (const p of parts.slice(0, MAX_PARTS)) this.fronts.push({ from: p.start, to: p.start + PART_FRONT });
  }
}

/**
 * Unpacks a file once, digesting it and its content as both go by, then reads the content as an image of its own. Only
 * what the tables call for is kept; what they call for beyond it is unpacked again. Undefined where it was stopped.
 */
async function readPacked(
  source: ByteSource,
  kind: Packing,
  options: UnpackOptions,
): Promise<
  | { inner: ImageReading; innerName: string | null; innerSha256: string; digests: Unpacked['digests'] }
  | undefined
> {
  const start = options.startDigest ?? createDigest;
  const outer = await start(options.algorithms);
  const content = await start(['sha256']);
  const stopped = options.stopped ?? (() => false);
  let read = 0;
  const packed = await openPacked(kind, source, (piece) => {
    // Digests of one kind run in the same place, so that waiting for the content’s is waiting for both.
    void outer.update(piece);
    read += piece.length;
  });
  const wanted = new WantedPages();
  const pages = new KeptPages(wanted.page);
  for await (const piece of packed.content()) {
    const before = pages.at;
    const pace = content.update(piece);
    pages.take(piece);
    if (pace) await pace;
    if (before < TABLE && pages.at >= TABLE) await wanted.readTable(pages);
    if (pages.at > (options.limit ?? Infinity)) throw new GrowsBeyond(options.limit ?? 0);
    await options.onContent?.(piece, before);
    options.onProgress?.(read, pages.at);
    if (stopped()) return undefined;
  }
  await packed.rest();
  const bytes = pages.at;
  pages.restart();
  const inside = new PassSource(bytes, pages, packed.content);
  const inner = await inside.serve(readDisk(inside, options), stopped);
  options.onProgress?.(source.size, bytes);
  const innerSha256 = (await content.finish()).sha256 ?? '';
  return inner && { inner, innerName: packed.innerName, innerSha256, digests: await outer.finish() };
}

/**
 * Reads and digests a whole file, packed or not: what it is, what it starts on, its digests, and of a packed one the
 * size, digest and outcomes of what is inside. A container that cannot be unpacked is answered with a Stop finding that
 * says why. Undefined where it was stopped. Throws GrowsBeyond.
 */
export async function readWhole(source: ByteSource, options: UnpackOptions): Promise<Unpacked | undefined> {
  const inspection = await inspectImage(source, options);
  const { kind } = inspection.container;
  if (kind !== 'none') {
    try {
      const done = await readPacked(source, kind, options);
      if (!done) return undefined;
      const { inner, innerName, innerSha256, digests } = done;
      return {
        inspection: {
          ...inspection,
          container: { kind, innerName, innerBytes: inner.bytes, innerSha256 },
          inner,
        },
        digests,
      };
    } catch (error) {
      if (!(error instanceof PackedFault)) throw error;
      inspection.findings.push({ grade: 'stop', fault: { code: 'cannot be unpacked', why: error.reason } });
    }
  }
  const digests = await digestWhole(source, options);
  return digests && { inspection, digests };
}

const PIECE = 4 * MIB;

async function digestWhole(
  source: ByteSource,
  options: UnpackOptions,
): Promise<Unpacked['digests'] | undefined> {
  const digest = await createDigest(options.algorithms);
  for (let at = 0; at < source.size; at += PIECE) {
    digest.update(await source.read(at, PIECE));
    options.onProgress?.(Math.min(source.size, at + PIECE), 0);
    if (options.stopped?.()) return undefined;
  }
  return digest.finish();
}
