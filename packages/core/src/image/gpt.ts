import { ascii, u32, u64, u8, utf16 } from './bytes';
import { crc32 } from './crc32';
import type { ByteSource } from './source';

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

export interface GptCopy {
  sound: boolean;
  /** Why this copy cannot be trusted; empty where it is sound. */
  faults: string[];
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

export interface Gpt {
  sectorSize: 512 | 4096;
  primary: GptCopy | undefined;
  backup: GptCopy | undefined;
  /** Partitions from the copy that can be trusted, primary first. */
  parts: GptPart[];
}

/** Partition type GUIDs used here: UEFI 2.10 table 5.7 for the EFI system partition; the others common practice. */
export const ESP_GUID = 'C12A7328-F81F-11D2-BA4B-00A0C93EC93B';
export const BIOS_BOOT_GUID = '21686148-6449-6E6F-744E-656564454649';
export const BASIC_DATA_GUID = 'EBD0A0A2-B9E5-4433-87C0-68B6B72699C7';
export const LINUX_DATA_GUID = '0FC63DAF-8483-4772-8E79-3D69D8477DE4';

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
  if (ascii(header, 0, 8) !== 'EFI PART') return undefined;
  const faults: string[] = [];
  const headerSize = u32(header, 12);
  if (headerSize < 92 || headerSize > 512) faults.push(`header size ${headerSize} is impossible`);
  else {
    const zeroed = header.slice(0, headerSize);
    zeroed.fill(0, 16, 20);
    if (crc32(zeroed) !== u32(header, 16)) faults.push('header CRC-32 is wrong');
  }
  if (u64(header, 24) * sectorSize !== at) faults.push('header names another place as its own');
  const array = u64(header, 72) * sectorSize;
  const count = u32(header, 80);
  const entrySize = u32(header, 84);
  const arrayBytes = count * entrySize;
  const parts: GptPart[] = [];
  if (entrySize < 128 || entrySize % 128 !== 0 || entrySize > 4096 || count > MAX_ENTRIES) {
    faults.push('entry array has impossible dimensions');
  } else {
    const table = await source.read(array, arrayBytes);
    if (table.length < arrayBytes) faults.push('entry array lies beyond the end of the file');
    else if (crc32(table) !== u32(header, 88)) faults.push('entry array CRC-32 is wrong');
    for (let i = 0; i < count && (i + 1) * entrySize <= table.length; i += 1) {
      const o = i * entrySize;
      const typeGuid = guidText(table, o);
      const first = u64(table, o + 32);
      const last = u64(table, o + 40);
      if (typeGuid.startsWith('00000000-0000') || last < first) continue;
      parts.push({
        index: i + 1,
        typeGuid,
        guid: guidText(table, o + 16),
        start: first * sectorSize,
        bytes: (last - first + 1) * sectorSize,
        name: utf16(table, o + 56, 36),
        legacyBoot: (u8(table, o + 48) & 4) !== 0,
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
    alternate: u64(header, 32) * sectorSize,
    firstUsable: u64(header, 40) * sectorSize,
    lastUsable: (u64(header, 48) + 1) * sectorSize - 1,
    diskGuid: guidText(header, 56),
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
