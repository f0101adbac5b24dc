import { openDB, type DBSchema, type IDBPDatabase, type IDBPTransaction } from 'idb';
import {
  benchSchema,
  emptyBench,
  type Bench,
  type Box,
  type LogEntry,
  type Profile,
  type ShelfItem,
} from '@zb/core/schema/bench';
import type { Act, Change } from '@zb/core/schema/changes';
import { UNDO_DEPTH, type Keeper } from './keeper';

interface Kept {
  seq?: number;
  label: string;
  back: Change[];
}

interface Shape extends DBSchema {
  items: { key: string; value: ShelfItem };
  profiles: { key: string; value: Profile };
  boxes: { key: string; value: Box };
  log: { key: string; value: LogEntry };
  meta: { key: string; value: string };
  acts: { key: number; value: Kept };
}

const STORES = ['items', 'profiles', 'boxes', 'log', 'meta', 'acts'] as const;
type Tx = IDBPTransaction<Shape, (typeof STORES)[number][], 'readwrite'>;

/** Puts one change into the open transaction and answers the change that takes it back. */
async function put(tx: Tx, change: Change): Promise<Change> {
  if (change.in === 'name') {
    const meta = tx.objectStore('meta');
    const before = (await meta.get('name')) ?? emptyBench().name;
    await meta.put(change.to, 'name');
    return { in: 'name', id: 'name', to: before };
  }
  const store = tx.objectStore(change.in);
  const before = (await store.get(change.id)) ?? null;
  if (change.to === null) await store.delete(change.id);
  else await store.put(change.to);
  return { ...change, to: before } as Change;
}

/** The bench in the browser's IndexedDB: one record per item, one transaction per act, a journal for undo. */
export class BrowserKeeper implements Keeper {
  readonly kind = 'browser';
  private constructor(private readonly db: IDBPDatabase<Shape>) {}

  static async open(name = 'zealous-box'): Promise<BrowserKeeper> {
    const db = await openDB<Shape>(name, 1, {
      upgrade(fresh) {
        for (const store of ['items', 'profiles', 'boxes', 'log'] as const)
          fresh.createObjectStore(store, { keyPath: 'id' });
        fresh.createObjectStore('meta');
        fresh.createObjectStore('acts', { keyPath: 'seq', autoIncrement: true });
      },
      blocking: () => db.close(),
    });
    return new BrowserKeeper(db);
  }

  async load(): Promise<Bench | undefined> {
    const tx = this.db.transaction(STORES, 'readonly');
    const [name, items, profiles, boxes, log] = await Promise.all([
      tx.objectStore('meta').get('name'),
      tx.objectStore('items').getAll(),
      tx.objectStore('profiles').getAll(),
      tx.objectStore('boxes').getAll(),
      tx.objectStore('log').getAll(),
    ]);
    if (name === undefined && items.length + profiles.length + boxes.length === 0) return undefined;
    return benchSchema.parse({ ...emptyBench(name), items, profiles, boxes, log });
  }

  async perform(act: Act): Promise<void> {
    const tx = this.db.transaction([...STORES], 'readwrite');
    try {
      const back: Change[] = [];
      // Awaiting only requests of this transaction keeps it open to the end.
      for (const change of act.changes) back.unshift(await put(tx, change));
      const acts = tx.objectStore('acts');
      await acts.add({ label: act.label, back });
      const keys = await acts.getAllKeys();
      for (const old of keys.slice(0, Math.max(0, keys.length - UNDO_DEPTH))) await acts.delete(old);
      if ((await tx.objectStore('meta').get('name')) === undefined)
        await tx.objectStore('meta').put(emptyBench().name, 'name');
      await tx.done;
    } catch (error) {
      tx.done.catch(() => undefined);
      try {
        tx.abort();
      } catch {
        // Already over: the browser itself ended it, which is what made the act fail.
      }
      throw error;
    }
  }

  async undo(): Promise<string | undefined> {
    const tx = this.db.transaction([...STORES], 'readwrite');
    const cursor = await tx.objectStore('acts').openCursor(null, 'prev');
    const last = cursor?.value;
    if (cursor && last) {
      for (const change of last.back) await put(tx, change);
      await cursor.delete();
    }
    await tx.done;
    return last?.label;
  }

  async undoable(): Promise<string | undefined> {
    const cursor = await this.db.transaction('acts').store.openCursor(null, 'prev');
    return cursor?.value.label;
  }
}
