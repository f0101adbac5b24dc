import type { ImageReading } from '../model/inspection';
import { explainReadback, type Readback } from './readback';
import { BLOCK, type BlockTally } from './compareBlocks';

/** What differs in one stretch of the image. Bytes. */
export interface StretchDifference {
  title: string;
  start: number;
  bytes: number;
  blocks: number;
}

/** What a comparison of an image with a dump of the written stick means. */
export interface DumpComparison extends Readback {
  imageBytes: number;
  dumpBytes: number;
  /** Exactly the first byte that differs, where `firstDifference` names its block. */
  firstByte: number | null;
  differingBytes: number;
  /** Blocks of this many bytes were compared. */
  blockBytes: number;
  stretches: StretchDifference[];
  /** Bytes the dump holds behind the image: the rest of the stick, not compared. */
  beyond: number;
  /** The last part's bytes before and after, where a first start has made it grow; else null. */
  grown: { from: number; to: number } | null;
}

/** Which stretches of the image the bad blocks lie in, in the order they stand; only those that differ. */
function byStretch(image: ImageReading, tally: BlockTally): StretchDifference[] {
  return image.regions.flatMap((r) => {
    const blocks = tally.bad.filter(
      ({ index }) => index * BLOCK < r.start + r.bytes && (index + 1) * BLOCK > r.start,
    ).length;
    return blocks > 0 ? [{ title: r.title, start: r.start, bytes: r.bytes, blocks }] : [];
  });
}

/** The last part grew, and no part moved: what an image that fits itself to its stick does when it first starts. */
function grew(image: ImageReading, dump: ImageReading): DumpComparison['grown'] {
  const last = image.parts[image.parts.length - 1];
  const now = dump.parts.find((p) => p.index === last?.index);
  const kept = image.parts.every((p) => dump.parts.some((q) => q.index === p.index && q.start === p.start));
  return last && now && kept && now.bytes > last.bytes ? { from: last.bytes, to: now.bytes } : null;
}

/** A table, and nothing that is a file system, differs. */
const onlyTables = (image: ImageReading, stretches: readonly StretchDifference[]): boolean =>
  stretches.length > 0 &&
  stretches.every((s) => {
    const region = image.regions.find((r) => r.start === s.start);
    // A block holds eight sectors, so the gap beside a table may share one with it.
    const record = region?.start === 0 && region.kind === 'code';
    return region?.kind === 'table' || record || (region?.kind === 'gap' && s.blocks <= 1);
  });

/**
 * Says what a comparison of an image with a dump of the written stick means: as a read-back says it, and beyond that
 * what the parts of both say of a first start. Readings are of the unpacked image and of the dump.
 */
export function explainDump(image: ImageReading, dump: ImageReading, tally: BlockTally): DumpComparison {
  const stretches = byStretch(image, tally);
  const found = explainReadback(tally.bad, BLOCK, image.bytes, tally.compared);
  const over = dump.bytes - image.bytes;
  const base = {
    ...found,
    differing: tally.badBlocks,
    imageBytes: image.bytes,
    dumpBytes: dump.bytes,
    firstByte: tally.first ?? found.firstDifference,
    differingBytes: tally.differingBytes,
    blockBytes: BLOCK,
    stretches,
    beyond: Math.max(0, over),
    grown: null,
  };
  if (found.pattern === 'cut short' || found.pattern === 'same') return base;
  const grown = grew(image, dump);
  if (grown) return { ...base, grown, pattern: 'changed by the first start' };
  return onlyTables(image, stretches) ? { ...base, pattern: 'changed by the first start' } : base;
}
