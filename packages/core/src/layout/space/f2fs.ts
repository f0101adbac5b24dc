import { MIB } from '../../units/bytes';
import { ceilDiv, taken, type Space } from './types';

const SEGMENT = 2 * MIB;
const BLOCKS = 512;
const BLOCK = 4096;
const CHECKPOINT = 2;
const SIT_ENTRIES = 55;
const NAT_ENTRIES = 455;
const LOGS = 6;
const LEAST_SEGMENTS = 9;
/** Bytes of the two bitmaps that a checkpoint block holds, and of the largest of the first (f2fs_fs.h). */
const BITMAPS = BLOCK - 192;
const SIT_BITMAP = 4096 - 64;

/** Segments kept back so that tidying up always finds room, for a share in per cent. */
const reservedFor = (share: number): number => Math.floor(2 * (100 / share + 1) + LOGS);

/** Segments kept back in all: for tidying up, and the share of the rest beyond which it would slow down. */
const keptBack = (main: number, share: number): number => {
  const reserved = reservedFor(share);
  return reserved + Math.floor(((main - reserved) * share) / 100);
};

/** The fewest segments that any share keeps back, as the maker searches it. */
function fewestKeptBack(main: number): number {
  const [from, steps, step] = main < 256 ? [10, 18, 5] : [0.01, 1000, 0.01];
  let fewest = main;
  for (let i = 0; i < steps; i += 1) fewest = Math.min(fewest, keptBack(main, from + i * step));
  return fewest;
}

/** Room of an F2FS file system made with the defaults of f2fs-tools 1.15 (kernel documentation, “F2FS: on-disk layout”). */
export function f2fsSpace(bytes: number): Space | undefined {
  const segments = Math.floor((bytes - SEGMENT) / SEGMENT);
  const sit = ceilDiv(ceilDiv(segments, SIT_ENTRIES), BLOCKS);
  const natBlocks = ceilDiv((segments - CHECKPOINT - 2 * sit) * BLOCKS, NAT_ENTRIES);
  const sitBitmap = Math.min((sit * BLOCKS) / 8, SIT_BITMAP);
  const natMost = Math.floor(((BITMAPS - (sitBitmap > BITMAPS - 64 ? 0 : sitBitmap)) * 8) / BLOCKS);
  const nat = Math.min(ceilDiv(natBlocks, BLOCKS), natMost);
  const before = CHECKPOINT + 2 * sit + 2 * nat;
  const ssa = ceilDiv(segments - before + 1, BLOCKS);
  const main = segments - before - ssa;
  if (main < LEAST_SEGMENTS) return undefined;
  const over = fewestKeptBack(main);
  const total = (main - over) * SEGMENT;
  if (total <= 0) return undefined;
  return {
    total,
    free: total,
    toUsers: total,
    takes: taken(
      ['kept for tidying up', over * SEGMENT],
      ['allocation tables', (before + ssa) * SEGMENT],
      ['not a whole unit', bytes - (segments + 1) * SEGMENT],
    ),
  };
}
