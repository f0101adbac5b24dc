import { openDB, type DBSchema, type IDBPDatabase, type IDBPTransaction } from 'idb';
import {
  BENCH_VERSION,
  emptyBench,
  type Bench,
  type Box,
  type LogEntry,
  type Profile,
  type ShelfItem,
  type Wish,
} from '@zb/core/schema/bench';
import { collections, type Act, type Change } from '@zb/core/schema/changes';
import { settingsSchema } from '@zb/core/schema/settings';
import { benchFromKept, migrations, type Migration } from '@zb/core/schema/file';
import { UNDO_DEPTH, UnreadableBench, type Keeper } from './keeper';

interface Kept {
  seq?: number;
  label: string;
  back: Change[];
}

interface Shape extends DBSchema {
  items: { key: string; value: ShelfItem };
  profiles: { key: string; value: Profile };
  wishes: { key: string; value: Wish };
  boxes: { key: string; value: Box };
  log: { key: string; value: LogEntry };
  meta: { key: string; value: string };
  acts: { key: number; value: Kept };
}

const STORES = [...collections, 'meta', 'acts'] as const;
type Tx = IDBPTransaction<Shape, (typeof STORES)[number][], 'readwrite'>;

/**
 * Puts one change into the open transaction and answers the change that takes it back. Both requests go out at once, so
 * that an act of many changes is kept in one breath; a transaction carries them out in order.
 */
async function put(tx: Tx, change: Change): Promise<Change> {
  if (change.in === 'name') {
    const meta = tx.objectStore('meta');
    const [before] = await together(meta.get('name'), () => meta.put(change.to, 'name'));
    return { in: 'name', id: 'name', to: before ?? emptyBench().name };
  }
  if (change.in === 'settings') {
    const meta = tx.objectStore('meta');
    const [before] = await together(meta.get('settings'), () =>
      meta.put(JSON.stringify(change.to), 'settings'),
    );
    return { in: 'settings', id: 'settings', to: settingsIn(before) };
  }
  const store = tx.objectStore(change.in);
  const [before] = await together(store.get(change.id), () =>
    change.to === null ? store.delete(change.id) : store.put(change.to),
  );
  return { ...change, to: before ?? null } as Change;
}

/** Settings as they are kept beside the name; the usual ones where none were ever set. */
const settingsIn = (kept: string | undefined): Bench['settings'] =>
  kept === undefined ? emptyBench().settings : settingsSchema.parse(JSON.parse(kept));

/** Plain JSON, or the text itself where it is none, so that validation can name it. */
function asJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return text;
  }
}

/** Both results; where the second cannot even be asked for, the first must not count as an unhandled fault. */
function together<T>(first: Promise<T>, second: () => Promise<unknown>): Promise<[T, unknown]> {
  first.catch(() => undefined);
  return Promise.all([first, second()]);
}

/** The bench in the browser's IndexedDB: one record per item, one transaction per act, a journal for undo. */
export class BrowserKeeper implements Keeper {
  readonly kind = 'browser';
  private constructor(
    private readonly db: IDBPDatabase<Shape>,
    private readonly steps: ReadonlyMap<number, Migration>,
    private readonly version: number,
  ) {}

  /** `steps` and `version` are the bench file's own; tests give others. */
  static async open(
    name = 'zealous-box',
    steps: ReadonlyMap<number, Migration> = migrations,
    version: number = BENCH_VERSION,
  ): Promise<BrowserKeeper> {
    const db = await openDB<Shape>(name, 2, {
      upgrade(here) {
        for (const store of collections)
          if (!here.objectStoreNames.contains(store)) here.createObjectStore(store, { keyPath: 'id' });
        if (!here.objectStoreNames.contains('meta')) here.createObjectStore('meta');
        if (!here.objectStoreNames.contains('acts'))
          here.createObjectStore('acts', { keyPath: 'seq', autoIncrement: true });
      },
      blocking: () => db.close(),
    });
    return new BrowserKeeper(db, steps, version);
  }

  /** Everything as it is kept, not looked at; undefined where nothing ever was. */
  private async kept(): Promise<Record<string, unknown> | undefined> {
    const tx = this.db.transaction(STORES, 'readonly');
    const meta = tx.objectStore('meta');
    const [name, version, settings, ...lists] = await Promise.all([
      meta.get('name'),
      meta.get('version'),
      meta.get('settings'),
      ...collections.map((c) => tx.objectStore(c).getAll()),
    ]);
    if (name === undefined && lists.every((l) => l.length === 0)) return undefined;
    const records = Object.fromEntries(collections.map((c, i) => [c, lists[i] ?? []]));
    return {
      ...emptyBench(name),
      version: Number(version ?? 1),
      ...(settings === undefined ? {} : { settings: asJson(settings) }),
      ...records,
    };
  }

  async load(): Promise<Bench | undefined> {
    const kept = await this.kept();
    if (!kept) return undefined;
    let bench: Bench;
    try {
      bench = benchFromKept(kept, this.steps, this.version);
    } catch (error) {
      throw new UnreadableBench(kept, error);
    }
    if (kept.version !== this.version) await this.rewrite(bench);
    return bench;
  }

  /** Keeps a bench that came from an older version in its new shape. What could be undone had the old one, and goes. */
  private async rewrite(bench: Bench): Promise<void> {
    const tx = this.db.transaction([...STORES], 'readwrite');
    for (const c of collections) {
      await tx.objectStore(c).clear();
      await Promise.all(bench[c].map((record) => put(tx, { in: c, id: record.id, to: record } as Change)));
    }
    await put(tx, { in: 'settings', id: 'settings', to: bench.settings });
    await tx.objectStore('acts').clear();
    await tx.objectStore('meta').put(String(this.version), 'version');
    await tx.done;
  }

  async clear(): Promise<void> {
    const tx = this.db.transaction([...STORES], 'readwrite');
    for (const store of STORES) await tx.objectStore(store).clear();
    await tx.done;
  }

  async perform(act: Act): Promise<void> {
    const tx = this.db.transaction([...STORES], 'readwrite');
    try {
      // Awaiting only requests of this transaction keeps it open to the end.
      const back = (await Promise.all(act.changes.map((change) => put(tx, change)))).reverse();
      const acts = tx.objectStore('acts');
      await acts.add({ label: act.label, back });
      const keys = await acts.getAllKeys();
      for (const old of keys.slice(0, Math.max(0, keys.length - UNDO_DEPTH))) await acts.delete(old);
      const meta = tx.objectStore('meta');
      const [name, version] = await Promise.all([meta.get('name'), meta.get('version')]);
      if (name === undefined) await meta.put(emptyBench().name, 'name');
      if (version === undefined) await meta.put(String(this.version), 'version');
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
      await Promise.all(last.back.map((change) => put(tx, change)));
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
