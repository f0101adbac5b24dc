import { textOf, u16, u32, u8, utf8 } from '../bytes';
import type { ByteSource } from '../source';
import { plainPath, type Found, type Volume, type VolumeFile } from '../volume';
import {
  EXT_BLOCK_BYTES,
  EXT_FEATURE,
  EXT_FLAG,
  EXT_GROUP,
  EXT_INODE,
  EXT_MARK,
  EXT_MODE,
  EXT_ROOT,
  EXT_SUPER,
} from './layout';
import { runsOf, type Run } from './map';

/** A folder of more bytes than this is read to here only; a link is followed so often; so many names stand in a folder. */
const MAX_FOLDER = 4 * 1024 * 1024;
const MAX_LINKS = 8;
const MAX_NAMES = 100_000;

interface Inode {
  raw: Uint8Array;
  kind: number;
  bytes: number;
}

interface Geometry {
  block: number;
  firstData: number;
  inodesPerGroup: number;
  inodeBytes: number;
  descriptorBytes: number;
}

/** Features without which nothing can be read: the file system is then not opened. */
const NOT_READ =
  EXT_FEATURE.compressed | EXT_FEATURE.journalDevice | EXT_FEATURE.metaGroups | EXT_FEATURE.inlineData;

async function geometryOf(source: ByteSource): Promise<Geometry | undefined> {
  const s = await source.read(EXT_SUPER.at, EXT_SUPER.bytes);
  if (u16(s, EXT_SUPER.mark) !== EXT_MARK) return undefined;
  const log = u32(s, EXT_SUPER.logBlockBytes);
  const incompatible = u32(s, EXT_SUPER.incompatible);
  if (log > 6 || incompatible & NOT_READ) return undefined;
  const inodeBytes = u32(s, EXT_SUPER.revision) === 0 ? 128 : u16(s, EXT_SUPER.inodeBytes);
  const wide = incompatible & EXT_FEATURE.wide ? u16(s, EXT_SUPER.descriptorBytes) : 0;
  const block = 1024 * 2 ** log;
  const inodesPerGroup = u32(s, EXT_SUPER.inodesPerGroup);
  if (inodeBytes < 128 || inodeBytes > block || inodesPerGroup === 0) return undefined;
  const descriptorBytes = Math.max(EXT_GROUP.bytes, wide);
  return { block, firstData: u32(s, EXT_SUPER.firstDataBlock), inodesPerGroup, inodeBytes, descriptorBytes };
}

/**
 * Opens an ext2, ext3 or ext4 file system for reading; undefined where there is none, or one with features that are not
 * read here (blocks described in groups of groups, a journal's own device, compression, content kept in inodes). Names keep their case; links are
 * followed within the volume; what is encrypted is not read. Source: kernel documentation, “ext4 Data Structures and
 * Algorithms”.
 */
export async function openExt(source: ByteSource): Promise<Volume | undefined> {
  const g = await geometryOf(source);
  if (!g) return undefined;
  const readBlock = (block: number): Promise<Uint8Array> => source.read(block * g.block, g.block);

  const inodeOf = async (number: number): Promise<Inode | undefined> => {
    if (number < 1) return undefined;
    const group = Math.floor((number - 1) / g.inodesPerGroup);
    const at = (g.firstData + 1) * g.block + group * g.descriptorBytes;
    const descriptor = await source.read(at, g.descriptorBytes);
    const high = g.descriptorBytes > EXT_GROUP.bytes ? u32(descriptor, EXT_GROUP.inodeTableHigh) : 0;
    const table = (u32(descriptor, EXT_GROUP.inodeTable) + high * 2 ** 32) * g.block;
    if (table === 0) return undefined;
    const raw = await source.read(table + ((number - 1) % g.inodesPerGroup) * g.inodeBytes, g.inodeBytes);
    if (raw.length < g.inodeBytes || u32(raw, EXT_INODE.flags) & EXT_FLAG.encrypted) return undefined;
    const kind = u16(raw, EXT_INODE.mode) & EXT_MODE.kind;
    const bytes = u32(raw, EXT_INODE.sizeLow) + u32(raw, EXT_INODE.sizeHigh) * 2 ** 32;
    return { raw, kind, bytes };
  };

  const content = async (inode: Inode): Promise<VolumeFile> => {
    const runs = await runsOf(inode.raw, Math.ceil(inode.bytes / g.block), g.block, readBlock);
    const sorted = [...(runs ?? [])].sort((a, b) => a.first - b.first);
    const runAt = (block: number): Run | undefined => {
      let [low, high] = [0, sorted.length - 1];
      while (low <= high) {
        const middle = (low + high) >> 1;
        const run = sorted[middle];
        if (!run) return undefined;
        if (block < run.first) high = middle - 1;
        else if (block >= run.first + run.count) low = middle + 1;
        else return run;
      }
      return undefined;
    };
    const blocks = Math.ceil(inode.bytes / g.block);
    const tail = inode.bytes - (blocks - 1) * g.block;
    /** Bytes of a run that belong to the file end within the source. */
    const there = (run: Run): boolean => {
      if (run.at === undefined) return true;
      const count = Math.min(run.count, blocks - run.first);
      const last = run.first + count === blocks ? tail : g.block;
      return count <= 0 || (run.at + count - 1) * g.block + last <= source.size;
    };
    return {
      size: inode.bytes,
      whole: runs !== undefined && sorted.every(there),
      placeOf(offset) {
        const run = runAt(Math.floor(offset / g.block));
        if (run?.at === undefined) return undefined;
        return run.at * g.block + offset - run.first * g.block;
      },
      async read(offset, length) {
        const end = Math.min(offset + length, inode.bytes);
        if (offset < 0 || end <= offset) return new Uint8Array(0);
        const out = new Uint8Array(end - offset);
        for (let at = offset; at < end;) {
          const block = Math.floor(at / g.block);
          const run = runAt(block);
          // Where no run tells, nothing is kept and zeros are read, a block at a time.
          const stop = Math.min(end, run ? (run.first + run.count) * g.block : (block + 1) * g.block);
          if (run?.at !== undefined) {
            const piece = await source.read(run.at * g.block + at - run.first * g.block, stop - at);
            out.set(piece, at - offset);
            if (piece.length < stop - at) return out.subarray(0, at - offset + piece.length);
          }
          at = stop;
        }
        return out;
      },
    };
  };

  /** Names of a folder with their inodes; a hashed folder keeps its index where no name is seen (“Directory Entries”). */
  const entriesOf = async (folder: Inode): Promise<Map<string, number>> => {
    const out = new Map<string, number>();
    if (folder.kind !== EXT_MODE.folder) return out;
    const file = await content(folder);
    const bytes = await file.read(0, Math.min(folder.bytes, MAX_FOLDER));
    for (let start = 0; start < bytes.length && out.size < MAX_NAMES; start += g.block) {
      const end = Math.min(bytes.length, start + g.block);
      for (let o = start; o + 8 <= end;) {
        const length = u16(bytes, o + 4);
        if (length < 8 || o + length > end) break;
        const name = utf8(bytes, o + 8, u8(bytes, o + 6));
        const inode = u32(bytes, o);
        if (inode !== 0 && name !== '' && name !== '.' && name !== '..') out.set(name, inode);
        o += length;
      }
    }
    return out;
  };

  const linkOf = async (inode: Inode): Promise<string> => {
    // What a short link names stands in the place of its map.
    if (inode.bytes < EXT_BLOCK_BYTES) return utf8(inode.raw, EXT_INODE.block, inode.bytes);
    const bytes = await (await content(inode)).read(0, Math.min(inode.bytes, 4096));
    return textOf(bytes);
  };

  const walk = async (path: string, links: number): Promise<{ inode: Inode; path: string } | undefined> => {
    let at = await inodeOf(EXT_ROOT);
    let here = '';
    const names = plainPath(path).split('/').filter(Boolean);
    for (const [i, name] of names.entries()) {
      const number: number | undefined = at && (await entriesOf(at)).get(name);
      const next: Inode | undefined = number === undefined ? undefined : await inodeOf(number);
      if (!next) return undefined;
      if (next.kind === EXT_MODE.link) {
        if (links === 0) return undefined;
        const to = await linkOf(next);
        const rest = names.slice(i + 1).join('/');
        return walk(`${to.startsWith('/') ? '' : here}/${to}/${rest}`, links - 1);
      }
      here = `${here}/${name}`;
      at = next;
    }
    return at && { inode: at, path: here || '/' };
  };

  return {
    async find(path): Promise<Found | undefined> {
      const hit = await walk(path, MAX_LINKS);
      if (!hit) return undefined;
      if (hit.inode.kind === EXT_MODE.folder) return { directory: true, path: hit.path };
      if (hit.inode.kind !== EXT_MODE.file) return undefined;
      const { inode } = hit;
      return { directory: false, path: hit.path, bytes: inode.bytes, open: () => content(inode) };
    },
    async names(path) {
      const hit = await walk(path, MAX_LINKS);
      return hit ? [...(await entriesOf(hit.inode)).keys()] : [];
    },
  };
}
