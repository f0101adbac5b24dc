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
} from '@zb/core/model/bench';
import { collections, type Act, type Change } from '@zb/core/model/changes';
import { settingsSchema } from '@zb/core/model/settings';
import { benchFromKept, migrations, type Migration } from '@zb/core/model/file';
import { StorageReplaced, UNDO_DEPTH, UnreadableBench, type Keeper } from './keeper';

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
type Tx<Mode extends IDBTransactionMode = 'readwrite'> = IDBPTransaction<
  Shape,
  (typeof STORES)[number][],
  Mode
>;
/** A mark in `meta`, another one for every time the storage was made: by it a page knows what it kept. */
const INCARNATION = 'incarnation';

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

/** Ends a transaction of which nothing shall stay. */
function callOff(tx: Tx<IDBTransactionMode>): void {
  tx.done.catch(() => undefined);
  try {
    tx.abort();
  } catch {
    // Already over: the browser itself ended it.
  }
}

/**
 * The bench in the browser's IndexedDB: one record per item, one transaction per act, a journal for undo. The browser may
 * close or delete the database under an open page: it is opened again, and what is not what this page kept is refused.
 */
export class BrowserKeeper implements Keeper {
  readonly kind = 'browser';
  private db: IDBPDatabase<Shape> | undefined;
  private incarnation: string | undefined;

  private constructor(
    private readonly name: string,
    private readonly steps: ReadonlyMap<number, Migration>,
    private readonly version: number,
    /** Told when the database was closed or deleted from outside. */
    private readonly onLost: () => void,
  ) {}

  /** `steps` and `version` are the bench file's own; tests give others. */
  static async open(
    name = 'zealous-box',
    steps: ReadonlyMap<number, Migration> = migrations,
    version: number = BENCH_VERSION,
    onLost: () => void = () => undefined,
  ): Promise<BrowserKeeper> {
    const keeper = new BrowserKeeper(name, steps, version, onLost);
    await keeper.adopt();
    return keeper;
  }

  private async connect(): Promise<IDBPDatabase<Shape>> {
    if (this.db) return this.db;
    const lost = (): void => {
      this.db?.close();
      this.db = undefined;
      this.onLost();
    };
    const db = await openDB<Shape>(this.name, 2, {
      upgrade(here, _old, _new, tx) {
        for (const store of collections)
          if (!here.objectStoreNames.contains(store)) here.createObjectStore(store, { keyPath: 'id' });
        if (!here.objectStoreNames.contains('acts'))
          here.createObjectStore('acts', { keyPath: 'seq', autoIncrement: true });
        if (here.objectStoreNames.contains('meta')) return;
        here.createObjectStore('meta');
        void tx.objectStore('meta').put(crypto.randomUUID(), INCARNATION);
      },
      blocking: lost,
      terminated: lost,
    });
    return (this.db = db);
  }

  /**
   * Runs work in one transaction over all stores, all of it or nothing, if what is kept is what this page knows. Where the
   * database was closed under it, it is opened again and the work done once more.
   */
  private async within<T, Mode extends 'readonly' | 'readwrite'>(
    mode: Mode,
    work: (tx: Tx<Mode>) => Promise<T>,
    again = true,
  ): Promise<T> {
    const db = await this.connect();
    let tx: Tx<Mode> | undefined;
    try {
      tx = db.transaction([...STORES], mode);
      if ((await tx.objectStore('meta').get(INCARNATION)) !== this.incarnation) throw new StorageReplaced();
      const out = await work(tx);
      await tx.done;
      return out;
    } catch (error) {
      if (tx) callOff(tx);
      const { name } = error as { name?: string };
      const closed = ['InvalidStateError', 'AbortError', 'TransactionInactiveError'].includes(name ?? '');
      // A transaction that did not end well has kept nothing, so that doing it once more does nothing twice.
      if (!closed || !again) throw error;
      if (this.db === db) {
        db.close();
        this.db = undefined;
      }
      return this.within(mode, work, false);
    }
  }

  async adopt(): Promise<void> {
    const db = await this.connect();
    const tx = db.transaction('meta', 'readwrite');
    const found = await tx.store.get(INCARNATION);
    // What was kept before there was such a mark gets one.
    const mark = found ?? crypto.randomUUID();
    if (found === undefined) await tx.store.put(mark, INCARNATION);
    await tx.done;
    this.incarnation = mark;
  }

  async intact(): Promise<boolean> {
    try {
      return (await this.load()) !== undefined;
    } catch {
      return false;
    }
  }

  /** Everything as it is kept, not looked at; undefined where nothing ever was. */
  private kept(): Promise<Record<string, unknown> | undefined> {
    return this.within('readonly', async (tx) => {
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
    });
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
  private rewrite(bench: Bench): Promise<void> {
    return this.within('readwrite', async (tx) => {
      for (const c of collections) {
        await tx.objectStore(c).clear();
        await Promise.all(bench[c].map((record) => put(tx, { in: c, id: record.id, to: record } as Change)));
      }
      await put(tx, { in: 'settings', id: 'settings', to: bench.settings });
      await tx.objectStore('acts').clear();
      await tx.objectStore('meta').put(String(this.version), 'version');
    });
  }

  async clear(): Promise<void> {
    // Another mark, so that other tabs know that what they show is not kept any more.
    const mark = crypto.randomUUID();
    await this.within('readwrite', async (tx) => {
      for (const store of STORES) await tx.objectStore(store).clear();
      await tx.objectStore('meta').put(mark, INCARNATION);
    });
    this.incarnation = mark;
  }

  perform(act: Act): Promise<boolean> {
    return this.within('readwrite', async (tx) => {
      const { once } = act;
      if (once && (await tx.objectStore(once.in).get(once.id)) !== undefined) return false;
      await this.put(tx, act);
      return true;
    });
  }

  begin(act: Act): Promise<boolean> {
    return this.within('readwrite', async (tx) => {
      const counts = await Promise.all(collections.map((c) => tx.objectStore(c).count()));
      if ((await tx.objectStore('meta').get('name')) !== undefined || counts.some((n) => n > 0)) return false;
      await this.put(tx, act);
      return true;
    });
  }

  /** Awaiting only requests of this transaction keeps it open to the end. */
  private async put(tx: Tx, act: Act): Promise<void> {
    const back = (await Promise.all(act.changes.map((change) => put(tx, change)))).reverse();
    const acts = tx.objectStore('acts');
    await acts.add({ label: act.label, back });
    const keys = await acts.getAllKeys();
    for (const old of keys.slice(0, Math.max(0, keys.length - UNDO_DEPTH))) await acts.delete(old);
    const meta = tx.objectStore('meta');
    const [name, version] = await Promise.all([meta.get('name'), meta.get('version')]);
    if (name === undefined) await meta.put(emptyBench().name, 'name');
    if (version === undefined) await meta.put(String(this.version), 'version');
  }

  undo(): Promise<string | undefined> {
    return this.within('readwrite', async (tx) => {
      const cursor = await tx.objectStore('acts').openCursor(null, 'prev');
      const last = cursor?.value;
      if (cursor && last) {
        await Promise.all(last.back.map((change) => put(tx, change)));
        await cursor.delete();
      }
      return last?.label;
    });
  }

  undoable(): Promise<string | undefined> {
    return this.within('readonly', async (tx) => {
      const cursor = await tx.objectStore('acts').openCursor(null, 'prev');
      return cursor?.value.label;
    });
  }
}
