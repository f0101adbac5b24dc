import { allZero, holds, u16, u32, u8 } from './bytes';
import type { ByteSource } from './source';

export interface MbrEntry {
  /** 1–4 for primaries, 5 and up for logical drives, as the usual tools number them. */
  index: number;
  active: boolean;
  /** Raw flag byte; only 0x00 and 0x80 are defined. */
  flag: number;
  type: number;
  /** Bytes from the start of the image. */
  start: number;
  bytes: number;
}

export interface Mbr {
  entries: MbrEntry[];
  bootCode: Uint8Array;
  bootCodeKind: BootCodeKind;
  protective: boolean;
}

export type BootCodeKind =
  'none' | 'grub' | 'isohybrid' | 'active-partition' | 'message-only' | 'unrecognised';

const EXTENDED = new Set([0x05, 0x0f, 0x85]);
/** More logical drives than any tool writes; the bound that keeps a looped chain from running for ever. */
const MAX_LOGICAL = 128;

/**
 * What the first 440 bytes of a boot sector are. There is no field for it, so it is told by the messages the
 * code carries (common practice, no source; checked against Debian's GRUB and SYSLINUX in the tests).
 */
export function bootCodeKind(code: Uint8Array): BootCodeKind {
  if (allZero(code)) return 'none';
  if (holds(code, 'This is not a bootable disk')) return 'message-only';
  if (holds(code, 'GRUB ') && holds(code, 'Geom')) return 'grub';
  if (holds(code, 'isolinux.bin missing or corrupt')) return 'isohybrid';
  if (/(missing|loading) operating system/i.test(String.fromCharCode(...code))) return 'active-partition';
  return 'unrecognised';
}

function readEntries(sector: Uint8Array, sectorSize: number, base: number): MbrEntry[] {
  return [0, 1, 2, 3].map((slot) => {
    const at = 446 + 16 * slot;
    return {
      index: slot + 1,
      flag: u8(sector, at),
      active: u8(sector, at) === 0x80,
      type: u8(sector, at + 4),
      start: base + u32(sector, at + 8) * sectorSize,
      bytes: u32(sector, at + 12) * sectorSize,
    };
  });
}

/**
 * Reads a master boot record: UEFI 2.10 §5.2.1 (table 5.1 and 5.2). Extended partitions are walked with a bound.
 * Answers undefined where sector 0 is not one: no 0x55AA, a flag byte other than 0x00 or 0x80, or no entry used.
 */
export async function readMbr(source: ByteSource, sectorSize = 512): Promise<Mbr | undefined> {
  const sector = await source.read(0, 512);
  if (sector.length < 512 || u16(sector, 510) !== 0xaa55) return undefined;
  const primaries = readEntries(sector, sectorSize, 0);
  if (primaries.some((e) => e.flag !== 0 && e.flag !== 0x80)) return undefined;
  const used = primaries.filter((e) => e.type !== 0 && e.bytes > 0);
  if (used.length === 0) return undefined;

  const logical: MbrEntry[] = [];
  for (const extended of used.filter((e) => EXTENDED.has(e.type))) {
    const seen = new Set<number>();
    let at = extended.start;
    while (!seen.has(at) && at < source.size && logical.length < MAX_LOGICAL) {
      seen.add(at);
      const table = await source.read(at, 512);
      if (u16(table, 510) !== 0xaa55) break;
      const [first] = readEntries(table, sectorSize, at);
      const next = readEntries(table, sectorSize, extended.start)[1];
      if (first && first.type !== 0 && first.bytes > 0) logical.push({ ...first, index: 5 + logical.length });
      if (!next || !EXTENDED.has(next.type) || next.bytes === 0) break;
      at = next.start;
    }
  }
  const bootCode = sector.subarray(0, 440);
  return {
    entries: [...used, ...logical],
    bootCode,
    bootCodeKind: bootCodeKind(bootCode),
    protective: used.some((e) => e.type === 0xee),
  };
}

/** True for the types that only hold other partitions. */
export const isExtendedType = (type: number): boolean => EXTENDED.has(type);
