import {
  BASIC_DATA_GUID,
  BIOS_BOOT_GUID,
  ESP_GUID,
  GPT_ARRAY_BYTES,
  LINUX_DATA_GUID,
  LINUX_SWAP_GUID,
} from '../formats/gpt/layout';
import type { DriveWant, PartWant } from '../model/layout';
import { MIB } from '../units/bytes';

/** Parts begin and end at whole MiB: common practice, no source; it suits every size of sector and flash block. */
export const UNIT = MIB;
/** Starts and lengths of MBR are 32-bit numbers of sectors (UEFI 2.10 §5.2.1). */
const MOST_SECTORS = 2 ** 32;

/** Bytes between which parts may lie, whole units where parts begin and end there. */
export function usable(
  table: DriveWant['table'],
  bytes: number,
  sectorSize: number,
): { from: number; to: number } {
  const sectors = Math.floor(bytes / sectorSize);
  if (table === 'none') return { from: 0, to: sectors * sectorSize };
  // The last sector is the second header, before it lies the second array.
  const last = table === 'gpt' ? sectors - 1 - GPT_ARRAY_BYTES / sectorSize : Math.min(sectors, MOST_SECTORS);
  const front = table === 'gpt' ? 2 * sectorSize + GPT_ARRAY_BYTES : sectorSize;
  return { from: Math.ceil(front / UNIT) * UNIT, to: last * sectorSize };
}

const FOREIGN = new Set(['vfat', 'exfat', 'ntfs']);

/** Type of a part by its use and file system: a GUID on GPT, two hexadecimal digits on MBR. Common practice where no source. */
export function typeOf(table: DriveWant['table'], want: PartWant): string {
  if (table === 'none') return '';
  const gpt = table === 'gpt';
  if (want.use === 'start') return gpt ? ESP_GUID : 'ef';
  if (want.use === 'BIOS boot') return gpt ? BIOS_BOOT_GUID : 'da';
  if (want.use === 'swap') return gpt ? LINUX_SWAP_GUID : '82';
  if (!FOREIGN.has(want.filesystem)) return gpt ? LINUX_DATA_GUID : '83';
  return gpt ? BASIC_DATA_GUID : want.filesystem === 'vfat' ? '0c' : '07';
}

/** Type of the extended part that holds logical ones. */
export const EXTENDED_TYPE = '05';
/** Is this the type of an extended part? */
export const isExtended = (type: string): boolean => /^(0?5|0?f|85)$/i.test(type);
