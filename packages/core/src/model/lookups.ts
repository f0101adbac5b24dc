import { isStore, type ShelfItem, type Store } from './shelf';

interface Lookup {
  byId: ReadonlyMap<string, ShelfItem>;
  /** Drives, sticks and cards that are here, by the machine they sit in. */
  inMachine: ReadonlyMap<string, Store[]>;
}
const known = new WeakMap<readonly ShelfItem[], Lookup>();

/** Ways into the shelf that are made once for each state of it: a bench is never changed in place. */
export function lookupOf(items: readonly ShelfItem[]): Lookup {
  const before = known.get(items);
  if (before) return before;
  const inMachine = new Map<string, Store[]>();
  for (const item of items)
    if (isStore(item) && item.owned && item.in !== null) {
      const there = inMachine.get(item.in);
      if (there) there.push(item);
      else inMachine.set(item.in, [item]);
    }
  const made = { byId: new Map(items.map((i) => [i.id, i])), inMachine };
  known.set(items, made);
  return made;
}
