import { addDays, differenceInCalendarDays, formatISO, parseISO } from 'date-fns';
import { findMachine, findProfile, storesIn, type Bench, type Box } from '../model/bench';
import { knownFlag } from '../model/known';
import { noKeep } from '../model/keep';
import { isFinished } from './closed';
import { optionOf } from '../system/options';
import { serves } from '../system/serves';

/** What has to be done, or looked at, while a box is in use. */
export const choreCodes = [
  'support ends',
  'certificate ends',
  'update day',
  'read through',
  'short drive test',
  'long drive test',
  'back up',
  'bring back',
  'old server may go',
  'look at the cells',
] as const;
/** One of them. */
export type ChoreCode = (typeof choreCodes)[number];

/** Something that comes round, or comes once, in the years of a box. Days as ISO 8601. */
export interface Chore {
  key: string;
  code: ChoreCode;
  /** Of what: a thing, a system, drives. */
  of: string;
  /** Days between; null where it comes once. */
  everyDays: number | null;
  usualDays: number | null;
  /** It is not done here. */
  off: boolean;
  last: string | null;
  /** When it is due next; null where it is off, or done for good. */
  due: string | null;
  /** Days until then, below 0 where it is late; null where it is not due. */
  inDays: number | null;
}

/** Usual days between, where others lean on it and where not; null: not done. Common practice, no source. */
const USUAL = {
  'update day': [30, 90],
  'short drive test': [7, null],
  'long drive test': [30, 182],
  'bring back': [182, 182],
  'look at the cells': [182, 182],
} as const;

interface Wanted {
  code: ChoreCode;
  of: string;
  /** Tells it from others of its code. */
  id?: string;
  usualDays: number | null;
  /** The day it comes, where it comes once. */
  day?: string;
  last: string | null;
}

const later = (a: string | null, b: string | undefined): string | null =>
  b === undefined ? a : a === null || b > a ? b : a;
const dayAfter = (day: string, days: number): string =>
  formatISO(addDays(parseISO(day), days), { representation: 'date' });
/** The last of the days on which copies of a thing were brought up to date that are not on the pool itself. */
const oldest = (days: readonly (string | null)[]): string | null =>
  days.some((d) => d === null) ? null : (days.map((d) => d ?? '').sort()[0] ?? null);

function wantedOf(bench: Bench, box: Box): Wanted[] {
  const machine = findMachine(bench, box.machineId);
  const profile = findProfile(bench, box.profileId);
  const at = serves(box.purpose) ? 0 : 1;
  const drives = machine ? storesIn(bench, machine.id).filter((s) => s.kind === 'drive') : [];
  const release = profile && optionOf(profile, box).release;
  const pool = box.pool;
  const usual = (code: keyof typeof USUAL): number | null => USUAL[code][at];
  const out: Wanted[] = [];
  if (profile && release?.supportEnd != null)
    out.push({
      code: 'support ends',
      of: `${profile.name} ${release.version}`,
      usualDays: null,
      day: release.supportEnd,
      last: null,
    });
  if (box.reach?.page?.expires != null)
    out.push({
      code: 'certificate ends',
      of: box.name,
      usualDays: null,
      day: box.reach.page.expires,
      last: null,
    });
  if (profile) out.push({ code: 'update day', of: profile.name, usualDays: usual('update day'), last: null });
  if (pool) out.push({ code: 'read through', of: pool.name, usualDays: pool.scrubDays, last: pool.scrubbed });
  if (drives.length > 0)
    for (const code of ['short drive test', 'long drive test'] as const)
      out.push({ code, of: drives.map((d) => d.name).join(', '), usualDays: usual(code), last: null });
  for (const t of box.things) {
    const copies = t.copies.filter((c) => c.where !== 'this pool').map((c) => c.at);
    out.push(
      { code: 'back up', of: t.what, id: t.id, usualDays: t.everyDays, last: oldest(copies) },
      { code: 'bring back', of: t.what, id: t.id, usualDays: usual('bring back'), last: t.restored },
    );
  }
  for (const m of box.moving)
    if (m.done.switch !== undefined)
      out.push({
        code: 'old server may go',
        of: m.from || m.what,
        id: m.id,
        usualDays: null,
        day: dayAfter(m.done.switch.slice(0, 10), m.keepDays),
        last: null,
      });
  if (machine && knownFlag(machine, 'power.battery') === true)
    out.push({
      code: 'look at the cells',
      of: machine.name,
      usualDays: usual('look at the cells'),
      last: null,
    });
  return out;
}

/**
 * What comes round for a box, the most urgent first. Counted from the day it was last done, else from the day the box was
 * finished; nothing of it wears before: until then from `today` (ISO 8601).
 */
export function choresOf(bench: Bench, box: Box, today: string): Chore[] {
  const kept = box.kept ?? noKeep();
  const finished = isFinished(box)
    ? box.signoffs
        .map((s) => s.at.slice(0, 10))
        .sort()
        .at(-1)
    : undefined;
  const since = finished ?? today;
  const chores = kept.retired
    ? []
    : wantedOf(bench, box).map(({ code, of, id, usualDays, day, last: known }): Chore => {
        const key = id === undefined ? code : `${code}:${id}`;
        const own = kept.chores[key];
        const everyDays = day === undefined ? (own?.everyDays ?? usualDays) : null;
        const off = own?.off ?? (day === undefined && everyDays === null);
        const last = later(known, [...(own?.done ?? [])].sort().at(-1));
        const once = day !== undefined && last === null ? day : null;
        const due = off ? null : everyDays === null ? once : dayAfter(last ?? since, everyDays);
        return {
          key,
          code,
          of,
          everyDays,
          usualDays,
          off,
          last,
          due,
          inDays: due === null ? null : differenceInCalendarDays(parseISO(due), parseISO(today)),
        };
      });
  return chores.sort(
    (a, b) =>
      (a.inDays ?? Infinity) - (b.inDays ?? Infinity) ||
      choreCodes.indexOf(a.code) - choreCodes.indexOf(b.code) ||
      (a.of < b.of ? -1 : 1),
  );
}

/** Before what comes once there is this much time to act: a new system wants an evening, a certificate a minute. Common practice, no source. */
export const noticeDays: Partial<Record<ChoreCode, number>> = {
  'support ends': 90,
  'certificate ends': 14,
  'old server may go': 0,
};
/** It is time for it. */
export const isDue = ({ code, inDays }: Pick<Chore, 'code' | 'inDays'>): boolean =>
  inDays !== null && inDays <= (noticeDays[code] ?? 0);
