import { ascii, u32, u64, u8, utf16 } from '../bytes';
import { crc32 } from '../crc32';
import type { ByteSource } from '../source';
import { GPT_ENTRY, GPT_HEADER, GPT_SIGNATURE } from './layout';

/** One entry of the array (UEFI 2.10 §5.3.3, table 5.6); start and size in bytes. */
export interface GptPart {
  index: number;
  start: number;
  bytes: number;
  typeGuid: string;
  guid: string;
  name: string;
  /** Bit 2 set: older BIOS boot code is to start this one (UEFI 2.10 table 5.8). */
  legacyBoot: boolean;
  /** Where its entry stands in the image. */
  at: number;
}

/** What can be wrong with a copy: UEFI 2.10 §5.3.2, table 5.5. */
export const gptFaults = [
  'header size impossible',
  'header checksum wrong',
  'header names another place',
  'array dimensions impossible',
  'array beyond the end',
  'array checksum wrong',
] as const;
/** What is wrong with a copy. */
export type GptFault = (typeof gptFaults)[number];

/** One of the two copies of a table. Offsets in bytes. */
export interface GptCopy {
  sound: boolean;
  /** Why this copy cannot be trusted; empty where it is sound. */
  faults: GptFault[];
  /** Byte offsets of the header and the entry array. */
  header: number;
  array: number;
  arrayBytes: number;
  alternate: number;
  /** First and last byte that parts may use, and the disk's own GUID. */
  firstUsable: number;
  lastUsable: number;
  diskGuid: string;
  parts: GptPart[];
}

/** A GUID partition table with both its copies. */
export interface Gpt {
  sectorSize: 512 | 4096;
  primary: GptCopy | undefined;
  backup: GptCopy | undefined;
  /** Partitions from the copy that can be trusted, primary first. */
  parts: GptPart[];
}

const MAX_ENTRIES = 1024;

/** A GUID in its mixed-endian text form: UEFI 2.10 appendix A. */
export function guidText(b: Uint8Array, o: number): string {
  const hex = (order: number[]): string =>
    order
      .map((i) =>
        u8(b, o + i)
          .toString(16)
          .padStart(2, '0'),
      )
      .join('');
  return [
    [3, 2, 1, 0],
    [5, 4],
    [7, 6],
    [8, 9],
    [10, 11, 12, 13, 14, 15],
  ]
    .map(hex)
    .join('-')
    .toUpperCase();
}

/** The bytes of a GUID's text form, the inverse of guidText. */
export function guidBytes(text: string): Uint8Array {
  const hex = text.replace(/-/g, '');
  const raw = Uint8Array.from({ length: 16 }, (_, i) => parseInt(hex.slice(2 * i, 2 * i + 2), 16));
  return Uint8Array.from([3, 2, 1, 0, 5, 4, 7, 6, 8, 9, 10, 11, 12, 13, 14, 15], (i) => raw[i] ?? 0);
}

async function readCopy(source: ByteSource, at: number, sectorSize: number): Promise<GptCopy | undefined> {
  const header = await source.read(at, 512);
  if (ascii(header, 0, GPT_SIGNATURE.length) !== GPT_SIGNATURE) return undefined;
  const faults: GptFault[] = [];
  const headerSize = u32(header, GPT_HEADER.headerBytes);
  if (headerSize < GPT_HEADER.bytes || headerSize > 512) faults.push('header size impossible');
  else {
    const zeroed = header.slice(0, headerSize);
    zeroed.fill(0, GPT_HEADER.crc, GPT_HEADER.crc + 4);
    if (crc32(zeroed) !== u32(header, GPT_HEADER.crc)) faults.push('header checksum wrong');
  }
  if (u64(header, GPT_HEADER.own) * sectorSize !== at) faults.push('header names another place');
  const array = u64(header, GPT_HEADER.array) * sectorSize;
  const count = u32(header, GPT_HEADER.count);
  const entrySize = u32(header, GPT_HEADER.entryBytes);
  const arrayBytes = count * entrySize;
  const parts: GptPart[] = [];
  if (
    entrySize < GPT_ENTRY.bytes ||
    entrySize % GPT_ENTRY.bytes !== 0 ||
    entrySize > 4096 ||
    count > MAX_ENTRIES
  ) {
    faults.push('array dimensions impossible');
  } else {
    const table = await source.read(array, arrayBytes);
    if (table.length < arrayBytes) faults.push('array beyond the end');
    else if (crc32(table) !== u32(header, GPT_HEADER.arrayCrc)) faults.push('array checksum wrong');
    for (let i = 0; i < count && (i + 1) * entrySize <= table.length; i += 1) {
      const o = i * entrySize;
      const typeGuid = guidText(table, o + GPT_ENTRY.type);
      const first = u64(table, o + GPT_ENTRY.first);
      const last = u64(table, o + GPT_ENTRY.last);
      if (typeGuid.startsWith('00000000-0000') || last < first) continue;
      parts.push({
        index: i + 1,
        typeGuid,
        guid: guidText(table, o + GPT_ENTRY.guid),
        start: first * sectorSize,
        bytes: (last - first + 1) * sectorSize,
        name: utf16(table, o + GPT_ENTRY.name, GPT_ENTRY.nameUnits),
        legacyBoot: (u8(table, o + GPT_ENTRY.attributes) & 4) !== 0,
        at: array + o,
      });
    }
  }
  return {
    sound: faults.length === 0,
    faults,
    header: at,
    array,
    arrayBytes,
    alternate: u64(header, GPT_HEADER.alternate) * sectorSize,
    firstUsable: u64(header, GPT_HEADER.firstUsable) * sectorSize,
    lastUsable: (u64(header, GPT_HEADER.lastUsable) + 1) * sectorSize - 1,
    diskGuid: guidText(header, GPT_HEADER.diskGuid),
    parts,
  };
}

/**
 * Reads both copies of a GUID partition table, checking the CRC-32 of header and array.
 * Source: UEFI 2.10 §5.3.2 (table 5.5) and §5.3.3 (table 5.6). Tries 512- and 4096-byte sectors.
 */
export async function readGpt(source: ByteSource): Promise<Gpt | undefined> {
  for (const sectorSize of [512, 4096] as const) {
    const primary = await readCopy(source, sectorSize, sectorSize);
    const lastSector = Math.floor(source.size / sectorSize) * sectorSize - sectorSize;
    let backup = lastSector > sectorSize ? await readCopy(source, lastSector, sectorSize) : undefined;
    if (!backup && primary?.sound && primary.alternate !== lastSector && primary.alternate < source.size) {
      backup = await readCopy(source, primary.alternate, sectorSize);
    }
    if (!primary && !backup) continue;
    const trusted = primary?.sound ? primary : backup?.sound ? backup : undefined;
    return { sectorSize, primary, backup, parts: trusted?.parts ?? [] };
  }
  return undefined;
}
