import type {
  copyPlaces,
  CopyFault,
  KeptThing,
  PoolDrive,
  PoolFault,
  PoolManner,
  PoolWay,
} from '../model/storage';
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
import { formatPercent } from '../units/number';
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

/** A share in per cent. */
export const shareWords = (share: number): string =>
  share < 0.0005 ? 'under 0.1 %' : share < 0.1 ? `${(share * 100).toFixed(1)} %` : formatPercent(share);
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

/** What is wrong with a pool, and what to do. */
export function poolFaultWords(f: PoolFault): string {
  switch (f.code) {
    case 'drives alike':
      return `${list(f.drives)} are of one model and one age: they may fail within days of each other. Mix them with others, or keep the backup fresh.`;
    case 'worn':
      return `“${f.drive}” is ${f.wear} % worn. It is read from end to end when another is made good.`;
    case 'bad sectors':
      return `“${f.drive}” gave up ${plural(f.sectors, 'sector')}. Replace it first, or leave it out.`;
    case 'old drive':
      return `“${f.drive}” has run about ${plural(f.years, 'year')}.`;
    case 'cannot mend':
      return 'Its sums tell when something is wrong; without a second copy nothing can be mended.';
    case 'survives none':
      return f.drives > 1
        ? `One drive that fails takes all with it, and with ${f.drives} of them one fails sooner.`
        : 'When the drive fails, all is gone.';
    case 'lost to smaller':
      return `${formatIec(f.bytes)} lie unused, because rows go by their smallest drive.`;
    case 'too many for ports':
      return `${f.drives} drives with the one it starts from, and ${plural(f.ports, 'SATA port')}. Leave one out, or add a card.`;
    case 'too many for bays':
      return `${f.drives} drives and ${plural(f.bays, 'bay')}: one has nowhere to sit.`;
    case 'too many leads':
      return `${f.drives} drives and ${plural(f.leads, 'power lead')}: one has no power.`;
    case 'boot drive in pool':
      return `“${f.drive}” carries the system: its port stays its own.`;
    case 'removable in pool':
      return `“${f.drive}” can be pulled out while it is running, and then the pool is broken.`;
    case 'claims more':
      return `“${f.drive}” claims ${formatIec(f.bytes)} and does not hold it.`;
    case 'sectors of two sizes':
      return `${list(f.drives)} write sectors of 512 bytes, the others of 4096: the pool takes 4096.`;
    case 'sector not known':
      return `Which sectors ${list(f.drives)} write is not known; 4096 bytes are taken.`;
    case 'read fault likely':
      return `By the rating of the drives, a sector is not readable during a rebuild with a chance of ${shareWords(f.chance)}. Most drives do better, worn ones worse. Take more copies or parity, or keep a fresh backup.`;
    case 'shingled':
      return `${list(f.drives)}: shingled (SMR). A rebuild on such a drive can take days, and some systems drop it for being slow. Use it for backups instead.`;
    case 'shingled not known':
      return `Whether these are shingled (SMR) is not known: ${list(f.drives)}. Look it up in the data sheet before the pool is made: a rebuild on a shingled drive can take days.`;
    case 'write hole':
      return f.closed === 'partial parity log'
        ? 'A power cut while it writes can leave parity that does not match. If a drive fails then too, data is lost (the write hole). Switch the partial parity log on (mdadm --consistency-policy=ppl), or buffer the power.'
        : 'A power cut while it writes can leave parity that does not match. If a drive fails then too, data is lost (the write hole). Add a journal device (mdadm --write-journal), or buffer the power.';
    case 'parity of groups':
      return 'Parity in block groups can lose data when the power goes while it writes. Take copies on any two, or another manner.';
    case 'little memory':
      return `It runs well with ${formatIec(f.wants)} of memory; the machine has ${formatIec(f.has)}.`;
    case 'kept drive in pool':
      return `“${f.drive}” must be kept: ${f.holds || 'nobody said what is on it'}. Making the pool erases it.`;
    case 'not decided in pool':
      return `Whether what is on “${f.drive}” may be lost is not decided: ${f.holds || 'not known'}.`;
    case 'not wiped':
      return `On “${f.drive}” lies: ${f.holds}. Wipe it before the pool is made.`;
    case 'slow drive':
      return `“${f.drive}” does ${formatRate(f.rate)} at most and holds the others up.`;
    case 'never read through':
      return 'It is never read through: sectors that went bad are found when it is too late.';
    case 'read through late':
      return `It was last read through ${plural(f.days, 'day')} ago; ${plural(f.every, 'day')} were decided.`;
  }
}

/** What is wanting in the copies of something. */
export function copyFaultWords(f: CopyFault): string {
  switch (f.code) {
    case 'nothing named':
      return 'Nobody has said what must not be lost. A pool that survives a drive is not a backup.';
    case 'no other copy':
      return `“${f.what}” has no copy at all.`;
    case 'pool is no copy':
      return `“${f.what}” lies on this pool alone. What a pool keeps twice is one copy: a slip, a bad supply or a fire takes both.`;
    case 'all in one house':
      return `All copies of “${f.what}” are in one house.`;
    case 'copy old':
      return `The copy of “${f.what}” (${f.where}) is ${plural(f.days, 'day')} old.`;
    case 'copy of no day':
      return `When the copy of “${f.what}” (${f.where}) was made, nobody wrote down.`;
    case 'never brought back':
      return `“${f.what}” was never brought back from a copy: nobody knows that it can be.`;
    case 'brought back long ago':
      return `“${f.what}” was last brought back ${plural(f.days, 'day')} ago. Try again.`;
    case 'fewer than three':
      return `“${f.what}” has ${f.copies} of three copies.`;
  }
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
