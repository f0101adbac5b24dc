import type { Machine } from '../model/bench';
import { firmwareTitle } from '../model/inspection';
import type { BoxAdvice, CopyReason, TableAdvice } from '../starting/forBox';
import { formatIec } from '../units/bytes';
import { startWords } from './start';

/** Why an image is copied in one way or the other. */
export function copyWords(r: CopyReason): string {
  switch (r.code) {
    case 'firmware not known':
      return 'Copying the whole image is the usual way; whether it starts depends on how the machine starts.';
    case 'its own tables start':
      return 'Byte for byte: its own tables and loaders are what starts. Copying its files alone would lose them.';
    case 'files start':
      return `As a whole image it does not start here from a stick, but its ${r.files} files do, copied to a FAT32 part: UEFI finds the loader by its name. The largest has ${formatIec(r.largest)}, below the 4 GiB that FAT allows.${r.label === null ? '' : ` Its loader looks for its volume by name: label the part ${r.label}.`}`;
    case 'file too large for FAT':
      return `As a whole image it does not start here from a stick. Its files would, but “${r.path}” has ${formatIec(r.bytes)}, and a file on FAT holds 4 GiB less one byte. Write it to a disc, or look for an image made for sticks.`;
    case 'disc only':
      return 'It starts on this machine as a disc only: write it to one, or look for an image made for sticks.';
    case 'starts no way':
      return `No way of copying makes it start here: ${startWords(r.why)}. Look for an image for ${firmwareTitle[r.firmware]}.`;
  }
}

/** What is to be said of the table on the stick. */
export const tableWords: Record<TableAdvice, string> = {
  'brings a GPT': 'The image brings its own table, a GPT. Nothing is to be chosen.',
  'brings an MBR': 'The image brings its own table, an MBR. Nothing is to be chosen.',
  'is one file system': 'The image is one file system without a table, and is written as it is.',
  'brings none': 'The image brings no table of its own.',
  'for copied files':
    'For the copied files give the stick a GPT with one FAT32 part, or an MBR with one: UEFI reads both. Older firmware is surer of the MBR.',
  'for BIOS': 'For BIOS a stick wants an MBR with an active part.',
};

/** The firmware mode, explained for somebody who has never chosen one. */
export function modeCard(
  machine: Pick<Machine, 'name'>,
  { firmware, secureBoot }: Pick<BoxAdvice, 'firmware' | 'secureBoot'>,
): { title: string; lines: string[] } {
  if (firmware === 'board')
    return {
      title: `${machine.name} starts by its board’s own loader`,
      lines: [
        'The loader sits on the board and looks on the first FAT part for device trees and a script. Only an image that was made for this board has the right ones.',
      ],
    };
  const lines = [
    'BIOS runs the code in the first sector of a stick. UEFI looks for a loader by name on a FAT part, and its name and code must fit the processor: x64, ia32 or aa64.',
    'Many UEFI machines can act as BIOS (“legacy”, “CSM” in setup). Use one way for installing and for starting: a system that was installed the one way does not start the other.',
    'A 64-bit processor may have 32-bit UEFI: then only an ia32 loader starts, whatever the system is.',
  ];
  if (secureBoot !== undefined && firmware !== 'bios')
    lines.push(
      `Secure Boot is ${secureBoot}: when it is on, UEFI starts only loaders signed with a key it holds.`,
    );
  return {
    title: firmware
      ? `${machine.name} starts by ${firmwareTitle[firmware]}`
      : `How ${machine.name} starts is not known yet: read it at Survey, or look into its setup`,
    lines,
  };
}
