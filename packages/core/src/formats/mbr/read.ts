import { u16, u32, u8 } from '../bytes';
import type { ByteSource } from '../source';
import { ACTIVE, END_MARK, EXTENDED, MBR, MBR_ENTRY, PROTECTIVE } from './layout';

/** One entry of a master boot record or of its chain (UEFI 2.10 table 5.2). */
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
  /** Where its sixteen bytes stand in the image. */
  at: number;
}

/** What can be wrong with a chain of logical drives. */
export const chainFaults = [
  'circle',
  'beyond the end',
  'leaves the extended part',
  'too many',
  'no end mark',
  'drive reaches beyond',
] as const;

/** A place where a chain is not as it should be, in bytes, and the logical drive it is about. */
export interface TableFault {
  fault: (typeof chainFaults)[number];
  drive: number | null;
  offset: number;
}

/** A master boot record with its logical drives. */
export interface Mbr {
  entries: MbrEntry[];
  bootCode: Uint8Array;
  protective: boolean;
  /** Faults of the chain of logical drives. */
  faults: TableFault[];
}

/** More logical drives than any tool writes; the bound that keeps a looped chain from running for ever. */
const MAX_LOGICAL = 128;

/** The four entries of a table read from `place`; their starts count from `base`. */
function readEntries(sector: Uint8Array, sectorSize: number, base: number, place: number): MbrEntry[] {
  return [0, 1, 2, 3].map((slot) => {
    const at = MBR.table + MBR.entryBytes * slot;
    return {
      index: slot + 1,
      flag: u8(sector, at + MBR_ENTRY.flag),
      active: u8(sector, at + MBR_ENTRY.flag) === ACTIVE,
      type: u8(sector, at + MBR_ENTRY.type),
      start: base + u32(sector, at + MBR_ENTRY.start) * sectorSize,
      bytes: u32(sector, at + MBR_ENTRY.sectors) * sectorSize,
      at: place + at,
    };
  });
}

/**
 * Follows the tables of an extended partition, each naming one logical drive and the next table (UEFI 2.10 §5.2.1 names
 * the types; the chain itself is common practice, held against sfdisk). Every way a chain can be wrong ends it.
 */
async function walkChain(
  source: ByteSource,
  sectorSize: number,
  extended: MbrEntry,
  logical: MbrEntry[],
  faults: TableFault[],
): Promise<void> {
  const seen = new Set<number>();
  const end = extended.start + extended.bytes;
  for (let at = extended.start; ;) {
    const fault = seen.has(at)
      ? 'circle'
      : at >= source.size
        ? 'beyond the end'
        : at < extended.start || at >= end
          ? 'leaves the extended part'
          : logical.length >= MAX_LOGICAL
            ? 'too many'
            : undefined;
    if (fault !== undefined) {
      faults.push({ fault, drive: null, offset: Math.min(at, source.size) });
      return;
    }
    seen.add(at);
    const table = await source.read(at, 512);
    if (u16(table, MBR.endMark) !== END_MARK) {
      faults.push({ fault: 'no end mark', drive: null, offset: at });
      return;
    }
    const [first] = readEntries(table, sectorSize, at, at);
    const next = readEntries(table, sectorSize, extended.start, at)[1];
    if (first && first.type !== 0 && first.bytes > 0) {
      logical.push({ ...first, index: 5 + logical.length });
      if (first.start + first.bytes > end)
        faults.push({
          fault: 'drive reaches beyond',
          drive: 4 + logical.length,
          offset: first.at,
        });
    }
    if (!next || !EXTENDED.has(next.type) || next.bytes === 0) return;
    at = next.start;
  }
}

/**
 * Reads a master boot record: UEFI 2.10 §5.2.1 (table 5.1 and 5.2). Extended partitions are walked with a bound.
 * Answers undefined where sector 0 is not one: no 0x55AA, a flag byte other than 0x00 or 0x80, or no entry used.
 */
export async function readMbr(source: ByteSource, sectorSize = 512): Promise<Mbr | undefined> {
  const sector = await source.read(0, 512);
  if (sector.length < 512 || u16(sector, MBR.endMark) !== END_MARK) return undefined;
  const primaries = readEntries(sector, sectorSize, 0, 0);
  if (primaries.some((e) => e.flag !== 0 && e.flag !== ACTIVE)) return undefined;
  const used = primaries.filter((e) => e.type !== 0 && e.bytes > 0);
  if (used.length === 0) return undefined;

  const logical: MbrEntry[] = [];
  const faults: TableFault[] = [];
  for (const extended of used.filter((e) => EXTENDED.has(e.type)))
    await walkChain(source, sectorSize, extended, logical, faults);
  return {
    entries: [...used, ...logical],
    bootCode: sector.subarray(0, MBR.codeBytes),
    protective: used.some((e) => e.type === PROTECTIVE),
    faults,
  };
}

/** True for the types that only hold other partitions. */
export const isExtendedType = (type: number): boolean => EXTENDED.has(type);
