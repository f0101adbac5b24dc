import type { CopyOrAgain } from '../box/copyOrAgain';
import type { Chore, ChoreCode } from '../keeping/chores';
import type { RetireLine } from '../keeping/retirement';
import { writeCalendar } from '../formats/icalendar';
import { choresOf, noticeDays } from '../keeping/chores';
import type { Bench, Box } from '../model/bench';
import type { CellState, DriveEnd, MachineEnd } from '../model/keep';
import { formatBoth, formatIec } from '../units/bytes';
import { formatDay } from '../units/date';
import { formatSpan } from '../units/duration';
import { plural } from './text';

const CHORES: Record<ChoreCode, { title: (of: string) => string; how: string }> = {
  'support ends': {
    title: (of) => `${of} is looked after no longer`,
    how: 'Have the next release on the shelf by then, and an evening for it.',
  },
  'certificate ends': {
    title: (of) => `The certificate of ${of} ends`,
    how: 'Have its page make a new one, and note the new fingerprint under Network.',
  },
  'update day': {
    title: (of) => `Update ${of}`,
    how: 'After a copy: update, restart, and again until nothing is offered. See that what it is for still runs.',
  },
  'read through': {
    title: (of) => `Read all of ${of} through`,
    how: 'What nobody reads goes bad unseen. It finds and mends that while there is still a second copy.',
  },
  'short drive test': {
    title: () => 'Short test of the drives',
    how: 'smartctl -t short, two minutes each; then smartctl -a: no error in its log, no sector waiting.',
  },
  'long drive test': {
    title: () => 'Long test of the drives',
    how: 'smartctl -t long, hours each, the box goes on meanwhile; then smartctl -a.',
  },
  'back up': {
    title: (of) => `Bring the copies of ${of} up to date`,
    how: 'All that are not on the pool itself.',
  },
  'bring back': {
    title: (of) => `Bring something of ${of} back from a copy`,
    how: 'Onto another place, and open it: a copy that was never read is a hope.',
  },
  'old server may go': {
    title: (of) => `The old server (${of}) may go`,
    how: 'Not before. Erase its drives by their kind.',
  },
  'look at the cells': {
    title: (of) => `Look at the battery of ${of}`,
    how: 'Does the back still lie flat, the lid still close? A swollen cell is not charged, bent or pierced: switch it off, and take it to battery recycling.',
  },
};

/** What comes round, as a line. */
export const choreTitle = ({ code, of }: Pick<Chore, 'code' | 'of'>): string => CHORES[code].title(of);
/** How it is done. */
export const choreHow = (code: ChoreCode): string => CHORES[code].how;

/** How often it comes. */
export const everyWords = ({ everyDays, off }: Pick<Chore, 'everyDays' | 'off'>): string =>
  off
    ? 'not done here'
    : everyDays === null
      ? 'once'
      : everyDays === 1
        ? 'every day'
        : `every ${everyDays} days`;

/** When it is due. */
export function dueWords({ due, inDays }: Pick<Chore, 'due' | 'inDays'>): string {
  if (due === null || inDays === null) return '–';
  const day = formatDay(due);
  if (inDays === 0) return `today, ${day}`;
  return inDays < 0 ? `${plural(-inDays, 'day')} late, ${day}` : `${day}, in ${plural(inDays, 'day')}`;
}

/** What comes round for boxes as a calendar (RFC 5545). `today` is a day, `made` a moment (ISO 8601). */
export const keepCalendar = (bench: Bench, boxes: readonly Box[], today: string, made: string): string =>
  writeCalendar(
    boxes.flatMap((b) =>
      choresOf(bench, b, today).flatMap((c) =>
        c.due === null
          ? []
          : [
              {
                id: `${c.key}@${b.id}.zealous-box`,
                title: `${b.name}: ${choreTitle(c)}`,
                words: choreHow(c.code),
                day: c.due,
                everyDays: c.everyDays,
                noticeDays: noticeDays[c.code] ?? null,
              },
            ],
      ),
    ),
    made,
  );

const DRIVE_ENDS: Record<DriveEnd, string> = {
  clear: 'cleared',
  purge: 'purged',
  destroy: 'broken up',
  'kept as it is': 'taken out and kept',
  'stays in it': 'stays in it as it is',
};
/** How a drive ended. */
export const driveEndWords = (end: DriveEnd): string => DRIVE_ENDS[end];
const MACHINE_ENDS: Record<MachineEnd, string> = {
  'back to the shelf': 'Back to the shelf',
  'given away': 'Given away',
  recycling: 'To recycling',
};
/** Where a machine goes. */
export const machineEndWords = (end: MachineEnd): string => MACHINE_ENDS[end];
const CELLS: Record<CellState, string> = { none: 'none in it', sound: 'sound', swollen: 'swollen' };
/** What its cells look like. */
export const cellWords = (c: CellState): string => CELLS[c];

/** A line of the retirement sheet: what is done, and what has to be known of it. */
export function retireWords(l: RetireLine): { title: string; how: string } {
  switch (l.code) {
    case 'bring away':
      return {
        title: `Bring ${l.what} away`,
        how: l.only
          ? 'This is its only copy. Nothing is erased before it was opened elsewhere.'
          : 'Bring its copies up to date, and open one of them.',
      };
    case 'guests first':
      return {
        title: 'Move its guests',
        how: `${l.guests.join(', ')}: save and start them elsewhere, or let them go by name.`,
      };
    case 'tell who leans on it':
      return {
        title: 'Tell who leans on it',
        how: l.users.length > 0 ? l.users.join(', ') : `Whoever uses it for ${l.purpose}.`,
      };
    case 'give the address back':
      return {
        title: `Give ${l.address ?? 'the address'} of ${l.host} back`,
        how: 'Take its reservation and its name out of the router; they are free on the bench as well.',
      };
    case 'another gate stands':
      return {
        title: 'Another gate stands first',
        how: 'Until it does, nobody behind this one is online, or all of them without rules.',
      };
    case 'strike the password out':
      return {
        title: 'Strike its password out',
        how: `Where it is kept: ${l.kept}. Where the same one opens anything else, change it there.`,
      };
    case 'look at the cells':
      return {
        title: 'Look at its cells first',
        how: 'Swollen: do not charge, bend, pierce or post it. Carry it to battery recycling, apart, its poles taped.',
      };
    case 'take out what is kept':
      return {
        title: `Take “${l.drive}” out`,
        how: `${l.holds || 'What is on it'} is to be kept, or nobody decided. It is out before anything is erased.`,
      };
    case 'erase': {
      const { store, holds, level, plan } = l.drive;
      const ways = plan.ways.filter((w) => w.level === level);
      return {
        title: `${level === 'clear' ? 'Clear' : 'Purge'} “${store.name}”, ${formatBoth(store.bytes)}, serial ${store.serial ?? 'not known'}`,
        how: [
          holds === '' ? '' : `On it: ${holds}.`,
          ways.length === 0
            ? `Nothing of that kind is known for a ${plan.kind}: break it up.`
            : `${plan.kind}: ${ways.map((w) => w.method).join(', or ')}. Read some places back.`,
        ]
          .filter((t) => t !== '')
          .join(' '),
      };
    }
    case 'put firmware back':
      return {
        title: 'Put its firmware back as it came',
        how: l.settings.map((s) => `${s.name}: ${s.now} to ${s.came}`).join('; '),
      };
    case 'no password in firmware':
      return {
        title: 'No password stays in its firmware',
        how: 'A machine that nobody can enter is scrap to whoever gets it.',
      };
    case 'label off':
      return {
        title: 'Take its label off',
        how: 'An address on a machine that is elsewhere leads to another one.',
      };
    case 'hand over':
      return {
        title: machineEndWords(l.to),
        how:
          l.to === 'recycling'
            ? 'Electronics and batteries go apart.'
            : l.to === 'given away'
              ? 'With its power supply, and the build sheet without addresses and passwords.'
              : 'Its bench record stays; it is free for another box.',
      };
  }
}

/** An image against doing it again, as a finding. */
export function copyHeadline({ breakEven, again }: CopyOrAgain): string {
  if (breakEven === null)
    return `Doing it again takes ${formatSpan(again.hands)} of yours: no copy saves any of that`;
  return `A copy pays in hands if the drive is lost with more than ${Math.max(1, Math.round(breakEven * 100))} in 100`;
}
/** What has to be known of an image against doing it again. */
export function copyWords(c: CopyOrAgain): string[] {
  return [
    `${c.again.measured} of the ${plural(c.again.steps, 'step')} that would be done again were measured here; the others are foretold.`,
    `With what is empty left out it takes ${formatIec(c.room.packed.low)} to ${formatIec(c.room.packed.high)}, by what such systems unpack to; as it is, ${formatIec(c.room.whole)}.`,
    'It goes onto this drive or a larger one, is as old as its day, and holds passwords and keys: it is kept as they are.',
  ];
}
