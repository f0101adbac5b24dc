import { GIB, MIB } from '../../units/bytes';
import { ceilDiv, taken, type Space } from './types';

const BLOCK = 4096;
const LEAST = 300 * MIB;
/** An allocation group of a file system from 4 TiB on: 1 TiB less a block. */
const MOST_GROUP = 2 ** 40 / BLOCK - 1;
const LEAST_LOG = (64 * MIB) / BLOCK;
/** The log is this part of the file system, at most so many blocks (2 GiB less 10 MiB). */
const LOG_SHARE = 2048;
const MOST_LOG = (2 * GIB - 10 * MIB) / BLOCK;
/** A pool for what must not fail for want of room. */
const POOL = 8192;

/** Blocks of the largest tree over so many records, half of each block used: leaf and node records that a block takes. */
function treeBlocks(records: number, leaf: number, node: number): number {
  let level = ceilDiv(records, leaf);
  let blocks = level;
  while (level > 1) {
    level = ceilDiv(level, node);
    blocks += level;
  }
  return blocks;
}

/**
 * What a group of so many blocks keeps for its trees. Records of 12 and 16 bytes, keys and pointers of 4, behind a head of
 * 56; a block is at least half full; 64 inodes of 512 bytes to a record.
 */
const treesOf = (group: number): number =>
  treeBlocks(group, 168, 252) + treeBlocks(Math.floor((group * (BLOCK / 512)) / 64), 126, 252) + 1;

/**
 * Room of an XFS file system made with the defaults of xfsprogs 6.1 (mkfs.xfs(8)) as a kernel mounts it: its log, and what
 * each group keeps for the trees of shared blocks and of free inodes (XFS Algorithms & Data Structures, “Reservation”).
 */
export function xfsSpace(bytes: number, sector = 512): Space | undefined {
  if (bytes < LEAST) return undefined;
  const blocks = Math.floor(bytes / BLOCK);
  const group = bytes >= 4096 * GIB ? MOST_GROUP : ceilDiv(blocks, 4);
  const groups = ceilDiv(blocks, group);
  const log = Math.min(MOST_LOG, Math.max(LEAST_LOG, Math.floor(blocks / LOG_SHARE)), group - 64);
  const trees = (groups - 1) * treesOf(group) + treesOf(blocks - (groups - 1) * group);
  const pool = Math.min(POOL, Math.floor(blocks / 20));
  const total = (blocks - log) * BLOCK;
  // Each group begins with four heads of a sector each: a block, or four of them (XFS Algorithms & Data Structures, “Allocation groups”).
  const heads = (ceilDiv(4 * sector, BLOCK) - 1) * groups;
  const own = trees + pool + heads;
  const free = total - own * BLOCK;
  return {
    total,
    free,
    toUsers: free,
    takes: taken(['kept for its trees', own * BLOCK], ['journal', log * BLOCK]),
  };
}
