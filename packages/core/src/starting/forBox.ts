import { firmwareOf } from '../machine/firmware';
import { knownFact } from '../model/known';
import type { Machine } from '../model/bench';
import { formatIec, GIB } from '../units/bytes';
import { startOn } from './forMachine';
import { firmwareTitle, type FirmwareKind, type ImageReading } from '../model/inspection';

/** FAT file-system specification 1.03, §7: a file's size has 32 bits. */
const FAT_FILE_LIMIT = 4 * GIB - 1;

/** How to bring this image onto a stick for this machine, and what table the stick has or wants. */
export interface BoxAdvice {
  copy: 'whole image' | 'file copy' | 'neither';
  why: string;
  table: string;
  /** The firmware mode, explained for somebody who has never chosen one; undefined where the mode is not known. */
  modeCard: { title: string; lines: string[] };
}

function modeCard(machine: Machine, firmware: FirmwareKind | undefined): BoxAdvice['modeCard'] {
  const secure = knownFact(machine, 'firmware.secureBoot')?.value;
  const lines = [
    'BIOS runs the code in the first sector of a stick. UEFI looks for a loader by name on a FAT part, and its name and code must fit the processor: x64, ia32 or aa64.',
    'Many UEFI machines can act as BIOS (“legacy”, “CSM” in setup). Use one way for installing and for starting: a system that was installed the one way does not start the other.',
    'A 64-bit processor may have 32-bit UEFI: then only an ia32 loader starts, whatever the system is.',
  ];
  if (firmware === 'board')
    return {
      title: `${machine.name} starts by its board’s own loader`,
      lines: [
        'The loader sits on the board and looks on the first FAT part for device trees and a script. Only an image that was made for this board has the right ones.',
      ],
    };
  if (secure !== undefined && firmware !== 'bios')
    lines.push(
      `Secure Boot is ${String(secure)}: when it is on, UEFI starts only loaders signed with a key it holds.`,
    );
  return {
    title: firmware
      ? `${machine.name} starts by ${firmwareTitle[firmware]}`
      : `How ${machine.name} starts is not known yet: read it at Survey, or look into its setup`,
    lines,
  };
}

const tableOf = (reading: ImageReading): string => {
  if (reading.layout.includes('gpt'))
    return 'The image brings its own table, a GPT. Nothing is to be chosen.';
  if (reading.layout.includes('mbr'))
    return 'The image brings its own table, an MBR. Nothing is to be chosen.';
  return reading.layout === 'filesystem'
    ? 'The image is one file system without a table, and is written as it is.'
    : 'The image brings no table of its own.';
};

/** What to do with an image for a machine: a whole-image copy, a copy of its files, or something else altogether. */
export function boxAdvice(machine: Machine, reading: ImageReading): BoxAdvice {
  const firmware = firmwareOf(machine);
  const secure = knownFact(machine, 'firmware.secureBoot')?.value === 'on';
  const start = startOn(reading, firmware, secure);
  const base = { modeCard: modeCard(machine, firmware) };
  if (!firmware || !start)
    return {
      ...base,
      copy: 'whole image',
      why: 'Copying the whole image is the usual way; whether it starts depends on how the machine starts.',
      table: tableOf(reading),
    };
  if (start.starts !== 'no' || start.refused)
    return {
      ...base,
      copy: 'whole image',
      why: 'Byte for byte: its own tables and loaders are what starts. Copying its files alone would lose them.',
      table: tableOf(reading),
    };
  const copied = reading.fileCopy;
  if (copied?.starts.includes(firmware)) {
    const { largest } = copied;
    const tooLarge = largest !== null && largest.bytes > FAT_FILE_LIMIT;
    return {
      ...base,
      copy: tooLarge ? 'neither' : 'file copy',
      why: tooLarge
        ? `As a whole image it does not start here from a stick. Its files would, but “${largest.path}” has ${formatIec(largest.bytes)}, and a file on FAT holds 4 GiB less one byte. Burn it to a disc, or look for an image made for sticks.`
        : `As a whole image it does not start here from a stick, but its ${copied.files} files do, copied to a FAT32 part: UEFI finds the loader by its name. The largest has ${formatIec(largest?.bytes ?? 0)}, below the 4 GiB that FAT allows.`,
      table:
        'For the copied files give the stick a GPT with one FAT32 part, or an MBR with one: UEFI reads both. Older firmware is surer of the MBR.',
    };
  }
  const optical = startOn(reading, firmware, secure, 'optical');
  return {
    ...base,
    copy: 'neither',
    why:
      optical?.starts === 'yes'
        ? 'It starts on this machine as a disc only: burn it, or look for an image made for sticks.'
        : `No way of copying makes it start here: ${start.because}. Look for an image for ${firmwareTitle[firmware]}.`,
    table: firmware === 'bios' ? 'For BIOS a stick wants an MBR with an active part.' : tableOf(reading),
  };
}
