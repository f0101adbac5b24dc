import type { GuestFault, GuestNet, GuestPlan } from '../model/guests';
import type { GuestFinding } from '../guests/check';
import type { Reserve } from '../guests/pot';
import type { Change, Mended, MendResult } from '../guests/repair';
import { running, type CommitGrade, type CoreSum, type MemorySum, type PoolSum } from '../guests/sums';
import type { Forecast } from '../guests/volume';
import { formatIec } from '../units/bytes';
import { formatPercent } from '../units/number';
import { list, plural } from './text';

const GRADES: Record<CommitGrade, string> = {
  none: 'each core has a thread of its own',
  light: 'lightly over-committed: up to two cores to a thread (common practice)',
  usual: 'over-committed as is usual: up to four cores to a thread (common practice)',
  heavy: 'heavily over-committed: up to eight cores to a thread (common practice)',
  'too much': 'over-committed beyond what is usual: more than eight cores to a thread (common practice)',
};
/** What over-commitment of cores is called. */
export const commitWords = (g: CommitGrade): string => GRADES[g];

/** What is wrong with guests. */
export function guestFaultWords(f: GuestFault): string {
  switch (f.code) {
    case 'memory not known':
      return 'How much memory the machine has is not known, so nothing can be shared out.';
    case 'too little memory':
      return `Even at their least the guests want ${formatIec(f.wants)}, and ${formatIec(f.has)} are left for them: ${formatIec(f.wants - f.has)} are missing.`;
    case 'fits only given back':
      return `It fits only while guests give memory back: ${formatIec(f.short)} are promised more than there are. Without their driver they do not.`;
    case 'all at once do not fit':
      return `If all start at once, ${formatIec(f.short)} are missing: each begins with all of its memory. Let them start in turn.`;
    case 'in turn do not fit':
      return `When the turn comes to ${f.guest}, ${formatIec(f.short)} are missing for it to begin.`;
    case 'cores over-committed':
      return `${f.cores} cores are given away on ${f.threads} threads. When many work at once, all of them wait.`;
    case 'more cores than threads':
      return `${f.guest} has ${f.cores} cores, and the machine ${f.threads} threads.`;
    case 'pool too small':
      return `On ${f.pool} there is room for ${formatIec(f.has)}, and disks take ${formatIec(f.wants)}.`;
    case 'promised twice':
      return `On ${f.pool} disks are promised ${formatIec(f.promised)}, and there are ${formatIec(f.has)}: it is full before they are.`;
    case 'pool fills':
      return `${f.pool} is full in ${plural(f.days, 'day')} at this rate; then ${list(f.guests)} stop where they are.`;
    case 'used not known':
      return `What ${plural(f.disks, 'disk')} on ${f.pool} really ${f.disks === 1 ? 'takes' : 'take'} is not known: it is counted as nothing.`;
    case 'no thin disks there':
      return `${f.pool} has no thin disks: that of ${f.guest} takes all of its room at once.`;
    case 'name twice':
      return `Two guests are called ${f.name}.`;
    case 'not there':
      return `${f.guest} names “${f.missing}”, which is no longer there.`;
    case 'device twice':
      return `${f.device} is handed to ${list(f.guests)}, and can be held by one.`;
    case 'group parted':
      return `${list(f.devices)} cannot be parted (group ${f.group}), and ${list(f.guests)} want them.`;
    case 'device of the host':
      return `${f.device} is what the host itself works with: handed to ${f.guest}, the host loses it.`;
    case 'device of host group':
      return `${f.device} cannot be parted from ${f.with}, which the host works with: ${f.guest} does not get it.`;
    case 'group not known':
      return `With what ${f.device} goes together was not looked up.`;
    case 'handing not known':
      return 'Whether this machine can hand devices over is not known: look for the input-output memory unit in its setup.';
    case 'no handing':
      return 'This machine cannot hand devices over: its input-output memory unit is not there, or off in setup.';
    case 'gives nothing back':
      return `${f.guest} holds a device, and keeps all of its memory because of it.`;
    case 'no virtualisation':
      return 'The processor cannot run guests in hardware, or it is off in setup: they would be ten times slower at least.';
    case 'virtualisation not known':
      return 'Whether the processor can run guests in hardware is not known.';
    case 'nested':
      return `Guests run in ${f.guest}: it sees the processor as it is, and cannot move to another kind of host.`;
    case 'spans sockets':
      return `${f.guest} is larger than the memory of one socket (${formatIec(f.node)}): half of it is far away.`;
    case 'sockets do not fit':
      return `${list(f.guests)} would fit a socket, and no share-out leaves one free.`;
    case 'floor above memory':
      return `${f.guest} is to give memory back down to more than it has.`;
    case 'nobody signs in':
      return `Nobody could sign in to ${f.guest}: its seed has neither a key nor a hash.`;
    case 'address by itself':
      return `The address in the seed of ${f.guest} does not lie in ${f.prefix}.`;
    case 'hardware twice':
      return `${list(f.guests)} have the same hardware address, ${f.hardware}.`;
    case 'volume fills':
      return `The volume of the system is full in ${plural(f.days, 'day')} at this rate; then the host stops, and every guest with it.`;
    case 'volume nearly full':
      return `The volume of the system is ${formatPercent(f.share)} full.`;
    case 'one reading':
      return 'The volume of the system was read once; a second reading some weeks later foretells when it is full.';
    case 'image does not start':
      return `${f.guest} does not start from ${f.image} with its firmware.`;
    case 'image not read':
      return `What ${f.image} starts on was not read, so whether ${f.guest} starts is open.`;
    case 'no guest':
      return 'No guest is laid out.';
  }
}

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
