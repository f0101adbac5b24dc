import type { Bench, Box, LogEntry, Profile, ShelfItem, Wish } from './bench';
import type { Settings } from './settings';

/** The collections of the bench, as storage keeps them. */
export const collections = ['items', 'profiles', 'wishes', 'boxes', 'log'] as const;
export type Collection = (typeof collections)[number];
export type Entity = ShelfItem | Profile | Wish | Box | LogEntry;

/** One record set or (null) removed. The bench's name and its settings are changes of their own. */
export type Change =
  | { in: 'items'; id: string; to: ShelfItem | null }
  | { in: 'profiles'; id: string; to: Profile | null }
  | { in: 'wishes'; id: string; to: Wish | null }
  | { in: 'boxes'; id: string; to: Box | null }
  | { in: 'log'; id: string; to: LogEntry | null }
  | { in: 'name'; id: 'name'; to: string }
  | { in: 'settings'; id: 'settings'; to: Settings };

/** One act of the user: everything in it happens or nothing does, and one undo takes all of it back. */
export interface Act {
  label: string;
  changes: Change[];
  /** A record whose being there says that the act is done already, by another tab: nothing is done then. */
  once?: { in: Collection; id: string };
}

/** The bench after the changes, in order; the bench given is not touched. Linear in bench and changes. */
export function applyChanges(bench: Bench, changes: readonly Change[]): Bench {
  const next = { ...bench };
  const touched = new Map<Collection, Map<string, Entity>>();
  for (const c of changes) {
    if (c.in === 'settings') next.settings = c.to;
    else if (c.in === 'name') next.name = c.to;
    else {
      let records = touched.get(c.in);
      // A map keeps the place of what is replaced and puts what is new at the end.
      if (!records) touched.set(c.in, (records = new Map(bench[c.in].map((x) => [x.id, x]))));
      if (c.to === null) records.delete(c.id);
      else records.set(c.id, c.to);
    }
  }
  for (const [collection, records] of touched) Object.assign(next, { [collection]: [...records.values()] });
  return next;
}

/** The changes that lead from one bench to another; used to replace a whole bench as one act. */
export function differences(from: Bench, to: Bench): Change[] {
  const out: Change[] = [];
  const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
  const walk = <T extends { id: string }>(
    old: readonly T[],
    now: readonly T[],
    make: (id: string, to: T | null) => Change,
  ): void => {
    const kept = new Map(now.map((x) => [x.id, x]));
    const before = new Map(old.map((x) => [x.id, x]));
    for (const x of old) if (!kept.has(x.id)) out.push(make(x.id, null));
    for (const x of now) if (!same(before.get(x.id), x)) out.push(make(x.id, x));
  };
  walk(from.items, to.items, (id, x) => ({ in: 'items', id, to: x }));
  walk(from.profiles, to.profiles, (id, x) => ({ in: 'profiles', id, to: x }));
  walk(from.wishes, to.wishes, (id, x) => ({ in: 'wishes', id, to: x }));
  walk(from.boxes, to.boxes, (id, x) => ({ in: 'boxes', id, to: x }));
  walk(from.log, to.log, (id, x) => ({ in: 'log', id, to: x }));
  if (from.name !== to.name) out.push({ in: 'name', id: 'name', to: to.name });
  if (!same(from.settings, to.settings)) out.push({ in: 'settings', id: 'settings', to: to.settings });
  return out;
}
