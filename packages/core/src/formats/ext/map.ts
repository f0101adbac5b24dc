import { u16, u32 } from '../bytes';
import { EXT_BLOCK_BYTES, EXT_EXTENT, EXT_FLAG, EXT_INODE } from './layout';

/** Blocks of a file that follow each other on the volume; `at` is undefined where nothing is kept and zeros are read. */
export interface Run {
  first: number;
  count: number;
  at: number | undefined;
}

/** A block's content; shorter where the source ends. */
export type ReadBlock = (block: number) => Promise<Uint8Array>;

/** Runs and nodes of a map that are looked at: more than any file has that is read here. */
const MAX_RUNS = 20_000;
const MAX_NODES = 2000;

/** The runs of a file whose map is a tree of extents (kernel documentation, ext4 “Extent Tree”). */
async function fromExtents(node: Uint8Array, read: ReadBlock): Promise<Run[] | undefined> {
  const out: Run[] = [];
  let nodes = 0;
  const walk = async (b: Uint8Array, depth: number): Promise<boolean> => {
    nodes += 1;
    if (nodes > MAX_NODES || depth > EXT_EXTENT.maxDepth || u16(b, 0) !== EXT_EXTENT.mark) return false;
    const entries = Math.min(u16(b, 2), Math.floor(b.length / EXT_EXTENT.entryBytes) - 1);
    const leaf = u16(b, 6) === 0;
    for (let i = 0; i < entries; i += 1) {
      const o = EXT_EXTENT.headerBytes + i * EXT_EXTENT.entryBytes;
      if (leaf) {
        const length = u16(b, o + 4);
        const free = length > EXT_EXTENT.written;
        const at = u32(b, o + 8) + u16(b, o + 6) * 2 ** 32;
        const count = free ? length - EXT_EXTENT.written : length;
        if (out.length >= MAX_RUNS) return false;
        out.push({ first: u32(b, o), count, at: free ? undefined : at });
      } else {
        const below = await read(u32(b, o + 4) + u16(b, o + 8) * 2 ** 32);
        if (!(await walk(below, depth + 1))) return false;
      }
    }
    return true;
  };
  return (await walk(node, 0)) ? out : undefined;
}

/** The runs of a file whose map is of direct and indirect blocks (kernel documentation, ext4 “Direct/Indirect Block Addressing”). */
async function fromBlocks(
  map: Uint8Array,
  blocks: number,
  perBlock: number,
  read: ReadBlock,
): Promise<Run[]> {
  const out: Run[] = [];
  let next = 0;
  let nodes = 0;
  const take = (block: number): void => {
    const last = out.at(-1);
    const at = block === 0 ? undefined : block;
    const follows = last?.at === undefined ? at === undefined : last.at + last.count === at;
    if (last && follows) last.count += 1;
    else out.push({ first: next, count: 1, at });
    next += 1;
  };
  const indirect = async (block: number, depth: number): Promise<void> => {
    if (next >= blocks || out.length >= MAX_RUNS || nodes >= MAX_NODES) return;
    nodes += 1;
    if (block === 0) {
      const count = Math.min(blocks - next, perBlock ** depth);
      out.push({ first: next, count, at: undefined });
      next += count;
      return;
    }
    const b = await read(block);
    for (let i = 0; i < perBlock && next < blocks && out.length < MAX_RUNS; i += 1) {
      if (depth === 1) take(u32(b, 4 * i));
      else await indirect(u32(b, 4 * i), depth - 1);
    }
  };
  for (let i = 0; i < 12 && next < blocks; i += 1) take(u32(map, 4 * i));
  for (const depth of [1, 2, 3]) await indirect(u32(map, 4 * (11 + depth)), depth);
  return out;
}

/**
 * Where the blocks of an inode's content lie, in order. Undefined where its map is damaged, or larger than anything that
 * is read here.
 */
export async function runsOf(
  inode: Uint8Array,
  blocks: number,
  blockBytes: number,
  read: ReadBlock,
): Promise<Run[] | undefined> {
  const map = inode.subarray(EXT_INODE.block, EXT_INODE.block + EXT_BLOCK_BYTES);
  if (u32(inode, EXT_INODE.flags) & EXT_FLAG.extents) return fromExtents(map, read);
  const runs = await fromBlocks(map, blocks, blockBytes / 4, read);
  const mapped = runs.reduce((sum, r) => sum + r.count, 0);
  return mapped >= blocks ? runs : undefined;
}
