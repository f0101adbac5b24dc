import { firmwareOf } from '../machine/firmware';
import type { Machine } from '../model/bench';
import type { FirmwareKind, ImageReading } from '../model/inspection';
import { knownFact } from '../model/known';
import { GIB } from '../units/bytes';
import { startOn, type StartWhy } from './forMachine';

/** FAT file-system specification 1.03, §7: a file's size has 32 bits. */
export const FAT_FILE_LIMIT = 4 * GIB - 1;

/** Why an image is copied in one way or the other. Bytes. */
export type CopyReason =
  | { code: 'firmware not known' }
  | { code: 'its own tables start' }
  | { code: 'files start'; files: number; largest: number; label: string | null }
  | { code: 'file too large for FAT'; path: string; bytes: number }
  | { code: 'disc only' }
  | { code: 'starts no way'; firmware: FirmwareKind; why: StartWhy };

/** What the image says of the table on its stick, or what the firmware wants there. */
export type TableAdvice =
  'brings a GPT' | 'brings an MBR' | 'is one file system' | 'brings none' | 'for copied files' | 'for BIOS';

/** How to bring this image onto a stick for this machine, and what table the stick has or wants. */
export interface BoxAdvice {
  copy: 'whole image' | 'file copy' | 'neither';
  reason: CopyReason;
  table: TableAdvice;
  /** How the machine starts, and its Secure Boot; undefined where nobody knows. */
  firmware: FirmwareKind | undefined;
  secureBoot: string | undefined;
}

const tableOf = ({ layout }: ImageReading): TableAdvice => {
  if (layout.includes('gpt')) return 'brings a GPT';
  if (layout.includes('mbr')) return 'brings an MBR';
  return layout === 'filesystem' ? 'is one file system' : 'brings none';
};

/** What to do with an image for a machine: a whole-image copy, a copy of its files, or something else altogether. */
export function boxAdvice(machine: Machine, reading: ImageReading): BoxAdvice {
  const firmware = firmwareOf(machine);
  const state = knownFact(machine, 'firmware.secureBoot')?.value;
  const secure = state === 'on';
  const start = startOn(reading, firmware, secure);
  const base = { firmware, secureBoot: state === undefined ? undefined : String(state) };
  const whole = { ...base, copy: 'whole image' as const, table: tableOf(reading) };
  if (!firmware || !start) return { ...whole, reason: { code: 'firmware not known' } };
  if (start.starts !== 'no' || start.refused) return { ...whole, reason: { code: 'its own tables start' } };
  const copied = reading.fileCopy;
  if (copied?.starts.includes(firmware)) {
    const { largest, files } = copied;
    const tooLarge = largest !== null && largest.bytes > FAT_FILE_LIMIT;
    return {
      ...base,
      copy: tooLarge ? 'neither' : 'file copy',
      table: 'for copied files',
      reason: tooLarge
        ? { code: 'file too large for FAT', path: largest.path, bytes: largest.bytes }
        : { code: 'files start', files, largest: largest?.bytes ?? 0, label: copied.label },
    };
  }
  const optical = startOn(reading, firmware, secure, 'optical');
  return {
    ...base,
    copy: 'neither',
    table: firmware === 'bios' ? 'for BIOS' : tableOf(reading),
    reason:
      optical?.starts === 'yes' ? { code: 'disc only' } : { code: 'starts no way', firmware, why: start.why },
  };
}
