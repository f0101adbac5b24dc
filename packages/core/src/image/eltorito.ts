import { u16, u32, u8 } from './bytes';
import { ISO_SECTOR } from './iso9660';
import type { ByteSource } from './source';

export interface BootEntry {
  platform: 'bios' | 'uefi' | 'other';
  bootable: boolean;
  emulation: 'none' | 'floppy' | 'hard-disk';
  offset: number;
  /** Bytes the firmware loads (virtual sectors of 512). UEFI takes 0 or 1 to mean "to the end of the volume". */
  loadBytes: number;
}

export interface BootCatalogue {
  /** The header and key bytes are there, so that its entries can be read. */
  marked: boolean;
  /** It is marked, and its words add up to zero as well; some BIOS firmware does not ask for that, UEFI does. */
  valid: boolean;
  entries: BootEntry[];
}

const PLATFORM: Record<number, BootEntry['platform']> = { 0: 'bios', 0xef: 'uefi' };
const EMULATION: Record<number, BootEntry['emulation']> = {
  0: 'none',
  1: 'floppy',
  2: 'floppy',
  3: 'floppy',
  4: 'hard-disk',
};

function readEntry(b: Uint8Array, o: number, platform: number): BootEntry {
  return {
    platform: PLATFORM[platform] ?? 'other',
    bootable: u8(b, o) === 0x88,
    emulation: EMULATION[u8(b, o + 1) & 0x0f] ?? 'none',
    offset: u32(b, o + 8) * ISO_SECTOR,
    loadBytes: u16(b, o + 6) * 512,
  };
}

/**
 * Reads a boot catalogue: El Torito specification 1.0 §2.1 (validation entry: key bytes 0x55 0xAA, the sum of all
 * words is zero), §2.2 (default entry), §2.3–2.4 (sections). Platform 0xEF is UEFI 2.10 §13.3.2.1.
 */
export async function readBootCatalogue(source: ByteSource, offset: number): Promise<BootCatalogue> {
  const b = await source.read(offset, ISO_SECTOR);
  let sum = 0;
  for (let o = 0; o < 32; o += 2) sum = (sum + u16(b, o)) & 0xffff;
  const marked = b.length >= 64 && u8(b, 0) === 1 && u16(b, 30) === 0xaa55;
  const valid = marked && sum === 0;
  if (!marked) return { marked, valid, entries: [] };
  const entries = [readEntry(b, 32, u8(b, 1))];
  let o = 64;
  while (o + 32 <= b.length && (u8(b, o) === 0x90 || u8(b, o) === 0x91)) {
    const last = u8(b, o) === 0x91;
    const platform = u8(b, o + 1);
    const count = u16(b, o + 2);
    for (let i = 0; i < count && o + 32 * (i + 2) <= b.length; i += 1) {
      entries.push(readEntry(b, o + 32 * (i + 1), platform));
    }
    o += 32 * (count + 1);
    if (last) break;
  }
  return { marked, valid, entries };
}
