import { containerKind } from '../container/kind';
import { readWhole } from '../starting/whole';
import { openPacked } from '../container/unpack';
import { readDisk } from '../starting/inspect';
import type { ByteSource } from '../formats/source';
import type { ImageReading } from '../model/inspection';
import { compareBlocks } from './compareBlocks';
import { explainDump, type DumpComparison } from './compareDump';
import { compareReadings, type ReadingDifference } from './compareReadings';
import { compareTrees, type TreeDifference } from './compareTrees';

/** What two images, or an image and a dump, have in common and not. */
export interface ImageComparison {
  /** Byte against byte: what a dump of a written stick is judged by. */
  blocks: DumpComparison;
  /** What differs as far as tables, loaders and outcomes tell. */
  differences: ReadingDifference[];
  /** What differs in the trees of FAT and optical parts; null where one side is packed, whose trees are not read here. */
  trees: TreeDifference[] | null;
}

const PIECE = 1024 * 1024;

async function* pieces(source: ByteSource): AsyncGenerator<Uint8Array> {
  for (let at = 0; at < source.size; at += PIECE) yield source.read(at, PIECE);
}

interface Side {
  reading: ImageReading;
  content: () => AsyncIterable<Uint8Array>;
  packed: boolean;
}

async function open(source: ByteSource, stopped: () => boolean): Promise<Side | undefined> {
  const kind = containerKind(await source.read(0, 512));
  if (kind === 'none')
    return { reading: await readDisk(source), content: () => pieces(source), packed: false };
  const whole = await readWhole(source, { algorithms: [], stopped });
  if (!whole) return undefined;
  // What cannot be unpacked is compared as it is.
  if (!whole.inspection.inner)
    return { reading: whole.inspection, content: () => pieces(source), packed: true };
  const packed = await openPacked(kind, source);
  return { reading: whole.inspection.inner, content: packed.content, packed: true };
}

/**
 * Compares an image, packed or not, with a dump of what it was written to, or with another image. `told` is given the
 * bytes compared so far, and ends the run by answering false; undefined is answered then. Throws only what a source throws.
 */
export async function compareImages(
  image: ByteSource,
  dump: ByteSource,
  told: (bytes: number) => boolean = () => true,
): Promise<ImageComparison | undefined> {
  const first = await open(image, () => !told(0));
  if (!first) return undefined;
  const second = await readDisk(dump);
  const tally = await compareBlocks(first.content(), dump, told);
  if (!tally) return undefined;
  return {
    blocks: explainDump(first.reading, second, tally),
    differences: compareReadings(first.reading, second),
    trees: first.packed
      ? null
      : await compareTrees({ source: image, reading: first.reading }, { source: dump, reading: second }),
  };
}
