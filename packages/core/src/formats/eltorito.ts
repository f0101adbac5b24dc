import { u16, u32, u8 } from './bytes';
import { ISO_SECTOR } from './iso9660/layout';
import type { ByteSource } from './source';

/** An entry of the boot catalogue; offset in bytes from the front of the image (El Torito 1.0 §2.2–2.4). */
export interface BootEntry {
  platform: 'bios' | 'uefi' | 'other';
  bootable: boolean;
  emulation: 'none' | 'floppy' | 'hard-disk';
  /** Sectors per track of an emulated floppy disk, of 80 tracks on 2 sides; undefined of what is none. */
  floppySectors: number | undefined;
  offset: number;
  /** Bytes the firmware loads (virtual sectors of 512). UEFI takes 0 or 1 to mean "to the end of the volume". */
  loadBytes: number;
}

/** A boot catalogue: its validation entry and its entries (El Torito 1.0 §2.0–2.4). */
export interface BootCatalogue {
  /** The header and key bytes are there, so that its entries can be read. */
  marked: boolean;
  /** It is marked, and its words add up to zero as well; some BIOS firmware does not ask for that, UEFI does. */
  valid: boolean;
  entries: BootEntry[];
}

/** El Torito 1.0 §2.1 by the byte in the catalogue: the validation entry; every entry has 32 bytes. */
export const CATALOGUE = {
  header: 1,
  sumAt: 28,
  keyAt: 30,
  key: 0xaa55,
  entryBytes: 32,
  platformUefi: 0xef,
} as const;
/** An initial or section entry by the byte in it (§2.2, §2.4). */
export const CATALOGUE_ENTRY = { bootable: 0x88, emulation: 1, loadSectors: 6, sector: 8 } as const;
/** First byte of a section's header (§2.3). */
export const SECTION_HEADER = { more: 0x90, last: 0x91 } as const;

const PLATFORM: Record<number, BootEntry['platform']> = { 0: 'bios', [CATALOGUE.platformUefi]: 'uefi' };
const EMULATION: Record<number, BootEntry['emulation']> = {
  0: 'none',
  1: 'floppy',
  2: 'floppy',
  3: 'floppy',
  4: 'hard-disk',
};
/** Of 1.2, 1.44 and 2.88 MB (§2.2, byte 1); the tracks of each: common practice. */
const FLOPPY_SECTORS: Record<number, number> = { 1: 15, 2: 18, 3: 36 };

function readEntry(b: Uint8Array, o: number, platform: number): BootEntry {
  const emulation = u8(b, o + CATALOGUE_ENTRY.emulation) & 0x0f;
  return {
    platform: PLATFORM[platform] ?? 'other',
    bootable: u8(b, o) === CATALOGUE_ENTRY.bootable,
    emulation: EMULATION[emulation] ?? 'none',
    floppySectors: FLOPPY_SECTORS[emulation],
    offset: u32(b, o + CATALOGUE_ENTRY.sector) * ISO_SECTOR,
    loadBytes: u16(b, o + CATALOGUE_ENTRY.loadSectors) * 512,
  };
}

/**
 * Reads a boot catalogue: El Torito specification 1.0 §2.1 (validation entry: key bytes 0x55 0xAA, the sum of all
 * words is zero), §2.2 (default entry), §2.3–2.4 (sections). Platform 0xEF is UEFI 2.10 §13.3.2.1.
 */
export async function readBootCatalogue(source: ByteSource, offset: number): Promise<BootCatalogue> {
  const b = await source.read(offset, ISO_SECTOR);
  let sum = 0;
  for (let o = 0; o < CATALOGUE.entryBytes; o += 2) sum = (sum + u16(b, o)) & 0xffff;
  const marked =
    b.length >= 2 * CATALOGUE.entryBytes &&
    u8(b, 0) === CATALOGUE.header &&
    u16(b, CATALOGUE.keyAt) === CATALOGUE.key;
  const valid = marked && sum === 0;
  if (!marked) return { marked, valid, entries: [] };
  const entries = [readEntry(b, CATALOGUE.entryBytes, u8(b, 1))];
  let o = 2 * CATALOGUE.entryBytes;
  while (
    o + CATALOGUE.entryBytes <= b.length &&
    (u8(b, o) === SECTION_HEADER.more || u8(b, o) === SECTION_HEADER.last)
  ) {
    const last = u8(b, o) === SECTION_HEADER.last;
    const platform = u8(b, o + 1);
    const count = u16(b, o + 2);
    for (let i = 0; i < count && o + CATALOGUE.entryBytes * (i + 2) <= b.length; i += 1) {
      entries.push(readEntry(b, o + CATALOGUE.entryBytes * (i + 1), platform));
    }
    o += CATALOGUE.entryBytes * (count + 1);
    if (last) break;
  }
  return { marked, valid, entries };
}
