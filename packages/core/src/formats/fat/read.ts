import { ascii, joined, u16, u32, u8, utf16 } from '../bytes';
import type { ByteSource } from '../source';
import { walkTree, type TreeEntry } from '../tree';
import {
  ATTRIBUTE,
  DIR_ENTRY,
  FAT12_CLUSTERS,
  FAT16_BOOT,
  FAT16_CLUSTERS,
  FAT32_BOOT,
  FAT_BOOT,
  FREED,
  LABEL_BYTES,
  LONG_PIECES,
} from './layout';

/** An opened FAT volume, read only and within bounds. */
export interface FatVolume {
  kind: 'fat12' | 'fat16' | 'fat32';
  label: string | undefined;
  serial: string;
  /** Size the boot sector claims, in bytes. */
  bytes: number;
  bytesPerSector: number;
  clusterBytes: number;
  clusters: number;
  list(path: string): Promise<FatEntry[]>;
  /** Finds a path without regard to case. */
  find(path: string): Promise<FatEntry | undefined>;
  readFile(entry: FatEntry, maxBytes?: number): Promise<Uint8Array>;
  /** A file's content by offset, however its clusters lie; shorter than the entry says where its chain ends early. */
  open(entry: FatEntry): Promise<FatFile>;
  walk(): Promise<TreeEntry[]>;
}

/** A file of a FAT volume as a source of bytes. */
export interface FatFile extends ByteSource {
  /** Where a byte of the file stands in the volume. */
  placeOf(offset: number): number;
  /** False where its chain ends early or leads behind the end of the source. */
  whole: boolean;
}

/** An entry of a FAT directory (FAT specification 1.03 §6); bytes. */
export interface FatEntry {
  name: string;
  directory: boolean;
  bytes: number;
  firstCluster: number;
  /** Offset in the volume of the first byte of content; undefined for an empty file. */
  offset: number | undefined;
}

/** No directory of a sound volume is longer (FAT specification 1.03, §6: 65 536 entries of 32 bytes). */
const MAX_DIR_BYTES = 65536 * 32;

interface Geometry {
  kind: FatVolume['kind'];
  bps: number;
  clusterBytes: number;
  fatStart: number;
  fatBytes: number;
  rootStart: number;
  rootBytes: number;
  rootCluster: number;
  dataStart: number;
  clusters: number;
  total: number;
}

/**
 * Checks a boot sector against the FAT file-system specification 1.03 (§3.1–3.5). The width is decided by the
 * count of clusters alone (§3.5), never by the text field.
 */
export function fatGeometry(sector: Uint8Array): Geometry | undefined {
  if (sector.length < 512 || (u8(sector, 0) !== 0xeb && u8(sector, 0) !== 0xe9)) return undefined;
  const bps = u16(sector, FAT_BOOT.bytesPerSector);
  const spc = u8(sector, FAT_BOOT.sectorsPerCluster);
  const reserved = u16(sector, FAT_BOOT.reserved);
  const fats = u8(sector, FAT_BOOT.fats);
  if (![512, 1024, 2048, 4096].includes(bps) || spc === 0 || (spc & (spc - 1)) !== 0) return undefined;
  if (reserved === 0 || fats === 0 || fats > 4 || u8(sector, FAT_BOOT.media) < 0xf0) return undefined;
  const rootEntries = u16(sector, FAT_BOOT.rootEntries);
  const fatSectors = u16(sector, FAT_BOOT.fatSectors16) || u32(sector, FAT32_BOOT.fatSectors);
  const sectors = u16(sector, FAT_BOOT.sectors16) || u32(sector, FAT_BOOT.sectors32);
  const rootSectors = Math.ceil((rootEntries * DIR_ENTRY.bytes) / bps);
  const firstData = reserved + fats * fatSectors + rootSectors;
  if (fatSectors === 0 || sectors <= firstData) return undefined;
  const clusters = Math.floor((sectors - firstData) / spc);
  const kind = clusters < FAT12_CLUSTERS ? 'fat12' : clusters < FAT16_CLUSTERS ? 'fat16' : 'fat32';
  if (kind === 'fat32' ? rootEntries !== 0 : rootEntries === 0) return undefined;
  return {
    kind,
    bps,
    clusterBytes: spc * bps,
    fatStart: reserved * bps,
    fatBytes: fatSectors * bps,
    rootStart: (reserved + fats * fatSectors) * bps,
    rootBytes: rootEntries * DIR_ENTRY.bytes,
    rootCluster: kind === 'fat32' ? u32(sector, FAT32_BOOT.rootCluster) : 0,
    dataStart: firstData * bps,
    clusters,
    total: sectors * bps,
  };
}

function parseDirectory(bytes: Uint8Array, offsetOf: (cluster: number) => number): FatEntry[] {
  const out: FatEntry[] = [];
  let long = '';
  for (let o = 0; o + DIR_ENTRY.bytes <= bytes.length; o += DIR_ENTRY.bytes) {
    const first = u8(bytes, o);
    if (first === 0) break;
    const attributes = u8(bytes, o + DIR_ENTRY.attributes);
    if (first === FREED) {
      long = '';
    } else if ((attributes & ATTRIBUTE.mask) === ATTRIBUTE.long) {
      // Long-name pieces stand in reverse order before their short entry (§7).
      const piece = LONG_PIECES.map(([at, units]) => utf16(bytes, o + at, units)).join('');
      long = first & 0x40 ? piece : piece + long;
    } else {
      if ((attributes & ATTRIBUTE.volume) === 0) {
        const lower = u8(bytes, o + DIR_ENTRY.lowerCase);
        const base = ascii(bytes, o, 8);
        const extension = ascii(bytes, o + DIR_ENTRY.extension, 3);
        const short =
          (lower & 0x08 ? base.toLowerCase() : base) +
          (extension ? '.' + (lower & 0x10 ? extension.toLowerCase() : extension) : '');
        const cluster = u16(bytes, o + DIR_ENTRY.cluster) | (u16(bytes, o + DIR_ENTRY.clusterHigh) << 16);
        out.push({
          name: long || short,
          directory: (attributes & ATTRIBUTE.directory) !== 0,
          bytes: u32(bytes, o + DIR_ENTRY.size),
          firstCluster: cluster,
          offset: cluster >= 2 ? offsetOf(cluster) : undefined,
        });
      }
      long = '';
    }
  }
  return out.filter((e) => e.name !== '.' && e.name !== '..');
}

function endsHere(bytes: Uint8Array): boolean {
  for (let o = 0; o + DIR_ENTRY.bytes <= bytes.length; o += DIR_ENTRY.bytes)
    if (u8(bytes, o) === 0) return true;
  return false;
}

function volumeLabel(bytes: Uint8Array): string | undefined {
  for (let o = 0; o + DIR_ENTRY.bytes <= bytes.length && u8(bytes, o) !== 0; o += DIR_ENTRY.bytes) {
    const attributes = u8(bytes, o + DIR_ENTRY.attributes);
    if (
      u8(bytes, o) !== FREED &&
      (attributes & ATTRIBUTE.mask) !== ATTRIBUTE.long &&
      attributes & ATTRIBUTE.volume
    )
      return ascii(bytes, o, LABEL_BYTES);
  }
  return undefined;
}

/** Opens a FAT12/16/32 volume at the start of the source; undefined where there is none. */
export async function openFat(source: ByteSource): Promise<FatVolume | undefined> {
  const boot = await source.read(0, 512);
  const geometry = fatGeometry(boot);
  if (!geometry) return undefined;
  const g = geometry;
  const offsetOf = (cluster: number): number => g.dataStart + (cluster - 2) * g.clusterBytes;

  const next = async (cluster: number): Promise<number> => {
    if (g.kind === 'fat12') {
      const pair = u16(await source.read(g.fatStart + cluster + (cluster >> 1), 2), 0);
      return cluster & 1 ? pair >> 4 : pair & 0xfff;
    }
    if (g.kind === 'fat16') return u16(await source.read(g.fatStart + 2 * cluster, 2), 0);
    return u32(await source.read(g.fatStart + 4 * cluster, 4), 0) & 0x0fffffff;
  };

  /** Clusters of a chain that hold `limit` bytes; the limit also ends a chain that loops. */
  const clustersOf = async (first: number, limit: number): Promise<number[]> => {
    const out: number[] = [];
    for (
      let cluster = first;
      cluster >= 2 && cluster < g.clusters + 2 && out.length * g.clusterBytes < limit;
      cluster = await next(cluster)
    )
      out.push(cluster);
    return out;
  };

  const chain = async (first: number, limit: number): Promise<Uint8Array> => {
    const pieces: Uint8Array[] = [];
    let have = 0;
    for (const cluster of await clustersOf(first, limit)) {
      const piece = await source.read(offsetOf(cluster), Math.min(g.clusterBytes, limit - have));
      if (piece.length === 0) break;
      pieces.push(piece);
      have += piece.length;
    }
    return joined(pieces);
  };

  /** A directory ends at its first empty entry, so it is read cluster by cluster until one has come. */
  const directory = async (first: number): Promise<Uint8Array> => {
    for (let limit = g.clusterBytes; ; limit *= 4) {
      const bytes = await chain(first, Math.min(limit, MAX_DIR_BYTES));
      if (bytes.length < limit || limit >= MAX_DIR_BYTES || endsHere(bytes)) return bytes;
    }
  };

  const open = async (entry: FatEntry): Promise<FatFile> => {
    const clusters = await clustersOf(entry.firstCluster, entry.bytes);
    const placeOf = (offset: number): number =>
      offsetOf(clusters[Math.floor(offset / g.clusterBytes)] ?? 0) + (offset % g.clusterBytes);
    const last = (i: number): number => Math.min(entry.bytes - i * g.clusterBytes, g.clusterBytes);
    return {
      placeOf,
      whole:
        entry.bytes <= clusters.length * g.clusterBytes &&
        clusters.every((c, i) => offsetOf(c) + last(i) <= source.size),
      size: Math.min(entry.bytes, clusters.length * g.clusterBytes),
      async read(offset, length) {
        const end = Math.min(offset + length, entry.bytes, clusters.length * g.clusterBytes);
        if (offset < 0 || end <= offset) return new Uint8Array(0);
        const out = new Uint8Array(end - offset);
        let have = 0;
        while (have < out.length) {
          const at = offset + have;
          const inCluster = g.clusterBytes - (at % g.clusterBytes);
          const piece = await source.read(placeOf(at), Math.min(inCluster, out.length - have));
          if (piece.length === 0) break;
          out.set(piece, have);
          have += piece.length;
        }
        return out.subarray(0, have);
      },
    };
  };

  const rootDirectory = (): Promise<Uint8Array> =>
    g.kind === 'fat32' ? directory(g.rootCluster) : source.read(g.rootStart, g.rootBytes);

  const find = async (path: string): Promise<FatEntry | undefined> => {
    const names = path.split('/').filter(Boolean);
    let entries = parseDirectory(await rootDirectory(), offsetOf);
    for (const [i, name] of names.entries()) {
      const hit = entries.find((e) => e.name.toLowerCase() === name.toLowerCase());
      if (!hit || i === names.length - 1) return hit;
      if (!hit.directory) return undefined;
      entries = parseDirectory(await directory(hit.firstCluster), offsetOf);
    }
    return undefined;
  };

  const serialAt = (g.kind === 'fat32' ? FAT32_BOOT : FAT16_BOOT).serial;
  const serial = u32(boot, serialAt).toString(16).toUpperCase().padStart(8, '0');
  const bootLabel = ascii(boot, (g.kind === 'fat32' ? FAT32_BOOT : FAT16_BOOT).label, LABEL_BYTES);
  return {
    kind: g.kind,
    label:
      volumeLabel(await rootDirectory()) ?? (bootLabel && bootLabel !== 'NO NAME' ? bootLabel : undefined),
    serial: `${serial.slice(0, 4)}-${serial.slice(4)}`,
    bytes: g.total,
    bytesPerSector: g.bps,
    clusterBytes: g.clusterBytes,
    clusters: g.clusters,
    find,
    async list(path) {
      if (path.split('/').filter(Boolean).length === 0)
        return parseDirectory(await rootDirectory(), offsetOf);
      const entry = await find(path);
      return entry?.directory ? parseDirectory(await directory(entry.firstCluster), offsetOf) : [];
    },
    readFile: (entry, maxBytes = entry.bytes) => chain(entry.firstCluster, Math.min(entry.bytes, maxBytes)),
    open,
    walk: () =>
      walkTree<FatEntry>(
        { name: '', directory: true, bytes: 0, firstCluster: 0, offset: undefined },
        async (of) =>
          parseDirectory(
            of.firstCluster === 0 ? await rootDirectory() : await directory(of.firstCluster),
            offsetOf,
          ),
        (of) => of.firstCluster,
      ),
  };
}
