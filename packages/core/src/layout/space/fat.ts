import { GIB, MIB } from '../../units/bytes';
import { ceilDiv, roundUp, taken, type Space } from './types';

/** Tables of the standard count in sectors of so many bytes; dosfstools counts in the drive's own (read off what 4.2 makes on 4096-byte sectors). */
const USUAL_SECTOR = 512;
const ROOT_ENTRIES = 512;
const ENTRY = 32;
const TABLES = 2;
/** Fewest and most clusters by the bits of an entry: FAT specification 1.03, “FAT Type Determination”. */
const MOST_12 = 4080;
const LEAST_16 = 4087;
const MOST_16 = 65_520;
const MOST_32 = 2 ** 28 - 16;
const MOST_CLUSTER = 128;

/** Sectors of a cluster of FAT32 by those of the part: FAT specification 1.03, “DskTableFAT32”. */
function clusterOf32(sectors: number): number {
  const mib = Math.floor((sectors * USUAL_SECTOR) / MIB);
  if (mib > 32 * 1024) return 64;
  if (mib > 16 * 1024) return 32;
  if (mib > 8 * 1024) return 16;
  return mib >= 260 ? 8 : 1;
}

/** What a FAT file system will be: bits of an entry, bytes of a cluster and the number of clusters for data. */
export interface FatShape {
  bits: 12 | 16 | 32;
  cluster: number;
  clusters: number;
}

/** Up to 4 MiB nothing is aligned (dosfstools 4.2). */
const TINY = 8192;
/** Sectors of a track, to a multiple of which the size is cut: SD specification part 2, appendix C “CHS parameters”. */
const trackOf = (sectors: number): number =>
  sectors <= TINY / 2 ? 16 : sectors * USUAL_SECTOR <= 256 * MIB ? 32 : 63;

/**
 * The shape that dosfstools 4.2 gives a part by default, or with the bits that are asked for: cluster rules of the FAT
 * specification 1.03, structures aligned to whole clusters. Undefined where no such file system fits.
 */
export function fatShape(
  bytes: number,
  bits?: FatShape['bits'],
  sector = USUAL_SECTOR,
): FatShape | undefined {
  const whole = Math.floor(bytes / sector);
  const track = trackOf(whole);
  const sectors = Math.floor(whole / track) * track;
  const wanted = bits ?? (bytes >= 512 * MIB ? 32 : undefined);
  for (let cluster = wanted === 32 ? clusterOf32(whole) : 4; cluster <= MOST_CLUSTER; cluster *= 2) {
    const found = (wanted === undefined ? ([16, 12] as const) : [wanted])
      .map((b) => ({
        bits: b,
        cluster: cluster * sector,
        clusters: clustersOf({ sectors, sector, cluster, bits: b, asked: bits }),
      }))
      .filter((s) => s.clusters > 0)
      .sort((a, b) => b.clusters - a.clusters)[0];
    if (found) return found;
  }
  return undefined;
}

/** Clusters of a shape that is tried; 0 where it cannot be. `cluster` in sectors, `sector` in bytes. */
function clustersOf({
  sectors,
  sector,
  cluster,
  bits,
  asked,
}: {
  sectors: number;
  sector: number;
  cluster: number;
  bits: FatShape['bits'];
  asked: FatShape['bits'] | undefined;
}): number {
  const unit = sectors <= TINY ? 1 : cluster;
  const root = bits === 32 ? 0 : roundUp(ceilDiv(ROOT_ENTRIES * ENTRY, sector), unit);
  const data = sectors - roundUp(bits === 32 ? 32 : 1, unit) - root;
  // Half bytes for FAT12; the first two entries of a table are no clusters.
  const half = bits / 4;
  const guess = Math.floor((2 * (data * sector + TABLES * half)) / (2 * cluster * sector + TABLES * half));
  const tableBytes = bits === 12 ? Math.floor(((guess + 2) * 3 + 1) / 2) : ((guess + 2) * bits) / 8;
  const table = roundUp(ceilDiv(tableBytes, sector), unit);
  const clusters = Math.floor((data - TABLES * table) / cluster);
  const room = Math.floor((table * sector * 8) / bits);
  const most = Math.min(room, bits === 12 ? MOST_12 : bits === 16 ? MOST_16 : MOST_32);
  if (clusters > most) return 0;
  const least = bits === 16 ? LEAST_16 : bits === 32 && asked !== 32 ? 65_529 : 1;
  return clusters < least ? 0 : clusters;
}

/** Fewer clusters than this are no FAT32 to whoever goes by the standard (FAT specification 1.03, “FAT Type Determination”). */
const LEAST_32 = 65_525;

/** Bits of the FAT that a part is given: 32, which firmware and every system read, where it has enough clusters for that; else what its maker takes. */
export function fatBitsOf(bytes: number, sector: number): FatShape['bits'] {
  const wide = fatShape(bytes, 32, sector);
  return wide && wide.clusters >= LEAST_32 ? 32 : (fatShape(bytes, undefined, sector)?.bits ?? 16);
}

/** Room of a FAT file system as it is made here (dosfstools 4.2, with those bits); `bytes` is the size of the part, `sector` the bytes of a sector. */
export function fatSpace(bytes: number, sector = USUAL_SECTOR): Space | undefined {
  if (bytes > 2048 * GIB) return undefined;
  const shape = fatShape(bytes, fatBitsOf(bytes, sector), sector);
  if (!shape) return undefined;
  const total = shape.clusters * shape.cluster;
  // The root directory of FAT32 is a file like others, of one cluster.
  const root = shape.bits === 32 ? shape.cluster : 0;
  const free = total - root;
  return {
    total,
    free,
    toUsers: free,
    takes: taken(['allocation tables', bytes - total], ['its own files', root]),
  };
}
