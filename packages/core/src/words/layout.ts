import type { LayoutCut, LayoutProblem } from '../layout/laid';
import type { TableFault } from '../layout/read/fault';
import type { SpaceTaken } from '../layout/space/types';
import type { InstallerWay, LayoutStep } from '../layout/steps';
import type { NoLayout } from '../layout/usual';
import type { LayoutFilesystem, PartUse } from '../model/layout';
import { formatBoth, formatIec } from '../units/bytes';
import { plural } from './text';

const TABLE = { gpt: 'GPT', mbr: 'MBR', none: 'no table' } as const;

/** What a part is for, as the table and the steps say it. */
export const useWords: Record<PartUse, string> = {
  start: 'start part',
  'BIOS boot': 'BIOS boot part',
  system: 'system',
  swap: 'swap',
  '/var': '/var',
  '/home': '/home',
  data: 'data',
  'second system': 'second system',
};

/** A file system by the name people use. */
export const filesystemWords: Record<LayoutFilesystem, string> = {
  ext4: 'ext4',
  xfs: 'XFS',
  btrfs: 'Btrfs',
  f2fs: 'F2FS',
  vfat: 'FAT',
  exfat: 'exFAT',
  ntfs: 'NTFS',
  swap: 'swap',
  none: 'left as it is',
};

/** What a file system takes for itself, for the reason behind a figure. */
export const takenWords = (t: SpaceTaken): string => `${t.what} ${formatIec(t.bytes)}`;

/** Why a layout cannot be had as it was asked for: what happened, and what to do. */
export function layoutProblemWords(p: LayoutProblem, nameOf: (want: string) => string): string {
  switch (p.code) {
    case 'too large':
      return `The parts ask for ${formatIec(p.asked)} and there is room for ${formatIec(p.room)}. What asks: ${p.binds.map(nameOf).join(', ') || 'their least sizes'}.`;
    case 'too many primaries':
      return `${plural(p.wanted, 'part')} must be primary and the table has room for ${p.free}. Keep fewer parts, or take GPT.`;
    case 'another table keeps nothing':
      return `Nothing can be kept where the table becomes another: there is ${TABLE[p.table]} now. Keep the table, or copy away first.`;
    case 'unknown table keeps nothing':
      return 'The table that is there is none we know, so nothing on it can be kept by a plan. Copy away first.';
    case 'nothing kept of that number':
      return `There is no part ${p.number} on the drive to keep.`;
    case 'smaller than it can be':
      return `Part ${p.number} cannot become ${formatIec(p.asked)}: it can only be made smaller, and not to nothing.`;
    case 'one part without a table':
      return 'Without a table the whole drive is one part. Take GPT or MBR for more.';
    case 'no room at all':
      return 'There is no room for a new part. Make one that stays smaller, or let one go.';
  }
}

/** Why a drive is not laid out by a plan. */
export function noLayoutWords(n: NoLayout): string {
  switch (n.code) {
    case 'the installer lays it out itself':
      return 'Its installer lays the drive out by itself and asks for nothing. Choose a school to plan it by hand.';
    case 'written straight to the drive':
      return 'Its image is written to the drive as it is, parts and all; it grows at its first start.';
    case 'memory not known':
      return 'Swap equal to memory needs the memory of the machine, which nobody has entered. Enter it at Survey, or take another school.';
  }
}

/** What the nearest layout takes away. */
export const layoutCutWords = (c: LayoutCut, nameOf: (want: string) => string): string =>
  c.got === null
    ? `${nameOf(c.want)} is left out`
    : `${nameOf(c.want)} gets ${formatIec(c.got)} of ${formatIec(c.asked)}`;

/** Why a text was not taken as a drive’s table. */
export function tableFaultWords(f: TableFault): string {
  const unharmed = 'Nothing was changed.';
  switch (f.code) {
    case 'not JSON':
      return `This begins like JSON and ends as something else; perhaps it was cut off. ${unharmed} Copy all of it.`;
    case 'nothing known':
      return `This is no table that sfdisk, lsblk or parted prints. ${unharmed}`;
    case 'no such drive':
      return `Several drives are in it (${f.drives.join(', ') || 'none'}) and it is not said which is meant. ${unharmed}`;
    case 'no bytes':
      return `It does not say how large the drive is. ${unharmed} Ask with lsblk --bytes.`;
    case 'rounded':
      return `Its sizes are rounded, and parts cannot be placed by rounded sizes. ${unharmed} Ask for bytes: lsblk --bytes, parted unit B.`;
    case 'odd sectors':
      return `It counts in sectors of ${f.bytes} bytes, which no drive for this has. ${unharmed}`;
    case 'bad line':
      return `Line ${f.line} cannot be read. ${unharmed}`;
    case 'bad dump':
      return f.words;
  }
}

const WAY: Record<InstallerWay, string> = {
  'asks part after part': 'an installer that asks for one part after another',
  'edits a list': 'an installer that shows a list to be edited',
  'typed commands': 'a shell',
};

/** A step as a sentence. */
export function layoutStepWords(s: LayoutStep): string {
  switch (s.code) {
    case 'begin':
      return `In ${WAY[s.way]}, choose ${s.drive === '' ? 'the drive' : s.drive} of ${formatBoth(s.bytes)}; compare size and serial before going on.`;
    case 'new table':
      return `Begin a new ${TABLE[s.table]} table: all that is on the drive is lost.`;
    case 'keep':
      return `Leave part ${s.number}${s.name === '' ? '' : ` (${s.name})`} as it is, and do not have it formatted.`;
    case 'make smaller':
      return `Make part ${s.number}${s.name === '' ? '' : ` (${s.name})`} smaller, to ${formatIec(s.bytes)}.`;
    case 'delete':
      return `Delete part ${s.number}${s.name === '' ? '' : ` (${s.name})`}.`;
    case 'make part': {
      const size =
        s.size === 'the rest'
          ? 'all that is left'
          : `type ${s.size.text} ${s.size.unit} (shown as ${s.size.shown})`;
      const where = s.mount === null ? '' : `, mounted at ${s.mount}`;
      const kind = s.kind === 'logical' ? 'a logical part' : 'a part';
      return `Make ${kind} for ${s.use === null ? 'it' : useWords[s.use]}: ${size}; ${filesystemWords[s.filesystem ?? 'none']}${where}${s.label === '' ? '' : `, label ${s.label}`}.`;
    }
    case 'mark active':
      return `Mark part ${s.number} as the one to start from.`;
    case 'command':
      return s.input === null ? s.text : `${s.text}, with the script on standard input`;
    case 'read back':
      return `Read the list back before going on: ${plural(s.parts, 'part')}${s.total === '' ? '' : `, ${s.total}`}.`;
  }
}
