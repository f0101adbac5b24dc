import { GIB, KIB, MIB } from '../../units/bytes';
import { ceilDiv, taken, type Space } from './types';

const INODE_BYTES = 256;
/** A descriptor of a group, with the feature “64bit”. */
const DESCRIPTOR = 64;
const MAX_32 = 2 ** 32 - 1;
/** Blocks of the longest extent that is used; more extents than fit in the inode take a block of their own. */
const EXTENT = 32_768;
const EXTENTS_IN_INODE = 4;
const RESERVED_SHARE = 0.05;
/** The size is cut to whole pages of memory. */
const PAGE = 4096;
const LOST_AND_FOUND = 16 * KIB;
const DIRECT_BLOCKS = 12;
/** A last group with less room than this beyond its own tables is left out. */
const WORTH_A_GROUP = 50;

/** By size, the kind of file system that is made: block size, which is no less than a sector, and bytes for each inode (mke2fs.conf(5), fs_types). */
function kindOf(bytes: number, sector: number): { block: number; ratio: number } {
  const kind = kindBySize(bytes);
  return { ...kind, block: Math.max(kind.block, sector) };
}
function kindBySize(bytes: number): { block: number; ratio: number } {
  if (bytes < 3 * MIB) return { block: KIB, ratio: 8192 };
  if (bytes < 512 * MIB) return { block: KIB, ratio: 4096 };
  if (bytes < 4096 * GIB) return { block: 4 * KIB, ratio: 16_384 };
  return { block: 4 * KIB, ratio: bytes < 16_384 * GIB ? 32_768 : 65_536 };
}

/** Blocks of the journal by those of the file system (e2fsprogs, ext2fs_default_journal_size). */
function journalBlocks(blocks: number): number {
  const K = 1024;
  const steps: [number, number][] = [
    [2 * K, 0],
    [32 * K, K],
    [256 * K, 4 * K],
    [512 * K, 8 * K],
    [4096 * K, 16 * K],
    [8192 * K, 32 * K],
    [16_384 * K, 64 * K],
    [32_768 * K, 128 * K],
  ];
  return steps.find(([below]) => blocks < below)?.[1] ?? 256 * K;
}

/** Groups that hold a copy of the superblock: 0, 1 and the powers of 3, 5 and 7 (“sparse_super”). */
function copies(groups: number): number {
  let n = Math.min(groups, 2);
  for (const base of [3, 5, 7]) for (let p = base; p < groups; p *= base) n += 1;
  return n;
}
const hasCopy = (group: number): boolean =>
  group < 2 || [3, 5, 7].some((base) => base ** Math.round(Math.log(group) / Math.log(base)) === group);

/**
 * Room of an ext4 file system made with the defaults of e2fsprogs 1.47 (mke2fs(8), mke2fs.conf(5); ext4 disk layout,
 * “Block groups”), exact to the block. `bytes` is the size of the part; undefined where it is too small for one.
 */
export function ext4Space(bytes: number, sector = 512): Space | undefined {
  const { block, ratio } = kindOf(bytes, sector);
  const first = block === KIB ? 1 : 0;
  let perGroup = 8 * block;
  const given = (Math.floor(bytes / PAGE) * PAGE) / block;
  let blocks = given;
  if (blocks < 64) return undefined;
  const inodes = Math.min(MAX_32, Math.floor((given * block) / ratio));
  for (;;) {
    const groups = ceilDiv(blocks - first, perGroup);
    // A group's bitmap names so many inodes; where there are more, groups are made smaller and all begins anew (ext2fs_initialize).
    if (ceilDiv(inodes, groups) > 8 * block && perGroup >= 256) {
      perGroup -= 8;
      blocks = given;
      continue;
    }
    const perBlock = block / DESCRIPTOR;
    const descriptors = ceilDiv(groups, perBlock);
    // Descriptors of a size that it may grow to; beyond 2^32 blocks it cannot (“resize_inode”).
    const grows = blocks <= MAX_32;
    const growth = Math.min(MAX_32, blocks * 1024);
    const kept = !grows
      ? 0
      : Math.min(block / 4, ceilDiv(ceilDiv(growth - first, perGroup), perBlock) - descriptors);
    const inodeBlocks = inodeTable(inodes, block, groups);
    const copyBlocks = 1 + descriptors + kept;
    const own = 2 + inodeBlocks;
    const rest = (blocks - first) % perGroup;
    const last = own + (hasCopy(groups - 1) ? copyBlocks : 0);
    if (rest > 0 && rest < last + WORTH_A_GROUP) {
      if (groups === 1) return undefined;
      blocks -= rest;
      continue;
    }
    const journal = journalBlocks(blocks);
    const extents = ceilDiv(journal, EXTENT);
    const tables = copies(groups) * copyBlocks + 2 * groups;
    const lost = Math.min(DIRECT_BLOCKS, Math.max(2, LOST_AND_FOUND / block));
    const overhead = first + tables + groups * inodeBlocks + journal;
    const files = 1 + lost + (grows ? 1 : 0) + (extents > EXTENTS_IN_INODE ? 1 : 0);
    const free = (blocks - overhead - files) * block;
    // Reckoned before the last group is left out, and made smaller with it.
    const reserved = Math.floor((Math.floor(given * RESERVED_SHARE) * blocks) / given) * block;
    return {
      total: (blocks - overhead) * block,
      free,
      toUsers: free - reserved,
      takes: taken(
        ['inode tables', groups * inodeBlocks * block],
        ['journal', journal * block],
        ['group tables', (first + tables) * block],
        ['its own files', files * block],
        ['not a whole unit', bytes - blocks * block],
        ['kept for the administrator', reserved],
      ),
    };
  }
}

/** Blocks of one group’s inode table, which it fills whole. */
function inodeTable(wanted: number, block: number, groups: number): number {
  const perGroup = Math.min(ceilDiv(wanted, groups), block * 8);
  const inBlocks = ceilDiv(perGroup * INODE_BYTES, block);
  // A group’s number of inodes is a multiple of eight, because of its bitmap.
  const inodes = Math.floor((inBlocks * block) / INODE_BYTES / 8) * 8;
  return ceilDiv(inodes * INODE_BYTES, block);
}
