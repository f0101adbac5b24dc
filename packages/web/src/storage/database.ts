import { BENCH_VERSION } from '@zb/core/model/bench';
import { openDB, unwrap, type IDBPDatabase, type IDBPTransaction } from 'idb';

/** Stores beside those of the collections. `backs` and `aside` belong to the acts that can be taken back. */
const OWN = ['meta', 'acts', 'backs', 'aside'] as const;

/** A mark in `meta`, another one for every time the storage was made: by it a page knows what it kept. */
export const INCARNATION = 'incarnation';
/** How many times the bench was changed, in `meta`: by it a page knows whether it has seen all of it. */
export const REVISION = 'revision';

export type Tx<Mode extends IDBTransactionMode = 'readwrite'> = IDBPTransaction<unknown, string[], Mode>;

export const storeNames = (collections: readonly string[]): string[] => [...collections, ...OWN];

/**
 * Opens the database and makes the stores it lacks; its version is that of the bench file, so that a new collection gets its store. `onOlder` is given the transaction that raises an older one; `onLost`
 * is told when it is closed or wanted by another version.
 */
export const openDatabase = (
  name: string,
  collections: readonly string[],
  onOlder: (tx: Tx) => Promise<void>,
  onLost: () => void,
): Promise<IDBPDatabase> =>
  openDB(name, BENCH_VERSION, {
    upgrade(here, old, _new, tx) {
      const has = (store: string): boolean => here.objectStoreNames.contains(store);
      for (const store of collections) if (!has(store)) here.createObjectStore(store, { keyPath: 'id' });
      if (!has('acts')) here.createObjectStore('acts', { keyPath: 'seq', autoIncrement: true });
      if (!has('backs')) here.createObjectStore('backs', { keyPath: ['seq', 'n'] });
      if (!has('aside')) here.createObjectStore('aside', { keyPath: ['seq', 'in', 'id'] });
      if (!has('meta')) {
        here.createObjectStore('meta');
        void tx.objectStore('meta').put(crypto.randomUUID(), INCARNATION);
      }
      // What cannot be raised stays as it was, and is told as a database that does not open.
      if (old > 0) void onOlder(tx as unknown as Tx).catch(() => tx.abort());
    },
    blocking: onLost,
    terminated: onLost,
  });

/** Ends a transaction of which nothing shall stay. */
export function callOff(tx: Tx<IDBTransactionMode>): void {
  tx.done.catch(() => undefined);
  try {
    tx.abort();
  } catch {
    // Already over: the browser itself ended it.
  }
}

/** So many records are read at once: checking them is no long task. */
const READ = 400;

/** All records of a store by their key, some at a time; the next are asked for before those that came are handed on. */
export async function* partsOf(
  tx: Tx<IDBTransactionMode>,
  store: string,
  count = READ,
): AsyncGenerator<{ id: string }[]> {
  const from = tx.objectStore(store);
  for (let next = from.getAll(null, count) as Promise<{ id: string }[]> | undefined; next;) {
    const some: { id: string }[] = await next;
    const last = some.length === count ? some[count - 1] : undefined;
    next = last
      ? (from.getAll(IDBKeyRange.lowerBound(last.id, true), count) as Promise<{ id: string }[]>)
      : undefined;
    if (some.length > 0) yield some;
  }
}

/** So many requests go out at once: enough to keep the database busy, few enough that the page stays quick. */
const SLICE = 400;

/**
 * Asks for something with each of many, some hundreds at a time, in order. Awaiting only requests of one transaction keeps
 * it open to the end.
 */
export async function inSlices<T, R>(all: readonly T[], ask: (one: T) => Promise<R>): Promise<R[]> {
  const out: R[] = [];
  for (let at = 0; at < all.length; at += SLICE)
    out.push(...(await Promise.all(all.slice(at, at + SLICE).map(ask))));
  return out;
}

/**
 * Puts and deletes records, some hundreds at a time. Nobody listens to the single requests, which makes thousands of them
 * cheap: one that fails ends the transaction, and that is heard.
 */
export async function writeAll(
  tx: Tx,
  all: readonly { in: string; id: string; record: unknown }[],
): Promise<void> {
  for (let at = 0; at < all.length; at += SLICE) {
    const some = all.slice(at, at + SLICE);
    const last = some[some.length - 1];
    for (const { in: store, id, record } of some) {
      const raw = unwrap(tx.objectStore(store));
      if (record === undefined) raw.delete(id);
      else raw.put(record);
    }
    // One that is answered comes after all that were asked before it.
    if (last) await tx.objectStore(last.in).count(last.id);
  }
}
