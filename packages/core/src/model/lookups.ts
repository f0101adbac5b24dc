import { grouped } from '../units/group';
import { isStore, type ShelfItem, type Store } from './shelf';

interface Lookup {
  byId: ReadonlyMap<string, ShelfItem>;
  /** Drives, sticks and cards that are here, in the order of the shelf. */
  stores: readonly Store[];
  /** The same by the machine they sit in. */
  inMachine: ReadonlyMap<string, Store[]>;
}
const known = new WeakMap<readonly ShelfItem[], Lookup>();

/** Ways into the shelf that are made once for each state of it: a bench is never changed in place. */
export function lookupOf(items: readonly ShelfItem[]): Lookup {
  const before = known.get(items);
  if (before) return before;
  const stores = items.filter(isStore).filter((s) => s.owned);
  const made = {
    byId: new Map(items.map((i) => [i.id, i])),
    stores,
    inMachine: grouped(stores, (s) => s.in ?? undefined),
  };
  known.set(items, made);
  return made;
}
