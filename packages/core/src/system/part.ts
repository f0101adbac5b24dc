import type { Bench } from '../model/bench';
import { claimsOf } from '../plan/claims';
import type { Adapter, Memory, ShelfItem, Store } from '../model/shelf';

/** A part that could go into a machine: loose on the shelf (price 0), or to be bought as often as wanted (`offer`); `reserved` where the machine’s own box has put it aside. */
export type Part = { id: string; name: string; price: number; offer: boolean; reserved?: boolean } & (
  | { kind: 'memory'; bytes: number; type: string; form: Memory['form']; checked?: Memory['checked'] }
  | {
      kind: 'drive';
      bytes: number;
      bus: 'sata' | 'nvme' | 'm2 sata' | 'card' | 'other';
      m2: Store['m2'];
      shape?: Store['shape'];
    }
  | { kind: 'adapter'; goesIn: Adapter['goesIn']; wiredPorts: number; sataPorts: number }
);
/** A drive or card as a part. */
export type DrivePart = Extract<Part, { kind: 'drive' }>;
/** A memory module as a part. */
export type MemoryPart = Extract<Part, { kind: 'memory' }>;
/** A card or adapter as a part. */
export type AdapterPart = Extract<Part, { kind: 'adapter' }>;

const busOf = (s: Store): DrivePart['bus'] => {
  if (s.kind === 'card') return 'card';
  if (s.transport === 'nvme') return 'nvme';
  if (s.transport === 'sata') return s.shape === 'M.2' || s.m2 !== null ? 'm2 sata' : 'sata';
  return 'other';
};

/** An item as a part, or undefined where it is none: installed, kept, unpriced and not here, or no part at all. */
export function asPart(item: ShelfItem): Part | undefined {
  if (item.kind === 'machine' || item.kind === 'image' || item.kind === 'stick') return undefined;
  if (!item.owned && item.price === null) return undefined;
  if ('in' in item && item.in !== null) return undefined;
  const base = {
    id: item.id,
    name: item.name,
    price: item.owned ? 0 : (item.price ?? 0),
    offer: !item.owned,
  };
  if (item.kind === 'memory')
    return {
      ...base,
      kind: 'memory',
      bytes: item.bytes,
      type: item.type,
      form: item.form,
      checked: item.checked,
    };
  if (item.kind === 'adapter')
    return item.wiredPorts + item.sataPorts > 0
      ? {
          ...base,
          kind: 'adapter',
          goesIn: item.goesIn,
          wiredPorts: item.wiredPorts,
          sataPorts: item.sataPorts,
        }
      : undefined;
  return item.fate === 'keep'
    ? undefined
    : {
        ...base,
        kind: 'drive',
        bytes: item.realBytes ?? item.bytes,
        bus: busOf(item),
        m2: item.m2,
        shape: item.shape,
      };
}

/** So many equal parts are more than a plan ever weighs against each other. */
export const MOST_EQUAL = 14;

/** Parts that differ in nothing that a plan asks for. */
const specOf = ({ id: _id, name: _name, reserved: _reserved, ...spec }: Part): string => JSON.stringify(spec);

interface Grouped {
  groups: { part: Part; at: number }[][];
}
const grouped = new WeakMap<Bench['items'], Grouped>();

/** All parts of the shelf in groups of equal ones; made once for each state of it. */
function groupsOf(items: Bench['items']): Grouped {
  let known = grouped.get(items);
  if (known) return known;
  const bySpec = new Map<string, { part: Part; at: number }[]>();
  items.forEach((item, at) => {
    const part = asPart(item);
    if (!part) return;
    const spec = specOf(part);
    const group = bySpec.get(spec);
    if (group) group.push({ part, at });
    else bySpec.set(spec, [{ part, at }]);
  });
  grouped.set(items, (known = { groups: [...bySpec.values()] }));
  return known;
}

/**
 * The parts this machine could get, in the shelf's order: nothing that another machine's box has put aside, and of equal
 * parts no more than a plan weighs.
 */
export function partsFor(bench: Bench, machineId: string | null): Part[] {
  const claims = claimsOf(bench);
  const machineOf = new Map(bench.boxes.map((b) => [b.id, b.machineId]));
  const out: { part: Part; at: number }[] = [];
  for (const group of groupsOf(bench.items).groups) {
    let left = MOST_EQUAL;
    for (const { part, at } of group) {
      const holding = (claims.get(part.id) ?? []).map((c) => machineOf.get(c.boxId) ?? null);
      const mine = holding.includes(machineId);
      // What can be bought can be bought for every box.
      if (holding.some((m) => m !== machineId) && !part.offer) continue;
      if (mine) out.push({ part: { ...part, reserved: true }, at });
      else if (left > 0) {
        left -= 1;
        out.push({ part, at });
      }
    }
  }
  return out.sort((a, b) => a.at - b.at).map((x) => x.part);
}
