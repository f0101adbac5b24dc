import type { copyPlaces, KeptThing, PoolDrive, PoolManner, PoolWay } from '../model/storage';
import type { Growth } from '../storage/grow';
import type { NoCommands, PoolStep } from '../storage/commands';
import { bySize, type PlacedPool } from '../storage/placed';
import type { PoolRates } from '../storage/rates';
import type { ReadFault } from '../storage/rebuild';
import type { PoolTake } from '../storage/room';
import type { Failures, Survival } from '../storage/survives';
import type { PoolOffer } from '../storage/ways';
import { formatBoth, formatIec } from '../units/bytes';
import { formatRate } from '../units/duration';
import { shareWords } from './poolFault';
import { list, plural } from './text';

const MANNERS: Record<PoolManner, { title: string; because: string }> = {
  plain: {
    title: 'plain rows',
    because:
      'Every drive gives as much as the smallest of its row. In every Linux, repaired by hand everywhere. It does not know which of two copies is right.',
  },
  padded: {
    title: 'stripes with sums',
    because:
      'Each record has its own stripe, its parity and its sum: what is wrong is found and mended. Wants memory, and a row stays as wide as it was made.',
  },
  groups: {
    title: 'block groups',
    because:
      'Pieces of about 1 GiB on whichever drives have room: unequal drives are used to the end. Sums find what is wrong, a copy mends it. Its parity is not for data that matters.',
  },
};
/** A manner as a school: its name and its case. */
export const mannerCase = (manner: PoolManner): { title: string; because: string } => MANNERS[manner];

const times = (n: number): string => (n === 2 ? 'two' : n === 3 ? 'three' : n === 4 ? 'four' : String(n));

/** What a way is called: “copies on any two”. */
export function wayTitle({ shape, level, spare }: PoolWay): string {
  const waits = spare ? ', one waiting' : '';
  switch (shape) {
    case 'single':
      return 'one drive';
    case 'joined':
      return 'all as one';
    case 'mirror':
      return `${level === 2 ? 'mirror' : `mirror of ${times(level)}`}${waits}`;
    case 'pairs':
      return `pairs${waits}`;
    case 'copies':
      return `copies on any ${times(level)}`;
    case 'parity':
      return `${level === 1 ? 'one parity' : `${times(level)} parities`}${waits}`;
  }
}

/** Letters for drives, the largest first: what a column and a line of a table call them. */
export function lettersOf(drives: readonly PoolDrive[]): ReadonlyMap<string, string> {
  return new Map(bySize(drives).map((d, i) => [d.id, String.fromCharCode(65 + i)]));
}

/** Which drives stand together, and which are left, by their letters: “A + B, C + D, E waits”; empty where all stand together. */
export function rowsWords({ rows, spare, left }: PlacedPool, letters: ReadonlyMap<string, string>): string {
  const name = (d: PoolDrive): string => letters.get(d.id) ?? d.name;
  const together = rows.length > 1 ? rows.filter((r) => r.length > 1) : left.length > 0 ? rows : [];
  return list([
    ...together.map((r) => r.map(name).join(' + ')),
    ...(spare ? [`${name(spare)} waits`] : []),
    ...(left.length > 0 ? [`without ${list(left.map(name))}`] : []),
  ]);
}

/** What it surely survives, short. */
export const survivesWords = ({ any }: Pick<Survival, 'any'>): string =>
  any === 0 ? 'none' : any === 1 ? 'any one drive' : `any ${times(any)} drives`;

/** What it survives with luck in which drives fail; empty where that is no more. */
export const luckWords = ({ any, most }: Survival): string =>
  most > any ? `with luck ${any === 0 ? 'one' : times(most)}` : '';

/** Every number of failures with how many choices it survives. */
export const failuresWords = ({ failed, choices, survived }: Failures): string =>
  `${plural(failed, 'drive')} gone: ${survived === choices ? 'always there' : survived === 0 ? 'not to be counted on' : `there in ${survived} of ${choices} cases`}`;

/** The chance of a read fault by the drives’ rating, short. */
export const faultWords = (fault: ReadFault): string => (fault.mended ? 'mended' : shareWords(fault.chance));

/** Where the chance of a read fault comes from. */
export const faultBecause = ({ chance, exponent, assumed, mended }: ReadFault): string =>
  `${shareWords(chance)} by the rating of the drives: one bit in 10^${exponent} not readable by the data sheet${assumed ? ' (assumed for its kind; look it up)' : ''}, over all that is read during the rebuild. This is no bound: most drives do far better, a worn one does worse.${mended ? ' What cannot be read is made from the copies or the parity that are left.' : ''}`;

const TAKES: Record<PoolTake, string> = {
  copy: 'its copy',
  parity: 'parity',
  padding: 'padding of its stripes',
  'lost to smaller': 'lost to smaller drives',
  'left out': 'drives left out',
  spare: 'the drive that waits',
  'own tables': 'marks at the ends of drives',
  'not a whole unit': 'less than a whole unit',
  'kept back': 'kept back for tidying up',
  metadata: 'its own records, at first',
  'file system': 'tables of its file system',
};
/** What takes of a pool’s bytes. */
export const takeWords = (what: PoolTake): string => TAKES[what];

/** How it grows. */
export function growthWords({ add, each, gives, by }: Growth): string {
  if (add === null) return 'not by adding: it is made anew, from a copy';
  const what = add === 1 ? `one more of ${formatIec(each)}` : `two more of ${formatIec(each)}`;
  const how = {
    'at once': 'at once',
    'a new row': 'as a row of their own',
    'spread anew': 'after everything is spread anew, which takes as long as making it good',
    'newest releases only':
      'in the newest releases alone; older files keep their width until they are written again',
    'made anew': '',
  }[by];
  return `${what} gives ${formatIec(gives)}, ${how}`;
}

/** Copies of something in one line: “3 copies, one elsewhere”. */
export function copiesWords({ copies }: KeptThing): string {
  const away = copies.filter((c) => c.where === 'another house').length;
  return `${copies.length === 1 ? '1 copy' : `${copies.length} copies`}, ${away === 0 ? 'none elsewhere' : `${away} elsewhere`}`;
}

const PLACES: Record<(typeof copyPlaces)[number], string> = {
  'this pool': 'on this pool',
  'another machine': 'on another machine here',
  'a drive apart': 'on a drive that lies apart',
  'another house': 'in another house',
  paper: 'on paper',
};
/** Where a copy lies. */
export const placeWords = (place: (typeof copyPlaces)[number]): string => PLACES[place];

/** How fast a pool is read and written, and what holds it up. */
export function ratesWords({ read, write, heldBy }: PoolRates): string {
  const range = (r: PoolRates['read']): string =>
    r.slow === r.fast ? formatRate(r.fast) : `${Math.round(r.slow / 1e6)}–${Math.round(r.fast / 1e6)} MB/s`;
  return `long files at ${range(read)} and ${range(write)}${heldBy === null ? '' : `; “${heldBy}” is the slowest`}`;
}

const STEPS: Record<PoolStep['code'], string> = {
  'find drives': 'Find each drive by its serial; stop where one is not there, or is there twice',
  'wipe marks': 'Take the marks of old file systems and rows off them',
  'make rows': 'Make the rows',
  'record rows': 'Record the rows, so that the next boot finds them under the same name',
  'make volume': 'Put the rows together as one volume',
  'make file system': 'Make the file system',
  'make pool': 'Make the pool',
  mount: 'Mount it',
  'mount at every start': 'A line of /etc/fstab, so that it is there after every start',
  state: 'See how it is',
  'read through': 'Read everything through, and mend what can be mended',
  replace: 'Take a failed drive out and put a new one in',
};
/** What a step does. */
export const stepWords = (code: PoolStep['code']): string => STEPS[code];

/** Why no commands are given. */
export const noCommandsWords = (why: NoCommands): string =>
  why.code === 'no serial'
    ? `Commands name drives by their serials, and the serial of ${list(why.drives)} is not known. Survey the machine, or write it down on the shelf.`
    : `Two drives have the serial ${why.serial}: no command can tell them apart.`;

/** The finding at the head of the sheet. */
export function poolHeadline(box: string, chosen: PoolOffer | undefined, drives: number): string {
  if (!chosen)
    return drives === 0
      ? `Which drives keep things on ${box}?`
      : `Which way do ${plural(drives, 'drive')} keep things?`;
  const { room, survival } = chosen;
  const holds = `The pool holds ${formatIec(room.usable)}`;
  return survival.any === 0
    ? `${holds} and survives no drive`
    : `${holds} and survives ${survivesWords(survival)}`;
}

/** Why a way was taken, for the log. */
export const takenBecause = (o: PoolOffer): string =>
  `${formatBoth(o.room.usable)} usable; survives ${survivesWords(o.survival)}`;
