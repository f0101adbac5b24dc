import type { Guest, GuestFault, GuestPlan } from '../model/guests';
import { parseInterface } from '../units/prefix';
import { grouped } from '../units/group';
import type { Pot } from './pot';
import { placeOnSockets } from './sockets';
import { coreSum, floorOf, memorySum, poolSums, running } from './sums';
import { turnsOf } from './turns';
import { forecastOf } from './volume';

/** Something that is wrong with a set of guests, and how much it matters. */
export interface GuestFinding {
  grade: 'stop' | 'check' | 'note';
  fault: GuestFault;
}
type Add = (grade: GuestFinding['grade'], fault: GuestFault) => void;

function checkMemory(plan: GuestPlan, pot: Pot, add: Add): void {
  const sum = memorySum(plan, pot);
  if (!sum) {
    if (running(plan).length > 0) add('check', { code: 'memory not known' });
    return;
  }
  if (sum.freeAtFloor < 0) add('stop', { code: 'too little memory', has: sum.left, wants: sum.floor });
  else if (sum.free < 0) {
    add('check', { code: 'fits only given back', short: -sum.free });
    const turns = turnsOf(plan, pot);
    const once = Math.max(0, ...turns.map((t) => t.shortAtOnce));
    if (once > 0) add('check', { code: 'all at once do not fit', short: once });
    for (const t of turns)
      if (t.short > 0) add('stop', { code: 'in turn do not fit', guest: t.guest.name, short: t.short });
  }
  for (const g of running(plan)) {
    if (g.floorBytes !== null && g.floorBytes > g.memoryBytes)
      add('check', { code: 'floor above memory', guest: g.name });
    if (g.floorBytes !== null && g.devices.length > 0 && floorOf(g) === g.memoryBytes)
      add('note', { code: 'gives nothing back', guest: g.name });
  }
}

function checkCores(plan: GuestPlan, pot: Pot, add: Add): void {
  const sum = coreSum(plan, pot);
  if (!sum) return;
  const { grade, cores, threads } = sum;
  if (grade === 'heavy' || grade === 'too much')
    add(grade === 'heavy' ? 'note' : 'check', { code: 'cores over-committed', cores, threads, grade });
  for (const g of running(plan))
    if (g.cores > threads)
      add('stop', { code: 'more cores than threads', guest: g.name, cores: g.cores, threads });
}

function checkPools(plan: GuestPlan, add: Add): void {
  for (const s of poolSums(plan)) {
    const pool = s.pool.name;
    if (s.free < 0) add('stop', { code: 'pool too small', pool, has: s.has, wants: s.thick + s.written });
    else if (s.factor > 1)
      add(s.factor > 2 ? 'check' : 'note', {
        code: 'promised twice',
        pool,
        promised: s.thick + s.promised,
        has: s.has,
      });
    if (s.free >= 0 && s.daysLeft !== null && s.daysLeft < 365)
      add(s.daysLeft < 30 ? 'stop' : 'check', {
        code: 'pool fills',
        pool,
        days: Math.floor(s.daysLeft),
        guests: s.stops,
      });
    if (s.notKnown > 0 && s.factor > 1) add('check', { code: 'used not known', pool, disks: s.notKnown });
  }
  for (const g of plan.guests)
    for (const d of g.disks) {
      const pool = plan.pools.find((p) => p.id === d.poolId);
      if (!pool) add('stop', { code: 'not there', guest: g.name, missing: d.poolId });
      else if (d.thin && !pool.thin)
        add('note', { code: 'no thin disks there', pool: pool.name, guest: g.name });
    }
}

function checkNames(plan: GuestPlan, add: Add): void {
  for (const [name, list] of grouped(plan.guests, (g) => g.name))
    if (list.length > 1) add('stop', { code: 'name twice', name });
  const cards = plan.guests.flatMap((g) => g.nics.map((n) => ({ g, n })));
  for (const [hardware, list] of grouped(cards, ({ n }) => n.hardware ?? undefined))
    if (list.length > 1)
      add('stop', { code: 'hardware twice', hardware, guests: list.map(({ g }) => g.name) });
  for (const { g, n } of cards)
    if (!plan.nets.some((net) => net.id === n.netId))
      add('stop', { code: 'not there', guest: g.name, missing: n.netId });
}

/** One owner for each device, and whole groups: what cannot be parted goes together (Linux, Documentation/driver-api/vfio.rst). */
function checkDevices(plan: GuestPlan, add: Add): void {
  const on = running(plan);
  const owners = (id: string): Guest[] => on.filter((g) => g.devices.includes(id));
  const handed = plan.devices.filter((d) => owners(d.id).length > 0);
  for (const g of plan.guests)
    for (const id of g.devices)
      if (!plan.devices.some((d) => d.id === id))
        add('stop', { code: 'not there', guest: g.name, missing: id });
  if (handed.length === 0) return;
  if (plan.pot.handing === false) add('stop', { code: 'no handing' });
  else if (plan.pot.handing === null) add('check', { code: 'handing not known' });
  for (const d of handed) {
    const mine = owners(d.id);
    const [first] = mine;
    if (mine.length > 1)
      add('stop', { code: 'device twice', device: d.name, guests: mine.map((g) => g.name) });
    if (d.host && first) add('stop', { code: 'device of the host', device: d.name, guest: first.name });
    if (d.group === null) add('check', { code: 'group not known', device: d.name });
  }
  for (const [group, list] of grouped(plan.devices, (d) => d.group ?? undefined)) {
    const guests = [...new Set(list.flatMap((d) => owners(d.id).map((g) => g.name)))];
    if (guests.length > 1)
      add('stop', { code: 'group parted', group, devices: list.map((d) => d.name), guests });
    const host = list.find((d) => d.host);
    const lent = list.find((d) => !d.host && owners(d.id).length > 0);
    if (host && lent)
      add('stop', {
        code: 'device of host group',
        device: lent.name,
        with: host.name,
        guest: guests[0] ?? '',
      });
  }
}

function checkSockets(plan: GuestPlan, pot: Pot, add: Add): void {
  if (pot.sockets < 2 || pot.memory === null) return;
  const placed = placeOnSockets(plan, pot);
  const name = (id: string): string => plan.guests.find((g) => g.id === id)?.name ?? id;
  for (const id of placed.spans)
    add('check', { code: 'spans sockets', guest: name(id), node: Math.max(...pot.nodes) });
  if (placed.left.length > 0) add('check', { code: 'sockets do not fit', guests: placed.left.map(name) });
}

function checkSeeds(plan: GuestPlan, add: Add): void {
  for (const g of plan.guests) {
    if (!g.seed) continue;
    if (g.seed.keys.length === 0 && g.seed.hash === null)
      add('check', { code: 'nobody signs in', guest: g.name });
    const { address } = g.seed;
    const prefix = plan.nets.find((n) => n.id === g.nics[0]?.netId)?.prefix ?? null;
    if (!address || prefix === null) continue;
    const own = parseInterface(address.cidr);
    const net = parseInterface(prefix);
    if (own && net && (own.prefix.base !== net.prefix.base || own.prefix.bits !== net.prefix.bits))
      add('check', { code: 'address by itself', guest: g.name, prefix });
  }
}

function checkVolume(plan: GuestPlan, add: Add): void {
  const f = forecastOf(plan);
  if (!f) return;
  if (f.share >= 0.9) add('check', { code: 'volume nearly full', share: f.share });
  if (f.perDay === null) add('note', { code: 'one reading' });
  else if (f.days !== null && f.days < 180)
    add(f.days < 14 ? 'stop' : 'check', { code: 'volume fills', days: Math.floor(f.days) });
}

/** What is wrong with a set of guests on a host. `virtualisation`: as the machine was surveyed; null where nobody looked. */
export function checkGuests(
  plan: GuestPlan,
  pot: Pot,
  virtualisation: boolean | null = null,
): GuestFinding[] {
  const out: GuestFinding[] = [];
  const add: Add = (grade, fault) => void out.push({ grade, fault });
  const hardware = plan.pot.virtualisation ?? virtualisation;
  if (running(plan).length > 0 && hardware === false) add('stop', { code: 'no virtualisation' });
  else if (running(plan).length > 0 && hardware === null) add('check', { code: 'virtualisation not known' });
  checkMemory(plan, pot, add);
  checkCores(plan, pot, add);
  checkPools(plan, add);
  checkNames(plan, add);
  checkDevices(plan, add);
  checkSockets(plan, pot, add);
  checkSeeds(plan, add);
  checkVolume(plan, add);
  for (const g of running(plan)) if (g.nested) add('note', { code: 'nested', guest: g.name });
  return out.sort((a, b) => RANK[a.grade] - RANK[b.grade]);
}
const RANK = { stop: 0, check: 1, note: 2 } as const;
