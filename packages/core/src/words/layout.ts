import type { Claim } from '../plan/claims';
import { claimWords, heldWords } from './claim';
import type { LayoutCut, LayoutProblem } from '../layout/laid';
import type { TableFault } from '../layout/read/fault';
import type { Typed } from '../layout/typed';
import { contentTitle } from '../model/content';
import type { Machine, Store } from '../model/bench';
import type { SpaceTaken } from '../layout/space/types';
import type { SchoolMeans } from '../layout/schools';
import type { InstallerWay, LayoutStep } from '../layout/steps';
import type { LaidBox, NoBoxLayout } from '../layout/forBox';
import type { NoTableScript } from '../layout/write/sfdisk';
import type { LayoutFilesystem, PartSchool, PartUse, SwapSchool } from '../model/layout';
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
    case 'below its least':
      return `${nameOf(p.want)} is to have ${formatIec(p.asked)} and needs ${formatIec(p.least)} at least. Give it more, or it will not go in.`;
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
    case 'cannot be made smaller':
      return `Part ${p.number} stays as large as it is: ${p.filesystem === null ? 'nobody knows what file system is on it' : `no common tool makes ${p.filesystem} smaller`}. Copy its content away and make it anew, or keep its size.`;
    case 'name too long':
      return `“${nameOf(p.want)}” is ${p.units} letters long; a partition table holds ${p.most}. Shorten it.`;
    case 'one part without a table':
      return 'Without a table the whole drive is one part. Take GPT or MBR for more.';
    case 'no room at all':
      return 'There is no room for a new part. Make one that stays smaller, or let one go.';
  }
}

/** Why no script of a table is given. */
export const noTableScriptWords = (n: NoTableScript): string =>
  n.code === 'no table'
    ? 'The whole drive is one file system: it has no table.'
    : `No script is given: what ${n.numbers.length === 1 ? `part ${n.numbers[0]} is` : `parts ${n.numbers.join(', ')} are`} known by in the table is not known here, and would be changed. Paste what sfdisk --dump prints of the drive on the shelf, then try again. Nothing was changed.`;

/** Why a drive is not laid out by a plan. */
export function noLayoutWords(n: NoBoxLayout): string {
  switch (n.code) {
    case 'no machine':
      return 'The layout follows the machine. Take one at Survey.';
    case 'no system':
      return 'The layout follows the system. Choose one at Choose.';
    case 'no drive':
      return 'No drive is in the machine, and none lies loose that may be lost. Put one on the shelf, or mark one.';
    case 'which drive':
      return 'Say which drive takes the system; nothing is planned over one before that.';
    case 'drive is kept':
      return `What is on “${n.drive}” is to be kept, so nothing is planned over it. Choose another drive.`;
    case 'drive not decided':
      return `Whether what is on “${n.drive}” may be lost is not decided. Decide it on the shelf, or choose another drive.`;
    case 'drive is held':
      return heldWords(n.drive, n.claim);
    case 'the installer lays it out itself':
      return 'Its installer lays the drive out by itself and asks for nothing. Choose a school to plan it by hand.';
    case 'written straight to the drive':
      return 'Its image is written to the drive as it is, parts and all; it grows at its first start.';
    case 'memory not known':
      return 'Swap equal to memory needs the memory of the machine, which nobody has entered. Enter it at Survey, or take another school.';
  }
}

/** What heads the sheet of a box's drive. */
export function layoutHeadline({ drive, sheet, why }: LaidBox): string {
  if (!drive || why?.code === 'which drive') return 'Which drive takes the system?';
  if (why)
    return why.code === 'written straight to the drive'
      ? `The image becomes “${drive.name}” as it is`
      : 'Nothing can be laid out yet';
  const cut = (sheet?.layout.problems.length ?? 0) > 0;
  if (cut && sheet?.layout.cuts.length === 0) return 'The layout cannot be had as it is asked for';
  return cut ? `“${drive.name}” has no room for all of it` : `The system goes on “${drive.name}”`;
}

/** Why what is typed and what is shown differ and are the same. */
export const typedWords = ({ text, unit, means, shown }: Typed): string =>
  `${unit === means ? `This installer takes ${unit}` : `This installer says ${unit} and means ${means}`}: ${text} typed shows as ${shown} on its next screen. It is the same size.`;

/** A drive as one that the system may go on: how large, where, and whether what is on it matters. */
export function driveChoiceWords(
  d: Store,
  machine: Machine | undefined,
  claim: Claim | undefined,
  suggested = false,
): { words: string; means: string } {
  const where =
    d.in !== null && d.in === machine?.id
      ? `in ${machine.name}`
      : d.in === null
        ? 'loose'
        : 'in another machine';
  const holds = contentTitle(d) || 'empty';
  const fate =
    d.fate === 'keep' ? `to be kept: ${holds}` : d.fate === 'may be lost' ? holds : `not decided: ${holds}`;
  return {
    words: d.name,
    means: `${suggested ? 'suggested, not chosen · ' : ''}${claim ? `${claimWords(claim)} · ` : ''}${formatIec(d.bytes)} · …${d.serial?.slice(-4) ?? 'no serial'} · ${where} · ${fate}`,
  };
}

/** What each school of parts means. */
export const partSchoolWords: Record<PartSchool, { words: string; means: string }> = {
  'one system part': {
    words: 'One system part',
    means: 'Simple: nothing of the system is ever short of room while there is some.',
  },
  '/var and /home apart': {
    words: '/var and /home apart',
    means: 'A runaway log cannot fill the system. Worth it for machines that log for others.',
  },
};

/** What each school of swap means. */
export const swapSchoolWords: Record<SwapSchool, string> = {
  '1 GB': '1 GB, for what is seldom needed',
  'equal to memory': 'equal to memory, so that it can hibernate',
  'swap file': 'a file in the system, sized later',
  none: 'none',
};

/** What a school makes of this drive. */
export function schoolMeansWords(means: SchoolMeans | null): string {
  if (!means) return '';
  const own = means.parts.filter((p) => p.use !== 'start' && p.use !== 'BIOS boot');
  const parts = own.map((p) => `${p.name} ${formatIec(p.bytes)}`).join(', ');
  return `Here: ${parts}${means.fits ? '.' : '; not all of it has room.'}`;
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
      return s.input === null ? s.text : `${s.text}, with its script on standard input`;
    case 'run the script':
      return 'Save the layout as a script, read it, and run it with sh as root: it makes smaller, lays out and makes the file systems, in this order.';
    case 'no commands':
      return noTableScriptWords(s.why);
    case 'read back':
      return `Read the list back before going on: ${plural(s.parts, 'part')}${s.total === '' ? '' : `, ${s.total}`}.`;
  }
}

/** What becomes of what lies on the drive. */
export const keptFateWords = {
  erased: {
    words: 'It goes',
    means: 'The whole drive is the new system’s: the simplest, and nothing old stays in the way.',
  },
  beside: {
    words: 'It stays, the new system goes beside it',
    means: 'One drive, two systems: every update of either may touch the start of both.',
    beware:
      'How full a part is is not known here: look before it is made smaller, and copy away what matters. A cut of the power while it is made smaller loses it.',
  },
};
