import { ascii, u16, u32, u8 } from '../bytes';
import { volumeSerial } from './fields';
import { rockRidgeName } from './rockRidge';
import type { ByteSource } from '../source';
import { walkTree, type TreeEntry } from '../tree';
import {
  DESCRIPTOR,
  EL_TORITO,
  FIRST_DESCRIPTOR,
  ISO_MARK,
  ISO_SECTOR,
  PRIMARY,
  RECORD,
  RECORD_FLAG,
} from './layout';

const MAX_DIR_BYTES = 4 * 1024 * 1024;
/** Descriptors looked at before the terminator must have come; real volumes have four or five. */
const MAX_DESCRIPTORS = 32;

/** An opened optical volume (ECMA-119), read only and within bounds. */
export interface IsoVolume {
  label: string;
  uuid: string | undefined;
  /** Size the primary volume descriptor claims, in bytes. */
  bytes: number;
  /** Offset of the El Torito boot catalogue, if a boot record names one. */
  bootCatalogue: number | undefined;
  /** Which names are read: the longest kind that the volume has. */
  names: 'plain' | 'Joliet' | 'Rock Ridge';
  joliet: boolean;
  /** A UDF volume shares the sectors (ECMA-167 §2/9.1). */
  udf: boolean;
  list(path: string): Promise<IsoEntry[]>;
  /** Finds a path without regard to case. */
  find(path: string): Promise<IsoEntry | undefined>;
  walk(): Promise<TreeEntry[]>;
}

/** An entry of an optical volume's directory (ECMA-119 §9.1); bytes. */
export interface IsoEntry {
  name: string;
  directory: boolean;
  offset: number;
  bytes: number;
}

interface Root {
  offset: number;
  bytes: number;
}

const ucs2 = (b: Uint8Array, o: number, length: number): string => {
  let out = '';
  for (let i = 0; i + 1 < length; i += 2) out += String.fromCharCode((u8(b, o + i) << 8) | u8(b, o + i + 1));
  return out;
};
const bare = (name: string): string => name.replace(/;\d+$/, '').replace(/\.$/, '');

async function parseDirectory(
  bytes: Uint8Array,
  names: IsoVolume['names'],
  source: ByteSource,
): Promise<IsoEntry[]> {
  const out: IsoEntry[] = [];
  let o = 0;
  let continued: IsoEntry | undefined;
  while (o < bytes.length) {
    const length = u8(bytes, o);
    if (length < 34) {
      // Records never cross a sector (ECMA-119 §6.8.1.1); zeros fill the rest of it.
      o = (Math.floor(o / ISO_SECTOR) + 1) * ISO_SECTOR;
      continue;
    }
    const nameLength = u8(bytes, o + RECORD.nameLength);
    if (!(nameLength === 1 && u8(bytes, o + RECORD.name) <= 1)) {
      const plain =
        names === 'Joliet'
          ? ucs2(bytes, o + RECORD.name, nameLength)
          : ascii(bytes, o + RECORD.name, nameLength);
      const systemUse = o + RECORD.name + nameLength + ((nameLength + 1) % 2);
      const long =
        names === 'Rock Ridge'
          ? await rockRidgeName(bytes.subarray(systemUse, o + length), source)
          : undefined;
      const flags = u8(bytes, o + RECORD.flags);
      const entry: IsoEntry = {
        name: long ?? bare(plain),
        directory: (flags & RECORD_FLAG.directory) !== 0,
        offset: u32(bytes, o + RECORD.sector) * ISO_SECTOR,
        bytes: u32(bytes, o + RECORD.bytes),
      };
      // A file of several extents has one record for each; all but the last carry flag bit 7 (§9.1.6).
      if (continued) continued.bytes += entry.bytes;
      else out.push(entry);
      continued = flags & RECORD_FLAG.continued ? (continued ?? entry) : undefined;
    }
    o += length;
  }
  return out;
}

/** Opens an ISO 9660 volume: ECMA-119 §8.4 (primary volume descriptor), §8.5 (Joliet's), §9.1 (directory records). */
export async function openIso(source: ByteSource): Promise<IsoVolume | undefined> {
  let primary: Uint8Array | undefined;
  let joliet: Uint8Array | undefined;
  let bootCatalogue: number | undefined;
  let udf = false;
  for (let sector = FIRST_DESCRIPTOR; sector < FIRST_DESCRIPTOR + MAX_DESCRIPTORS; sector += 1) {
    const d = await source.read(sector * ISO_SECTOR, ISO_SECTOR);
    const id = ascii(d, 1, 5);
    if (id.startsWith('NSR0')) udf = true;
    if (id !== ISO_MARK) {
      if (!['BEA01', 'TEA01', 'BOOT2'].includes(id) && !id.startsWith('NSR0')) break;
      continue;
    }
    const type = u8(d, 0);
    if (type === DESCRIPTOR.primary) primary ??= d;
    // Joliet specification, §2: a supplementary descriptor whose escape sequence is %/@, %/C or %/E.
    if (type === DESCRIPTOR.supplementary && /^%\/[@CE]/.test(ascii(d, PRIMARY.escape, 3))) joliet ??= d;
    // El Torito §2.0: the boot record's system identifier, and the catalogue's sector at byte 71.
    if (type === DESCRIPTOR.boot && ascii(d, EL_TORITO.nameAt, EL_TORITO.name.length) === EL_TORITO.name)
      bootCatalogue = u32(d, EL_TORITO.catalogueAt) * ISO_SECTOR;
  }
  if (!primary) return undefined;
  const rootOf = (d: Uint8Array): Root => ({
    offset: u32(d, PRIMARY.root + RECORD.sector) * ISO_SECTOR,
    bytes: u32(d, PRIMARY.root + RECORD.bytes),
  });
  const plainRoot = rootOf(primary);
  // SUSP §5.3: the first record of the root begins its system use area with the entry SP.
  const first = await source.read(plainRoot.offset, 64);
  const rockRidge = ascii(first, 34, 2) === 'SP' && u8(first, 38) === 0xbe && u8(first, 39) === 0xef;
  const names = rockRidge ? 'Rock Ridge' : joliet ? 'Joliet' : 'plain';
  const root = names === 'Joliet' && joliet ? rootOf(joliet) : plainRoot;
  const entriesAt = async (at: Root): Promise<IsoEntry[]> =>
    parseDirectory(await source.read(at.offset, Math.min(at.bytes, MAX_DIR_BYTES)), names, source);

  const find = async (path: string): Promise<IsoEntry | undefined> => {
    let at: Root = root;
    let hit: IsoEntry | undefined;
    for (const name of path.split('/').filter(Boolean)) {
      if (hit && !hit.directory) return undefined;
      hit = (await entriesAt(at)).find((e) => e.name.toLowerCase() === name.toLowerCase());
      if (!hit) return undefined;
      at = hit;
    }
    return hit;
  };
  return {
    label: ascii(primary, PRIMARY.label, 32),
    uuid: volumeSerial(primary, 0),
    bytes: u32(primary, PRIMARY.sectors) * (u16(primary, PRIMARY.blockBytes) || ISO_SECTOR),
    bootCatalogue,
    names,
    joliet: joliet !== undefined,
    udf,
    find,
    async list(path) {
      if (path.split('/').filter(Boolean).length === 0) return entriesAt(root);
      const entry = await find(path);
      return entry?.directory ? entriesAt(entry) : [];
    },
    walk: () => walkTree<IsoEntry>({ ...root, name: '', directory: true }, entriesAt, (e) => e.offset),
  };
}
