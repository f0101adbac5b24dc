import type { IDBPDatabase } from 'idb';
import { theBench, type Bench } from '@zb/core/model/bench';
import type { Keyed } from '@zb/core/model/collection';
import type { Act, Change } from '@zb/core/model/changes';
import { benchFromKept, type Migration } from '@zb/core/model/reading';
import { settingsSchema } from '@zb/core/model/settings';
import {
  callOff,
  INCARNATION,
  inSlices,
  openDatabase,
  REVISION,
  storeNames,
  writeAll,
  type Tx,
} from './database';
import { inDrawers, packUp, placeOf, Reach, recordsOf, type Packed } from './layout';
import { lastAct, note, noteBack, takeOff, type Back } from './journal';
import {
  ChangedElsewhere,
  StorageReplaced,
  UnreadableBench,
  type Done,
  type Keeper,
  type Loaded,
} from './keeper';

/** Plain JSON, or the text itself where it is none, so that validation can name it. */
function asJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return text;
  }
}

/** So many changes are worked on at once where they are of whole records. */
const PART = 700;

/** Changes of whole records do not bear on each other: those that lie at one place are worked on together. */
function inParts(changes: readonly Change[], packed: Packed): (readonly Change[])[] {
  const whole = changes.every((c) => 'to' in c || c.in === 'settings');
  if (!whole || changes.length <= PART) return [changes];
  const places = new Map<string, Map<string, Change[]>>();
  for (const c of changes) {
    let mine = places.get(c.in);
    if (!mine) places.set(c.in, (mine = new Map<string, Change[]>()));
    const place = packed(c.in) ? placeOf(packed, c) : '';
    const there = mine.get(place);
    if (there) there.push(c);
    else mine.set(place, [c]);
  }
  const sorted = [...places.values()].flatMap((mine) => [...mine.values()].flat());
  return Array.from({ length: Math.ceil(sorted.length / PART) }, (_, i) =>
    sorted.slice(i * PART, (i + 1) * PART),
  );
}

type Steps = ReadonlyMap<number, Migration>;
/** A bench of an earlier version is rare: what brings it up comes when there is one. */
const theSteps = async (): Promise<Steps> => (await import('@zb/core/model/migrations')).migrations;

export interface KeeperOptions {
  name?: string;
  /** The table of collections that are kept, the version and the steps to it; tests give others. */
  model?: typeof theBench;
  steps?: Steps | null;
  version?: number;
  /** Told when the database was closed or deleted from outside. */
  onLost?: () => void;
}

/**
 * The bench in the browser's IndexedDB: one record per item, one transaction per act, a journal for undo. The browser may
 * close or delete the database under an open page: it is opened again, and what is not what this page kept is refused.
 */
export class BrowserKeeper implements Keeper {
  readonly kind = 'browser';
  private db: IDBPDatabase | undefined;
  private incarnation: string | undefined;

  private constructor(private readonly options: Required<KeeperOptions>) {}

  static async open(options: KeeperOptions = {}): Promise<BrowserKeeper> {
    const { name = 'zealous-box', model = theBench, steps = null } = options;
    const { version = model.version, onLost = (): void => undefined } = options;
    const keeper = new BrowserKeeper({ name, model, steps, version, onLost });
    await keeper.adopt();
    return keeper;
  }

  private get collections(): readonly string[] {
    return this.options.model.names;
  }

  private readonly packed: Packed = (collection) => this.options.model.table[collection]?.many === true;

  private async connect(): Promise<IDBPDatabase> {
    if (this.db) return this.db;
    const lost = (): void => {
      this.db?.close();
      this.db = undefined;
      this.options.onLost();
    };
    const raise = async (tx: Tx): Promise<void> => {
      for (const c of this.collections.filter(this.packed)) await packUp(tx, c);
    };
    return (this.db = await openDatabase(this.options.name, this.collections, raise, lost));
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
      tx = db.transaction(storeNames(this.collections), mode);
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
    const found = (await tx.store.get(INCARNATION)) as string | undefined;
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

  /** Name, settings and version as they are kept; the usual ones where none were ever set. */
  private async frame(tx: Tx<IDBTransactionMode>): Promise<{
    name: string | undefined;
    settings: unknown;
    version: number;
    revision: number;
  }> {
    const meta = tx.objectStore('meta');
    const [name, version, settings, revision] = (await Promise.all(
      ['name', 'version', 'settings', REVISION].map((key) => meta.get(key)),
    )) as (string | undefined)[];
    return {
      name,
      settings: settings === undefined ? this.options.model.empty().settings : asJson(settings),
      version: Number(version ?? 1),
      revision: Number(revision ?? 0),
    };
  }

  async load(): Promise<Loaded | undefined> {
    const { model, steps, version } = this.options;
    const found = await this.within('readonly', async (tx) => {
      const { revision, ...frame } = await this.frame(tx);
      const known = frame.version === version;
      const raw: Record<string, unknown[]> = {};
      const sound: Record<string, Keyed[]> = {};
      let whole = known;
      for (const c of this.collections) {
        const [all, good]: [unknown[], Keyed[]] = [(raw[c] = []), (sound[c] = [])];
        // What came first is checked while the database fetches what comes next.
        for await (const some of recordsOf(tx, c, this.packed)) {
          all.push(...some);
          const checked = whole ? model.sound(c, some) : undefined;
          whole = checked !== undefined;
          good.push(...(checked ?? []));
        }
      }
      if (frame.name === undefined && this.collections.every((c) => raw[c]?.length === 0)) return undefined;
      const head = { format: 'zealous-box-bench', ...frame, name: frame.name ?? model.empty().name };
      return { kept: { ...head, ...raw }, head, sound: whole ? sound : undefined, revision };
    });
    if (!found) return undefined;
    const { kept, head, sound, revision } = found;
    let bench: Bench;
    try {
      bench = sound
        ? model.assembled(head, sound)
        : benchFromKept(kept, steps ?? (await theSteps()), version, model);
    } catch (error) {
      throw new UnreadableBench(kept, error);
    }
    if (kept.version !== version) await this.rewrite(bench);
    return { bench, revision, mark: this.incarnation ?? '' };
  }

  /** Keeps a bench that came from an older version in its new shape. What could be undone had the old one, and goes. */
  private rewrite(bench: Bench): Promise<void> {
    return this.within('readwrite', async (tx) => {
      for (const c of this.collections) {
        await tx.objectStore(c).clear();
        const records = this.options.model.records(bench, c);
        const all = this.packed(c) ? inDrawers(records) : records;
        await writeAll(
          tx,
          all.map((record) => ({ in: c, id: record.id, record })),
        );
      }
      await tx.objectStore('meta').put(JSON.stringify(bench.settings), 'settings');
      for (const store of ['acts', 'backs', 'aside']) await tx.objectStore(store).clear();
      await tx.objectStore('meta').put(String(this.options.version), 'version');
    });
  }

  async clear(): Promise<void> {
    // Another mark, so that other tabs know that what they show is not kept any more.
    const mark = crypto.randomUUID();
    await this.within('readwrite', async (tx) => {
      for (const store of storeNames(this.collections)) await tx.objectStore(store).clear();
      await tx.objectStore('meta').put(mark, INCARNATION);
    });
    this.incarnation = mark;
  }

  perform(act: Act): Promise<Done | undefined> {
    return this.within('readwrite', async (tx) => {
      const { once } = act;
      if (once && (await Reach.of(tx, [once], this.packed)).record(once)) return undefined;
      return this.did(tx, act);
    });
  }

  begin(act: Act): Promise<boolean> {
    return this.within('readwrite', async (tx) => {
      const counts = await Promise.all(this.collections.map((c) => tx.objectStore(c).count()));
      if ((await tx.objectStore('meta').get('name')) !== undefined || counts.some((n) => n > 0)) return false;
      await this.did(tx, act);
      return true;
    });
  }

  private async did(tx: Tx, { label, changes, leaves = [] }: Act): Promise<Done> {
    const seq = await note(tx, label);
    let revision = 0;
    let part = 0;
    // A whole bench put in place is many changes of whole records, which do not bear on each other.
    const parts = inParts(changes, this.packed);
    const there = parts.length > 1 ? await this.placesOf(tx) : undefined;
    for (const [i, some] of parts.entries()) {
      // All of them are one change of the bench.
      const put = await this.put(tx, some, seq, there, i === 0 ? 1 : 0);
      revision = put.revision;
      part = await noteBack(tx, seq, put.back, part);
    }
    await noteBack(tx, seq, leaves, part);
    return { label, changes, revision, mark: this.incarnation ?? '' };
  }

  /**
   * Puts changes into the open transaction and answers what takes them back. Throws ChangedElsewhere, which ends the
   * transaction, where they meet other values than they saw. `seq` is the act that large records are put aside for;
   * `there` are the places that hold something, where they are known: what is new need not be asked for.
   */
  private async put(
    tx: Tx,
    changes: readonly Change[],
    seq: number | undefined,
    there?: Set<string>,
    counts = 1,
  ): Promise<{ back: Back[]; revision: number }> {
    const { model } = this.options;
    const records = changes.filter(model.isRecordChange);
    const keys = [...new Map(records.map((c) => [`${c.in} ${c.id}`, { in: c.in, id: c.id }])).values()];
    const reach = await Reach.of(tx, keys, this.packed, there);
    const found = keys.map((k) => reach.record(k));
    const { name, settings, revision } = await this.frame(tx);
    // A bench of just the records that are named: the rules of changes are the model's, not the storage's.
    const before = {
      ...model.empty(name),
      settings: settingsSchema.parse(settings),
      ...Object.fromEntries(this.collections.map((c) => [c, found.filter((r, i) => r && keys[i]?.in === c)])),
    } as Bench;
    const conflicts = model.conflicts(before, changes);
    if (conflicts.length > 0) throw new ChangedElsewhere(conflicts);
    const after = model.apply(before, changes);
    const left = new Map(
      this.collections.flatMap((c) =>
        model.records(after, c).map((r): [string, Keyed] => [`${c} ${r.id}`, r]),
      ),
    );
    const aside = keys.flatMap((k, i) => {
      const record = found[i];
      const gone = !left.has(`${k.in} ${k.id}`) && model.table[k.in]?.large === true;
      return gone && record && seq !== undefined ? [{ seq, in: k.in, id: k.id, record }] : [];
    });
    await inSlices(aside, (a) => tx.objectStore('aside').put(a));
    await reach.write(keys.map((k) => ({ ...k, record: left.get(`${k.in} ${k.id}`) })));
    const meta = tx.objectStore('meta');
    await Promise.all([
      meta.put(after.name, 'name'),
      meta.put(JSON.stringify(after.settings), 'settings'),
      meta.put(String(this.options.version), 'version'),
      meta.put(String(revision + counts), REVISION),
    ]);
    const apart = new Set(aside.map((a) => `${a.in} ${a.id}`));
    const back = model
      .inverse(before, changes)
      .map((b): Back => (apart.has(`${b.in} ${b.id}`) ? { in: b.in, id: b.id, aside: true } : b));
    return { back, revision: revision + counts };
  }

  private async placesOf(tx: Tx): Promise<Set<string>> {
    const there = new Set<string>();
    for (const c of this.collections)
      for (const id of (await tx.objectStore(c).getAllKeys()) as string[]) there.add(`${c} ${id}`);
    return there;
  }

  undo(): Promise<Done | undefined> {
    return this.within('readwrite', async (tx) => {
      const last = await lastAct(tx);
      if (!last) return undefined;
      const changes = await takeOff(tx, last);
      const { revision } = await this.put(tx, changes, undefined);
      return { label: last.label, changes, revision, mark: this.incarnation ?? '' };
    });
  }

  undoable(): Promise<string | undefined> {
    return this.within('readonly', async (tx) => (await lastAct(tx))?.label);
  }
}
