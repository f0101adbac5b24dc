import { ascii, u16, u32, u8 } from './bytes';
import type { ByteSource } from './source';

/** ECMA-119 (4th edition) §6.1.2: a logical sector of an optical volume is 2048 bytes. */
export const ISO_SECTOR = 2048;
const MAX_DIR_BYTES = 4 * 1024 * 1024;

export interface IsoVolume {
  label: string;
  /** Size the primary volume descriptor claims, in bytes. */
  bytes: number;
  /** Offset of the El Torito boot catalogue, if a boot record names one. */
  bootCatalogue: number | undefined;
  find(path: string): Promise<IsoEntry | undefined>;
}

export interface IsoEntry {
  name: string;
  directory: boolean;
  offset: number;
  bytes: number;
}

function parseDirectory(bytes: Uint8Array): IsoEntry[] {
  const out: IsoEntry[] = [];
  let o = 0;
  while (o < bytes.length) {
    const length = u8(bytes, o);
    if (length < 34) {
      // Records never cross a sector (ECMA-119 §6.8.1.1); zeros fill the rest of it.
      o = (Math.floor(o / ISO_SECTOR) + 1) * ISO_SECTOR;
      continue;
    }
    const nameLength = u8(bytes, o + 32);
    const raw = ascii(bytes, o + 33, nameLength);
    if (!(nameLength === 1 && u8(bytes, o + 33) <= 1)) {
      out.push({
        name: raw.replace(/;\d+$/, '').replace(/\.$/, ''),
        directory: (u8(bytes, o + 25) & 2) !== 0,
        offset: u32(bytes, o + 2) * ISO_SECTOR,
        bytes: u32(bytes, o + 10),
      });
    }
    o += length;
  }
  return out;
}

/** Opens an ISO 9660 volume: ECMA-119 §8.4 (primary volume descriptor), §9.1 (directory records). */
export async function openIso(source: ByteSource): Promise<IsoVolume | undefined> {
  let primary: Uint8Array | undefined;
  let bootCatalogue: number | undefined;
  for (let sector = 16; sector < 16 + 32; sector += 1) {
    const d = await source.read(sector * ISO_SECTOR, ISO_SECTOR);
    if (ascii(d, 1, 5) !== 'CD001') break;
    const type = u8(d, 0);
    if (type === 255) break;
    if (type === 1 && !primary) primary = d;
    // El Torito §2.0: the boot record's system identifier, and the catalogue's sector at byte 71.
    if (type === 0 && ascii(d, 7, 23) === 'EL TORITO SPECIFICATION') bootCatalogue = u32(d, 71) * ISO_SECTOR;
  }
  if (!primary) return undefined;
  const root = { offset: u32(primary, 158) * ISO_SECTOR, bytes: u32(primary, 166) };
  return {
    label: ascii(primary, 40, 32),
    bytes: u32(primary, 80) * (u16(primary, 128) || ISO_SECTOR),
    bootCatalogue,
    async find(path) {
      let at: { offset: number; bytes: number } = root;
      let hit: IsoEntry | undefined;
      for (const name of path.split('/').filter(Boolean)) {
        if (hit && !hit.directory) return undefined;
        const entries = parseDirectory(await source.read(at.offset, Math.min(at.bytes, MAX_DIR_BYTES)));
        hit = entries.find((e) => e.name.toLowerCase() === name.toLowerCase());
        if (!hit) return undefined;
        at = hit;
      }
      return hit;
    },
  };
}
