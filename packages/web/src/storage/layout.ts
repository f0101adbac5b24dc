import type { Keyed } from '@zb/core/model/collection';
import { inSlices, partsOf, writeAll, type Tx } from './database';

/** A record of the bench, by its collection and id. */
export interface Key {
  in: string;
  id: string;
}

/** Many small records of one collection, as one record of the database. */
export interface Drawer {
  id: string;
  all: Keyed[];
}

/** With tens of thousands of lines some hundreds lie in a drawer: one of them is read and written in a millisecond or two. */
const DRAWERS = Array.from({ length: 256 }, (_, i) => `drawer ${i.toString(16).padStart(2, '0')}`);

/** The drawer an id belongs to: its FNV-1a hash (from memory), so that ids of any manner spread evenly. */
export function drawerOf(id: string): string {
  let hash = 0x811c9dc5;
  for (let i = 0; i < id.length; i += 1) hash = Math.imul(hash ^ id.charCodeAt(i), 0x01000193);
  return DRAWERS[(hash >>> 0) % DRAWERS.length] as string;
}

/** Records by the drawers they belong to. */
export function inDrawers(records: readonly Keyed[]): Drawer[] {
  const out = new Map<string, Drawer>();
  for (const record of records) {
    const id = drawerOf(record.id);
    const drawer = out.get(id);
    if (drawer) drawer.all.push(record);
    else out.set(id, { id, all: [record] });
  }
  return [...out.values()];
}

/** Which collections lie in drawers; the others have a record of the database for each of theirs. */
export type Packed = (collection: string) => boolean;

/** Where a record lies: the id of the database's record that holds it. */
export const placeOf = (packed: Packed, { in: store, id }: Key): string =>
  packed(store) ? drawerOf(id) : id;

/** All records of a collection, some at a time. */
export async function* recordsOf(
  tx: Tx<IDBTransactionMode>,
  store: string,
  packed: Packed,
): AsyncGenerator<Keyed[]> {
  if (!packed(store)) yield* partsOf(tx, store);
  // A few drawers hold as many records as a part of the others.
  else for await (const some of partsOf(tx, store, 4)) yield some.flatMap((d) => (d as Drawer).all);
}

/**
 * The records that changes name, read once and written once, whether they lie singly or in drawers. `there` are the places
 * that hold something, where they are known: the others are not asked for.
 */
export class Reach {
  private readonly kept = new Map<string, Keyed | Drawer | undefined>();

  private constructor(
    private readonly tx: Tx,
    private readonly packed: Packed,
    private readonly there: Set<string> | undefined,
  ) {}

  static async of(tx: Tx, keys: readonly Key[], packed: Packed, there?: Set<string>): Promise<Reach> {
    const reach = new Reach(tx, packed, there);
    const places = new Map(keys.map((k) => [reach.place(k), { in: k.in, id: placeOf(packed, k) }]));
    const asked = [...places].filter(([place]) => there?.has(place) !== false);
    const found = await inSlices(asked, ([, at]) => tx.objectStore(at.in).get(at.id));
    asked.forEach(([place], i) => reach.kept.set(place, found[i] as Keyed | undefined));
    return reach;
  }

  private place(key: Key): string {
    return `${key.in} ${placeOf(this.packed, key)}`;
  }

  /** A record as it was found; undefined where there is none. */
  record(key: Key): Keyed | undefined {
    const kept = this.kept.get(this.place(key));
    return this.packed(key.in) ? (kept as Drawer | undefined)?.all.find((r) => r.id === key.id) : kept;
  }

  /** Writes records that were asked for; undefined takes one away. */
  async write(all: readonly (Key & { record: Keyed | undefined })[]): Promise<void> {
    const out = new Map<string, { in: string; id: string; record: Keyed | Drawer | undefined }>();
    const drawers = new Map<string, Map<string, Keyed>>();
    for (const { in: store, id, record } of all) {
      const place = this.place({ in: store, id });
      if (!this.packed(store)) {
        out.set(place, { in: store, id, record });
        continue;
      }
      let drawer = drawers.get(place);
      if (!drawer) {
        const before = (this.kept.get(place) as Drawer | undefined)?.all ?? [];
        drawers.set(place, (drawer = new Map(before.map((r) => [r.id, r]))));
        out.set(place, { in: store, id: drawerOf(id), record: undefined });
      }
      if (record) drawer.set(id, record);
      else drawer.delete(id);
    }
    for (const [place, drawer] of drawers) {
      const put = out.get(place);
      if (put && drawer.size > 0) put.record = { id: put.id, all: [...drawer.values()] };
    }
    for (const place of out.keys()) this.there?.add(place);
    await writeAll(this.tx, [...out.values()]);
  }
}

/** Puts the records of a collection that were kept one by one into drawers; does nothing to those that lie there already. */
export async function packUp(tx: Tx, store: string): Promise<void> {
  const single: Keyed[] = [];
  const drawers: Drawer[] = [];
  for await (const some of partsOf(tx, store))
    for (const record of some)
      if ('all' in record) drawers.push(record as Drawer);
      else single.push(record);
  if (single.length === 0) return;
  await tx.objectStore(store).clear();
  const all = inDrawers([...drawers.flatMap((d) => d.all), ...single]);
  await writeAll(
    tx,
    all.map((record) => ({ in: store, id: record.id, record })),
  );
}
