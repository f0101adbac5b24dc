import type { Bench } from '../model/bench';
import type { Adapter, Memory, ShelfItem, Store } from '../model/shelf';

/** A part that could go into a machine: loose on the shelf (price 0), or to be bought as often as wanted (`offer`); `reserved` where the machine’s own box has put it aside. */
export type Part = { id: string; name: string; price: number; offer: boolean; reserved?: boolean } & (
  | { kind: 'memory'; bytes: number; type: string; form: Memory['form'] }
  | {
      kind: 'drive';
      bytes: number;
      bus: 'sata' | 'nvme' | 'm2 sata' | 'card' | 'other';
      m2: Store['m2'];
      shape?: Store['shape'];
    }
  | { kind: 'adapter'; goesIn: Adapter['goesIn']; wiredPorts: number; sataPorts: number }
);
export type DrivePart = Extract<Part, { kind: 'drive' }>;
export type MemoryPart = Extract<Part, { kind: 'memory' }>;
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
    return { ...base, kind: 'memory', bytes: item.bytes, type: item.type, form: item.form };
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

/** The parts this machine could get: nothing that another machine's box has put aside. */
export function partsFor(bench: Bench, machineId: string | null): Part[] {
  const taken = new Set(bench.boxes.filter((b) => b.machineId !== machineId).flatMap((b) => b.parts));
  const mine = new Set(bench.boxes.filter((b) => b.machineId === machineId).flatMap((b) => b.parts));
  return bench.items.flatMap((item) => {
    const part = asPart(item);
    // What can be bought can be bought for every box.
    if (!part || (taken.has(item.id) && !part.offer)) return [];
    return [mine.has(item.id) ? { ...part, reserved: true } : part];
  });
}
