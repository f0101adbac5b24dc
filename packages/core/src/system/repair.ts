import type { FactKey } from '../model/facts';
import { GIB } from '../units/bytes';
import type { RuleFinding } from './finding';
import { MOST_EQUAL, type AdapterPart, type DrivePart, type MemoryPart, type Part } from './part';
import {
  adapterGoesIn,
  expansionSlots,
  findPlaces,
  freePlaces,
  memoryParts,
  Reader,
  shapeFits,
  startsFrom,
  staying,
  usbPorts,
} from './places';
import type { PartRole, Purchase, Repair } from './repairs';
import type { MachineView } from './view';

/** What a machine and a system lack in parts, gathered from the findings. */
export interface Lacks {
  memoryBytes: number;
  /** Drives to add; at least one of them of `bootBytes` where that is not null. */
  drives: number;
  bootBytes: number | null;
  sataPorts: number;
  wired: number;
}

/** What is lacking in parts, from the needs of the findings. */
export function lacksOf(findings: readonly RuleFinding[]): Lacks {
  const out: Lacks = { memoryBytes: 0, drives: 0, bootBytes: null, sataPorts: 0, wired: 0 };
  for (const need of findings.flatMap((f) => f.needs ?? [])) {
    if (need.kind === 'memory') out.memoryBytes = need.bytes;
    else if (need.kind === 'boot') out.bootBytes = need.bytes;
    else if (need.kind === 'drives') out.drives = need.count;
    else if (need.kind === 'ports') out.sataPorts = need.count;
    else out.wired = need.count;
  }
  if (out.bootBytes !== null) out.drives = Math.max(1, out.drives);
  return out;
}

/** What the system keeps places for: the bytes of its boot drive, and its data drives. */
export interface Needing {
  bootBytes: number;
  dataDrives: number;
}

/** A large choice is cut to its cheapest, among which the cheapest sets lie. */
const CHOICE = MOST_EQUAL;

/** What is put aside for this machine already is taken before anything else. */
const cost = (parts: readonly Part[]): number =>
  parts.reduce((n, p) => n + (p.reserved ? -0.001 : p.price), 0);
const size = (parts: readonly Part[]): number => parts.reduce((n, p) => n + ('bytes' in p ? p.bytes : 0), 0);
const cheaper = (a: readonly Part[], b: readonly Part[]): number =>
  cost(a) - cost(b) || a.length - b.length || size(a) - size(b);

/** The cheapest set of up to `most` parts that satisfies `enough`: each own part once, each offer as often as wanted. */
function cheapest<P extends Part>(
  candidates: readonly P[],
  most: number,
  enough: (set: readonly P[]) => boolean,
): P[] | undefined {
  const sorted = [...candidates].sort((a, b) => cost([a]) - cost([b]) || size([a]) - size([b]));
  let best: P[] | undefined;
  const grow = (from: number, set: P[]): void => {
    if (best && cheaper(set, best) >= 0) return;
    if (set.length > 0 && enough(set)) {
      best = set;
      return;
    }
    // One more part makes it dearer or longer, so an equal one that is not enough leads nowhere.
    if (set.length >= most || (best && set.length + 1 > best.length && cost(set) >= cost(best))) return;
    for (let i = from; i < sorted.length; i += 1) {
      const part = sorted[i];
      if (part) grow(part.offer ? i : i + 1, [...set, part]);
    }
  };
  grow(0, []);
  return best;
}

/**
 * Whether these modules bring what is lacking: they take the free slots first, then those of the smallest modules, whose
 * bytes are lost; and the machine takes no more than its most.
 */
export function modulesSuffice(m: Reader, modules: readonly MemoryPart[], lacking: number): boolean {
  const free = m.number('memory.free');
  if (free === undefined) return false;
  const inside = [...(m.view.modules ?? [])].sort((a, b) => a - b);
  const taken = Math.max(0, modules.length - free);
  if (taken > inside.length) return false;
  const gained = size(modules) - inside.slice(0, taken).reduce((n, b) => n + b, 0);
  const most = m.number('memory.max');
  return gained >= lacking && (most === undefined || (m.number('memory.bytes') ?? 0) + gained <= most);
}

const modulesFor = (m: Reader, lacking: number): MemoryPart[] | undefined =>
  cheapest(
    memoryParts(m).slice(0, CHOICE),
    Math.min(4, (m.number('memory.free') ?? 0) + (m.view.modules?.length ?? 0)),
    (s) => modulesSuffice(m, s, lacking),
  );

/** Whether these drives together bring what is lacking and all find a place. */
export function drivesSuffice(
  parts: readonly DrivePart[],
  lacks: Pick<Lacks, 'drives' | 'bootBytes'>,
  places: NonNullable<ReturnType<typeof freePlaces>>,
  view: MachineView,
): boolean {
  const { bootBytes } = lacks;
  const counted = parts.filter(
    (p) => p.bus !== 'card' || bootBytes === null || (p.bytes >= bootBytes && startsFrom(view, p)),
  );
  return (
    counted.length >= lacks.drives &&
    (bootBytes === null || parts.some((p) => p.bytes >= bootBytes && startsFrom(view, p))) &&
    findPlaces(parts, places)
  );
}

function drivesFor(m: Reader, lacks: Lacks, needing: Needing, added: number): DrivePart[] | undefined {
  const known = freePlaces(m, staying(m.view, needing.bootBytes, needing.dataDrives));
  if (!known) return undefined;
  const places = { ...known, sata: known.sata + added };
  const fitting = m.view.parts.filter(
    (p): p is DrivePart =>
      p.kind === 'drive' && p.bus !== 'other' && shapeFits(p, m.view.form) && findPlaces([p], places),
  );
  const boots = fitting.filter((p) => p.bytes >= (lacks.bootBytes ?? 0) && startsFrom(m.view, p));
  const choice = new Set([...fitting].sort((a, b) => cheaper([a], [b])).slice(0, CHOICE));
  for (const b of [...boots].sort((a, c) => cheaper([a], [c])).slice(0, CHOICE)) choice.add(b);
  return cheapest([...choice], Math.min(lacks.drives, 4), (s) => drivesSuffice(s, lacks, places, m.view));
}

const adaptersFor = (
  m: Reader,
  key: 'wiredPorts' | 'sataPorts',
  count: number,
  slots: number,
  usb: number,
): AdapterPart[] | undefined =>
  cheapest(
    m.view.parts
      .filter((p): p is AdapterPart => p.kind === 'adapter' && p[key] > 0 && adapterGoesIn(m, p))
      .slice(0, CHOICE),
    3,
    (s) => s.reduce((n, p) => n + p[key], 0) >= count && slotsUsed(s) <= slots && onUsb(s) <= usb,
  );

/** Bytes of the modules that make room for new ones: the smallest of those inside, where no slot is left. */
function modulesOut(m: Reader, added: number): number[] {
  const taken = Math.max(0, added - (m.number('memory.free') ?? 0));
  return [...(m.view.modules ?? [])].sort((a, b) => a - b).slice(0, taken);
}

/** The unused drives that must come out before these find places, the fewest from the front of the list; by name. */
function drivesOut(m: Reader, parts: readonly DrivePart[], needing: Needing, added: number): string[] {
  const stay = staying(m.view, needing.bootBytes, needing.dataDrives);
  const idle = m.view.drives.filter((d) => !stay.includes(d) && !d.removable);
  for (let count = 0; count <= idle.length; count += 1) {
    const places = freePlaces(m, [...stay, ...idle.slice(count)]);
    if (!places || findPlaces(parts, { ...places, sata: places.sata + added }))
      return idle.slice(0, count).map((d) => d.name);
  }
  return idle.map((d) => d.name);
}

/** What to look for in a shop where neither shelf nor price list has the part. */
function toBuy(m: Reader, lacks: Lacks): Record<PartRole, Purchase[]> {
  const type = [m.text('memory.type'), m.text('memory.form')].filter(Boolean).join(' ');
  const gib = Math.max(1, Math.ceil((lacks.memoryBytes * 0.999) / GIB));
  const card = m.number('ports.drives') === 0;
  const buy = (gives: Purchase['gives'], more: Partial<Purchase> = {}): Purchase => ({
    kind: 'buy',
    price: null,
    gives,
    ...more,
  });
  const data = lacks.bootBytes === null ? lacks.drives : lacks.drives - 1;
  return {
    memory: [buy({ kind: 'memory', bytes: gib * GIB }, { type })],
    drive: [
      ...(lacks.bootBytes === null ? [] : [buy({ kind: 'boot', bytes: lacks.bootBytes }, { card })]),
      ...(data > 0 ? [buy({ kind: 'drives', count: data })] : []),
    ],
    ports: [buy({ kind: 'ports', count: lacks.sataPorts })],
    wired: [buy({ kind: 'wired', count: lacks.wired })],
  };
}

const onUsb = (parts: readonly Part[]): number =>
  parts.filter((p) => p.kind === 'adapter' && p.goesIn === 'USB port').length;
const slotsUsed = (parts: readonly Part[]): number =>
  parts.filter((p) => p.kind === 'adapter' && p.goesIn === 'expansion slot').length;

/**
 * The cheapest parts that bring what is lacking, from shelf and price list; what neither has is named as a purchase
 * without a price. Assumed facts name no part. Answers the parts by role.
 */
export function partPlan(view: MachineView, lacks: Lacks, needing: Needing): Repair[] {
  const m = new Reader(view, 'hide');
  const buy = toBuy(m, lacks);
  const out: Repair[] = [];
  /** Takes parts, or what to buy in their place; the first of them says what comes out to make room. */
  const take = (
    role: PartRole,
    parts: readonly Part[] | undefined,
    room?: Extract<Repair, { kind: 'part' }>['out'],
  ): readonly Part[] => {
    const taken = parts?.map((part, i): Repair => ({
      kind: 'part',
      part,
      role,
      ...(i === 0 && room ? { out: room } : {}),
    }));
    out.push(...(taken ?? buy[role]));
    return parts ?? [];
  };
  if (lacks.memoryBytes > 0) {
    const modules = modulesFor(m, lacks.memoryBytes);
    const gone = modulesOut(m, modules?.length ?? 0);
    take('memory', modules, gone.length > 0 ? { modules: gone } : undefined);
  }
  let slots = expansionSlots(m) ?? 0;
  let usb = usbPorts(m);
  let added = 0;
  if (lacks.sataPorts > 0) {
    const chosen = take('ports', adaptersFor(m, 'sataPorts', lacks.sataPorts, slots, usb));
    slots -= slotsUsed(chosen);
    usb -= onUsb(chosen);
    added = chosen.reduce((n, p) => n + (p.kind === 'adapter' ? p.sataPorts : 0), 0);
  }
  if (lacks.drives > 0) {
    const drives = drivesFor(m, lacks, needing, added);
    const gone = drives ? drivesOut(m, drives, needing, added) : [];
    take('drive', drives, gone.length > 0 ? { drives: gone } : undefined);
  }
  if (lacks.wired > 0) take('wired', adaptersFor(m, 'wiredPorts', lacks.wired, slots, usb));
  return out;
}

/** What a list of repairs costs, in the bench's currency; null where something to buy has no price. */
export const planCost = (repairs: readonly Repair[]): number | null =>
  repairs.some((r) => r.kind === 'buy')
    ? null
    : repairs.reduce((n, r) => n + (r.kind === 'part' ? r.part.price : 0), 0);

const number = (view: MachineView, key: FactKey): number => Number(view.facts[key] ?? 0);

function withPart(view: MachineView, part: Part): MachineView {
  const facts = { ...view.facts };
  const add = (key: FactKey, by: number): void => void (facts[key] = number({ ...view, facts }, key) + by);
  if (part.kind === 'memory') {
    add('memory.bytes', part.bytes);
    return { ...view, facts };
  }
  if (part.kind === 'adapter') {
    add('network.wired', part.wiredPorts);
    if (part.sataPorts > 0) {
      // Only what is known grows: a number that is not there is worked out from the kinds of ports.
      for (const key of ['ports.drives', 'ports.sata'] as const)
        if (facts[key] !== undefined) add(key, part.sataPorts);
    }
    return { ...view, facts };
  }
  const transport = { sata: 'sata', nvme: 'nvme', 'm2 sata': 'sata', card: 'mmc', other: 'other' } as const;
  const drive = {
    id: part.id,
    name: part.name,
    bytes: part.bytes,
    transport: transport[part.bus],
    removable: part.bus === 'card',
    fate: 'may be lost' as const,
    ...(part.bus === 'card' ? { kind: 'card' as const } : {}),
    m2: part.m2,
  };
  return { ...view, facts, drives: [...view.drives, drive] };
}

/** The machine once what makes room is out of it. */
function cleared(view: MachineView, out: Extract<Repair, { kind: 'part' }>['out']): MachineView {
  if (!out) return view;
  if ('drives' in out) return { ...view, drives: view.drives.filter((d) => !out.drives.includes(d.name)) };
  const lost = out.modules.reduce((n, b) => n + b, 0);
  const left = [...(view.modules ?? [])];
  for (const bytes of out.modules) left.splice(left.indexOf(bytes), 1);
  return {
    ...view,
    modules: left,
    facts: { ...view.facts, 'memory.bytes': number(view, 'memory.bytes') - lost },
  };
}

/** The machine as it is once a part or a purchase is in it, or a setting is made. Variants and releases change no machine. */
export function applyRepair(view: MachineView, repair: Repair): MachineView {
  if (repair.kind === 'part') return withPart(cleared(view, repair.out), repair.part);
  if (repair.kind === 'setting') return { ...view, facts: { ...view.facts, [repair.set]: repair.value } };
  if (repair.kind !== 'buy') return view;
  const part = { id: `to-buy-${view.drives.length}`, name: 'to be bought', price: 0, offer: true };
  const { gives } = repair;
  const m2 = null;
  const bus =
    number(view, 'ports.drives') === 0 && view.facts['ports.drives'] !== undefined ? 'card' : 'sata';
  if (gives.kind === 'memory')
    return withPart(view, { ...part, kind: 'memory', bytes: gives.bytes, type: '', form: 'DIMM' });
  if (gives.kind === 'boot') return withPart(view, { ...part, kind: 'drive', bytes: gives.bytes, bus, m2 });
  if (gives.kind === 'drives') {
    let next = view;
    for (let i = 0; i < gives.count; i += 1)
      next = withPart(next, { ...part, id: `${part.id}-${i}`, kind: 'drive', bytes: 1, bus: 'sata', m2 });
    return next;
  }
  const wiredPorts = gives.kind === 'wired' ? gives.count : 0;
  const sataPorts = gives.kind === 'ports' ? gives.count : 0;
  return withPart(view, { ...part, kind: 'adapter', goesIn: 'expansion slot', wiredPorts, sataPorts });
}
