import type { GuestNet, GuestPlan } from '../model/guests';
import type { GuestFinding } from '../guests/check';
import type { Reserve } from '../guests/pot';
import type { Change, Mended, MendResult } from '../guests/repair';
import { running, type CommitGrade, type CoreSum, type MemorySum, type PoolSum } from '../guests/sums';
import type { Forecast } from '../guests/volume';
import { formatIec } from '../units/bytes';
import { formatPercent } from '../units/number';
import { guestFaultWords } from './guestFault';
import { plural } from './text';

const GRADES: Record<CommitGrade, string> = {
  none: 'each core has a thread of its own',
  light: 'lightly over-committed: up to two cores to a thread (common practice)',
  usual: 'over-committed as is usual: up to four cores to a thread (common practice)',
  heavy: 'heavily over-committed: up to eight cores to a thread (common practice)',
  'too much': 'over-committed beyond what is usual: more than eight cores to a thread (common practice)',
};
/** What over-commitment of cores is called. */
export const commitWords = (g: CommitGrade): string => GRADES[g];

/** The finding at the head of the sheet. */
export function guestsHeadline(
  box: string,
  plan: GuestPlan,
  findings: readonly GuestFinding[],
  memory: MemorySum | undefined,
): string {
  if (plan.guests.length === 0) return `Which guests does ${box} host?`;
  const on = running(plan).length;
  if (memory && memory.freeAtFloor < 0)
    return `${plural(on, 'guest')}, and ${formatIec(-memory.freeAtFloor)} too little memory`;
  const small = findings.find((f) => f.fault.code === 'pool too small');
  if (small?.fault.code === 'pool too small')
    return `${plural(on, 'guest')}, and too little room on ${small.fault.pool}`;
  const stop = findings.find((f) => f.grade === 'stop');
  if (stop) return guestFaultWords(stop.fault).replace(/\.$/, '');
  if (!memory) return `${plural(on, 'guest')} on ${box}`;
  return memory.free < 0
    ? `${plural(on, 'guest')} fit while they give memory back`
    : `${plural(on, 'guest')} fit, with ${formatIec(memory.free)} of memory left`;
}

const WHERE: Record<'base' | 'cache' | 'perGuest', { what: string; because: string }> = {
  base: { what: 'the host itself', because: 'common practice, no source: a plain host without a desktop' },
  cache: {
    what: 'cache of its file systems',
    because:
      'page cache: a tenth of memory; a cache of its own: half at most, or 1 GiB with 1 GiB for every TiB of pool',
  },
  perGuest: { what: 'for each guest', because: 'common practice, no source: the emulator and its tables' },
};
/** What a part of the reserve is. */
export const reserveWords = (
  part: 'base' | 'cache' | 'perGuest',
  r: Reserve,
): { what: string; because: string } => ({
  what: WHERE[part].what,
  because: r.said.includes(part) ? 'as you said' : WHERE[part].because,
});

/** A change that makes room, in words. */
export function changeWords(plan: GuestPlan, c: Change): string {
  const name = plan.guests.find((g) => g.id === c.guest)?.name ?? c.guest;
  const pool = (id: string): string => plan.pools.find((p) => p.id === id)?.name ?? id;
  switch (c.kind) {
    case 'less memory':
      return `${name}: ${formatIec(c.to)} of memory in place of ${formatIec(c.from)}`;
    case 'left out':
      return `${name} is left out`;
    case 'disk thin':
      return `${name}: its disk takes what was written alone, which saves ${formatIec(c.saves)}`;
    case 'disk moved':
      return `${name}: its disk lies on ${pool(c.to)} in place of ${pool(c.from)}`;
  }
}

/** What a little less for everybody comes to. */
export const trimWords = (m: Mended): string =>
  `Every VM keeps running. ${plural(m.touched, 'VM')} get less, each the same share of what it can spare.`;

/** What became of the search for the smallest change. */
export function mendResultWords(r: MendResult): string {
  switch (r.code) {
    case 'fits already':
      return 'Everything fits as it is.';
    case 'mended':
      return `The smallest change, proven: ${plural(r.mended.touched, 'guest')} touched. Nothing that touches fewer, or matters less, makes it fit.`;
    case 'cannot be mended':
      return 'No change makes it fit, not even leaving VMs out. Give the machine more memory or more room.';
    case 'stopped':
      return 'The search was not done in its time. Nothing was changed.';
  }
}

const MODES: Record<GuestNet['mode'], string> = {
  bridge: 'with the host in its network',
  behind: 'behind the host’s own address',
  apart: 'among themselves alone',
};
/** How guests reach a network. */
export const netModeWords = (m: GuestNet['mode']): string => MODES[m];

/** How cores are shared, in a line. */
export const coresWords = (c: CoreSum): string =>
  `${c.cores} cores on ${plural(c.threads, 'thread')}: ${commitWords(c.grade)}`;

/** A pool in a line. */
export function poolSumWords(s: PoolSum): string {
  const free = s.free < 0 ? `${formatIec(-s.free)} missing` : `${formatIec(s.free)} free`;
  const twice = s.factor > 1 ? `, promised ${s.factor.toFixed(1)} times over` : '';
  const fills =
    s.daysLeft === null ? '' : s.daysLeft === 0 ? '' : `, full in ${plural(Math.floor(s.daysLeft), 'day')}`;
  return `${free}${twice}${fills}`;
}

/** When the volume of the system is full. */
export function forecastWords(f: Forecast): string {
  const now = `${formatIec(f.used)} of ${formatIec(f.bytes)}, ${formatPercent(f.share)}`;
  if (f.perDay === null) return `${now}. A second reading foretells when it is full.`;
  if (f.days === null) return `${now}. It does not grow.`;
  return `${now}. It grows by ${formatIec(Math.round(f.perDay))} a day, and is full in ${plural(Math.floor(f.days), 'day')}.`;
}
