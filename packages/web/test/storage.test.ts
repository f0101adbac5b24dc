import 'fake-indexeddb/auto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { deleteDB, openDB, type IDBPDatabase } from 'idb';
import { QueryClient, QueryObserver } from '@tanstack/react-query';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { z } from 'zod';
import { BENCH_VERSION, emptyBench, arranged, type theBench, type Bench } from '@zb/core/model/bench';
import { collection } from '@zb/core/model/collection';
import { collections } from '@zb/core/model/collections';
import { benchModel, settingsEdits } from '@zb/core/model/benchModel';
import { differences, edited, type Act, type Change } from '@zb/core/model/changes';
import { benchToText, type Migration } from '@zb/core/model/file';
import { BENCH_KEY, BenchStore, troubleWords } from '../src/storage/benchStore';
import { BrowserKeeper } from '../src/storage/browserKeeper';
import { fileName } from '../src/storage/download';
import {
  ChangedElsewhere,
  StorageReplaced,
  UNDO_DEPTH,
  UnreadableBench,
  type Done,
  type Keeper,
} from '../src/storage/keeper';
import { MemoryKeeper } from '../src/storage/memoryKeeper';

// One tab is enough here, and Node’s channel would keep the test from ending; two tabs are tested in the browser.
Reflect.deleteProperty(globalThis, 'BroadcastChannel');

const demo = saltmarshHall();
const load: Act = { label: 'Demo loaded', changes: differences(emptyBench(''), demo) };
const rename = (name: string): Act => ({
  label: `Renamed ${name}`,
  changes: [{ in: 'name', id: 'name', to: name }],
});
let n = 0;
const open = (): Promise<BrowserKeeper> => BrowserKeeper.open({ name: `test-${(n += 1)}` });

describe.each([
  ['browser', open as () => Promise<Keeper>],
  ['memory', () => Promise.resolve(new MemoryKeeper()) as Promise<Keeper>],
])('the %s keeper', (_kind, make) => {
  it('begins with nothing', async () => expect(await (await make()).load()).toBeUndefined());

  it('gives back what it was given', async () => {
    const keeper = await make();
    await keeper.perform(load);
    const kept = await keeper.load();
    expect(kept && benchToText(kept.bench)).toBe(benchToText(demo));
  });

  it('takes back the last act, and at least twenty', async () => {
    const keeper = await make();
    await keeper.perform(load);
    for (let i = 0; i < 30; i += 1) await keeper.perform(rename(`N${i}`));
    for (let i = 29; i >= 5; i -= 1) expect((await keeper.undo())?.label).toBe(`Renamed N${i}`);
    expect((await keeper.load())?.bench.name).toBe('N4');
    expect(await keeper.undoable()).toBe('Renamed N4');
  });

  it('values changed by two pages are both kept; the same value tells the second, and nothing of its act is done', async () => {
    const keeper = await make();
    await keeper.perform(load);
    const [box] = demo.boxes;
    if (!box) throw new Error('no box');
    const change = (to: Partial<typeof box>): Act => ({
      label: 'Changed',
      changes: [edited('boxes', box, { ...box, ...to })],
    });
    await keeper.perform(change({ name: 'Renamed' }));
    await keeper.perform(change({ signoffs: [] }));
    const both = (await keeper.load())?.bench.boxes.find((b) => b.id === box.id);
    expect([both?.name, both?.signoffs]).toEqual(['Renamed', []]);
    const late = await keeper.perform(change({ name: 'Too late', hoursPerDay: 3 })).catch((e: unknown) => e);
    expect(late).toBeInstanceOf(ChangedElsewhere);
    expect((late as ChangedElsewhere).conflicts.map((c) => c.path)).toEqual([['name']]);
    expect((await keeper.load())?.bench.boxes.find((b) => b.id === box.id)).toEqual(both);
    expect((await keeper.undo())?.label).toBe('Changed');
    expect((await keeper.load())?.bench.boxes.find((b) => b.id === box.id)?.signoffs).toEqual(box.signoffs);
  });

  it('a photo comes back with undo', async () => {
    const keeper = await make();
    const to = {
      id: 'p1',
      at: '',
      caption: 'Label',
      data: 'data:image/png;base64,AAAA',
      machineId: null,
      marks: [],
    };
    await keeper.perform({ label: 'Photo', changes: [{ in: 'photos', id: 'p1', to }] });
    await keeper.perform({ label: 'Gone', changes: [{ in: 'photos', id: 'p1', to: null }] });
    expect((await keeper.load())?.bench.photos).toEqual([]);
    await keeper.undo();
    expect((await keeper.load())?.bench.photos).toEqual([to]);
  });

  it('takes back an act of many changes as one', async () => {
    const keeper = await make();
    await keeper.perform(load);
    await keeper.perform({ label: 'Emptied', changes: differences(demo, emptyBench()) });
    expect((await keeper.load())?.bench.items).toEqual([]);
    expect((await keeper.undo())?.label).toBe('Emptied');
    const kept = await keeper.load();
    expect(kept && benchToText(kept.bench)).toBe(benchToText(demo));
  });

  it('an act that touches one record twice is taken back whole', async () => {
    const keeper = await make();
    await keeper.perform(load);
    const [box] = demo.boxes;
    if (!box) throw new Error('no box');
    await keeper.perform({
      label: 'Twice',
      changes: [
        { in: 'boxes', id: box.id, to: { ...box, name: 'A' } },
        { in: 'boxes', id: box.id, to: { ...box, name: 'B' } },
      ],
    });
    expect((await keeper.load())?.bench.boxes.find((b) => b.id === box.id)?.name).toBe('B');
    await keeper.undo();
    expect((await keeper.load())?.bench.boxes.find((b) => b.id === box.id)?.name).toBe(box.name);
  });

  it('does an act that is to be done once only once', async () => {
    const keeper = await make();
    const [entry] = demo.log;
    if (!entry) throw new Error('the demo has no log');
    const act = (text: string): Act => ({
      label: text,
      changes: [{ in: 'log', id: 'write-1', to: { ...entry, id: 'write-1', text } }],
      once: { in: 'log', id: 'write-1' },
    });
    expect(await keeper.perform(act('first'))).toBeDefined();
    expect(await keeper.perform(act('second'))).toBeUndefined();
    expect((await keeper.load())?.bench.log.map((e) => e.text)).toEqual(['first']);
    expect((await keeper.undo())?.label).toBe('first');
    expect((await keeper.load())?.bench.log).toEqual([]);
  });

  it('forgets no more than it must, and undo ends quietly', async () => {
    const keeper = await make();
    for (let i = 0; i < UNDO_DEPTH + 5; i += 1) await keeper.perform(rename(`N${i}`));
    let steps = 0;
    while ((await keeper.undo()) !== undefined) steps += 1;
    expect(steps).toBe(UNDO_DEPTH);
    expect(await keeper.undo()).toBeUndefined();
  });
});

describe('the browser keeper', () => {
  it('is all or nothing: a change that cannot be kept keeps none of its act', async () => {
    const keeper = await open();
    await keeper.perform(load);
    const [item] = demo.items;
    const bad: Act = {
      label: 'Bad',
      changes: [
        { in: 'name', id: 'name', to: 'Changed' },
        { in: 'items', id: 'x', to: { ...item, id: 'x', notes: (() => 1) as never } as never },
      ],
    };
    await expect(keeper.perform(bad)).rejects.toThrow();
    expect((await keeper.load())?.bench.name).toBe(demo.name);
    expect(await keeper.undoable()).toBe('Demo loaded');
  });
});

describe('what an older version kept', () => {
  const steps: ReadonlyMap<number, Migration> = new Map([
    [
      BENCH_VERSION,
      (old: Record<string, unknown>) => ({ ...old, name: `${String(old.name)}, brought over` }),
    ],
  ]);

  it('is brought over once, kept in its new shape, and cannot be undone into the old one', async () => {
    n += 1;
    const first = await BrowserKeeper.open({ name: `test-${n}` });
    await first.perform(load);
    const second = await BrowserKeeper.open({ name: `test-${n}`, steps, version: BENCH_VERSION + 1 });
    expect((await second.load())?.bench.name).toBe('Saltmarsh Hall, brought over');
    expect((await second.load())?.bench.boxes).toHaveLength(demo.boxes.length);
    expect(await second.undo()).toBeUndefined();
  });

  it('is left as it is where no way leads on, and is handed out whole', async () => {
    n += 1;
    const first = await BrowserKeeper.open({ name: `test-${n}` });
    await first.perform(load);
    const second = await BrowserKeeper.open({
      name: `test-${n}`,
      steps: new Map(),
      version: BENCH_VERSION + 1,
    });
    const fault = await second.load().catch((e: unknown) => e);
    expect(fault).toBeInstanceOf(UnreadableBench);
    expect((fault as UnreadableBench).message).toContain(
      `No way is known from version ${BENCH_VERSION} to ${BENCH_VERSION + 1}`,
    );
    expect((fault as UnreadableBench).kept).toMatchObject({ name: demo.name, version: BENCH_VERSION });
    expect((await (await BrowserKeeper.open({ name: `test-${n}` })).load())?.bench.name).toBe(demo.name);
  });

  it('a browser that kept the first version’s bench opens it: stores are added, systems brought over, nothing lost', async () => {
    n += 1;
    const old = JSON.parse(
      readFileSync(join(__dirname, '../../core/test/fixtures/bench-v1.json'), 'utf8'),
    ) as Record<'items' | 'profiles' | 'boxes' | 'log', { id: string }[]> & { name: string };
    const db = await openDB(`test-${n}`, 1, {
      upgrade(fresh) {
        for (const store of ['items', 'profiles', 'boxes', 'log'])
          fresh.createObjectStore(store, { keyPath: 'id' });
        fresh.createObjectStore('meta');
        fresh.createObjectStore('acts', { keyPath: 'seq', autoIncrement: true });
      },
    });
    for (const store of ['items', 'profiles', 'boxes', 'log'] as const)
      for (const record of old[store]) await db.put(store, record);
    await db.put('meta', old.name, 'name');
    await db.put('meta', '1', 'version');
    db.close();
    const keeper = await BrowserKeeper.open({ name: `test-${n}` });
    const bench = (await keeper.load())?.bench;
    expect(bench?.name).toBe(old.name);
    expect(bench?.items.map((i) => i.id).sort()).toEqual(old.items.map((i) => i.id).sort());
    expect(bench?.profiles.every((p) => p.releases.length === 1)).toBe(true);
    expect(bench?.log).toHaveLength(old.log.length);
    // It is kept in its new shape, and goes on from there.
    const [wish] = demo.wishes;
    if (!wish) throw new Error('no wish');
    await keeper.perform({ label: 'Wish', changes: [{ in: 'wishes', id: wish.id, to: wish }] });
    expect((await (await BrowserKeeper.open({ name: `test-${n}` })).load())?.bench.wishes).toEqual([wish]);
  });

  it('lines of the log that lay one by one are laid together, and nothing is lost', async () => {
    const keeper = await open();
    await keeper.perform(load);
    const db = (keeper as unknown as { db: { close(): void } }).db;
    db.close();
    // As the version before kept them: the same stores, a record for each line.
    await deleteDB(`test-${n}`);
    const old = await openDB(`test-${n}`, 3, {
      upgrade(fresh) {
        for (const store of Object.keys(collections)) fresh.createObjectStore(store, { keyPath: 'id' });
        for (const store of ['backs', 'aside']) fresh.createObjectStore(store, { keyPath: ['seq'] });
        fresh.createObjectStore('acts', { keyPath: 'seq', autoIncrement: true });
        fresh.createObjectStore('meta');
      },
    });
    for (const store of Object.keys(collections))
      for (const record of demo[store as keyof typeof collections]) await old.put(store, record);
    await old.put('meta', demo.name, 'name');
    await old.put('meta', JSON.stringify(demo.settings), 'settings');
    await old.put('meta', String(BENCH_VERSION), 'version');
    old.close();
    const kept = await (await BrowserKeeper.open({ name: `test-${n}` })).load();
    expect(kept && benchToText(kept.bench)).toBe(benchToText(demo));
    const now = await openDB(`test-${n}`);
    const drawers = (await now.getAll('log')) as { all: unknown[] }[];
    now.close();
    expect(drawers.flatMap((d) => d.all)).toHaveLength(demo.log.length);
  });

  it('a storage that was made before a collection was known gets a store for it, and keeps all it has', async () => {
    const keeper = await open();
    await keeper.perform(load);
    const db = (keeper as unknown as { db: IDBPDatabase }).db;
    const records = new Map<string, unknown[]>();
    for (const store of db.objectStoreNames) {
      const keys = store === 'meta' ? await db.getAllKeys(store) : [];
      const values = (await db.getAll(store)) as unknown[];
      records.set(store, store === 'meta' ? values.map((v, i) => [keys[i], v]) : values);
    }
    db.close();
    await deleteDB(`test-${n}`);
    // As it lay there before runs were kept: one version lower, and without their store.
    const old = await openDB(`test-${n}`, BENCH_VERSION - 1, {
      upgrade(fresh) {
        for (const store of Object.keys(collections).filter((c) => c !== 'runs'))
          fresh.createObjectStore(store, { keyPath: 'id' });
        fresh.createObjectStore('acts', { keyPath: 'seq', autoIncrement: true });
        fresh.createObjectStore('backs', { keyPath: ['seq', 'n'] });
        fresh.createObjectStore('aside', { keyPath: ['seq', 'in', 'id'] });
        fresh.createObjectStore('meta');
      },
    });
    for (const store of old.objectStoreNames)
      for (const record of records.get(store) ?? [])
        if (store === 'meta') {
          const [key, value] = record as [string, unknown];
          await old.put(store, value, key);
        } else await old.put(store, record);
    old.close();
    const again = await BrowserKeeper.open({ name: `test-${n}` });
    const kept = await again.load();
    expect(kept && benchToText(kept.bench)).toBe(benchToText({ ...demo, runs: [] }));
    const run = demo.runs[0];
    if (!run) throw new Error('no run');
    await again.perform({ label: 'A run', changes: [{ in: 'runs', id: run.id, to: run }] });
    expect((await again.load())?.bench.runs).toEqual([run]);
  });

  it('thousands of lines: put in place, changed and taken back like any other', async () => {
    const keeper = await open();
    await keeper.perform(load);
    const like = demo.log[0];
    if (!like) throw new Error('no line');
    const lines = Array.from({ length: 4000 }, (_, i) => ({ ...like, id: `line-${i}`, text: `Line ${i}` }));
    const put = lines.map((to): Change => ({ in: 'log', id: to.id, to }));
    const done = await keeper.perform({ label: 'Lines', changes: put });
    // However many parts it is kept in, it is one change: a page that saw it has seen all.
    expect(done?.revision).toBe(2);
    await keeper.perform({
      label: 'Gone',
      changes: put.slice(0, 2000).map((c) => ({ ...c, to: null }) as Change),
    });
    const third = { ...like, id: 'line-3000', text: 'Line 3000' };
    const edit = edited('log', third, { ...third, text: 'Another' });
    await keeper.perform({ label: 'Edit', changes: [edit] });
    const texts = async (): Promise<string[]> =>
      ((await keeper.load())?.bench.log ?? []).filter((e) => e.id.startsWith('line-')).map((e) => e.text);
    const now = await texts();
    expect(now).toHaveLength(2000);
    expect(now).toContain('Another');
    await keeper.undo();
    await keeper.undo();
    expect((await texts()).sort()).toEqual(lines.map((l) => l.text).sort());
    await keeper.undo();
    const kept = await keeper.load();
    expect(kept && benchToText(kept.bench)).toBe(benchToText(demo));
  });

  it('photos are not copied into the journal, and go from storage when nothing can bring them back', async () => {
    const keeper = await open();
    const data = `data:image/png;base64,${'A'.repeat(5000)}`;
    const to = { id: 'p1', at: '', caption: 'Label', data, machineId: null, marks: [] };
    await keeper.perform({ label: 'Photo', changes: [{ in: 'photos', id: 'p1', to }] });
    await keeper.perform({ label: 'Gone', changes: [{ in: 'photos', id: 'p1', to: null }] });
    const within = async (store: string): Promise<string> => {
      const db = await openDB(`test-${n}`);
      const all = JSON.stringify(await db.getAll(store));
      db.close();
      return all;
    };
    expect(await within('backs')).not.toContain('AAAA');
    expect(await within('aside')).toContain('AAAA');
    for (let i = 0; i < UNDO_DEPTH; i += 1) await keeper.perform(rename(`N${i}`));
    expect(await within('aside')).toBe('[]');
  });

  it('a collection that only the table knows is kept, taken back and loaded', async () => {
    const tools = collection({
      schema: z.object({ id: z.string(), name: z.string() }),
      title: { one: 'tool', many: 'tools' },
      order: () => 0,
      references: [],
      find: () => [],
    });
    const model = benchModel({ ...collections, tools }, BENCH_VERSION) as unknown as typeof theBench;
    const name = `test-${(n += 1)}`;
    const keeper = await BrowserKeeper.open({ name, model });
    const change = { in: 'tools', id: 't', to: { id: 't', name: 'Pliers' } } as unknown as Change;
    await keeper.perform({ label: 'Tool', changes: [change] });
    await keeper.perform({ label: 'Gone', changes: [{ ...change, to: null } as unknown as Change] });
    await keeper.undo();
    const found = (await (await BrowserKeeper.open({ name, model })).load())?.bench as unknown as {
      tools: unknown[];
    };
    expect(found.tools).toEqual([{ id: 't', name: 'Pliers' }]);
  });

  it('settings are kept beside the name, undone like anything else, and named where they are spoilt', async () => {
    const keeper = await open();
    await keeper.perform(load);
    const settings = { ...demo.settings, budget: 5 };
    await keeper.perform({
      label: 'Poorer',
      changes: [{ in: 'settings', id: 'settings', edits: settingsEdits(demo.settings, settings) }],
    });
    expect((await keeper.load())?.bench.settings.budget).toBe(5);
    await keeper.undo();
    expect((await keeper.load())?.bench.settings).toEqual(demo.settings);
    const db = await openDB(`test-${n}`);
    await db.put('meta', '{ cut', 'settings');
    db.close();
    const fault = await keeper.load().catch((e: unknown) => e);
    expect(fault).toBeInstanceOf(UnreadableBench);
    expect((fault as UnreadableBench).problems.map((p) => p.path)).toContain('settings');
  });

  it('opens with a loose end: two tabs may have crossed', async () => {
    const keeper = await open();
    await keeper.perform(load);
    const [box] = demo.boxes;
    if (!box) throw new Error('no box');
    await keeper.perform({
      label: 'Crossed',
      changes: [{ in: 'boxes', id: box.id, to: { ...box, machineId: 'gone' } }],
    });
    expect((await keeper.load())?.bench.boxes.find((b) => b.id === box.id)?.machineId).toBe('gone');
  });

  it('can be let go, and then there is nothing', async () => {
    const keeper = await open();
    await keeper.perform(load);
    await keeper.clear();
    expect(await keeper.load()).toBeUndefined();
    expect(await keeper.undo()).toBeUndefined();
  });
});

describe('storage that is taken away under an open page', () => {
  /** A store over a database of its own, with the demo kept in it and shown. */
  const shownStore = async (): Promise<BenchStore> => {
    n += 1;
    const client = new QueryClient();
    const store = new BenchStore(client, (lost) => BrowserKeeper.open({ name: `test-${n}`, onLost: lost }));
    await store.begin(load);
    await client.fetchQuery({ queryKey: BENCH_KEY, queryFn: store.load });
    return store;
  };

  it('closed from outside: it is opened again, and no act is lost', async () => {
    const keeper = await open();
    await keeper.perform(load);
    // Another connection that wants a newer shape has every open one closed, and gives way again.
    const lock = await openDB(`test-${n}`, BENCH_VERSION + 1);
    lock.close();
    const fault: unknown = await keeper.perform(rename('x')).catch((e: unknown) => e);
    // The newer shape cannot be opened by an older page: said, and nothing done.
    expect(fault).toMatchObject({ name: 'VersionError' });
    const second = await open();
    await second.perform(load);
    (second as unknown as { db: { close(): void } }).db.close();
    await second.perform(rename('after the close'));
    expect((await second.load())?.bench.name).toBe('after the close');
    expect((await second.undo())?.label).toBe('Renamed after the close');
  });

  it('deleted: nothing is read from or put into what is another storage, until it is accepted', async () => {
    let lost = 0;
    n += 1;
    const keeper = await BrowserKeeper.open({ name: `test-${n}`, onLost: () => (lost += 1) });
    await keeper.perform(load);
    await deleteDB(`test-${n}`);
    expect(lost).toBe(1);
    for (const work of [keeper.load(), keeper.perform(rename('x')), keeper.undo(), keeper.begin(load)])
      await expect(work).rejects.toBeInstanceOf(StorageReplaced);
    expect(await keeper.intact()).toBe(false);
    await keeper.adopt();
    expect(await keeper.load()).toBeUndefined();
    expect(await keeper.begin(load)).toBe(true);
    expect((await keeper.load())?.bench.name).toBe(demo.name);
  });

  it('begun anew by another tab: the same', async () => {
    const first = await open();
    const second = await BrowserKeeper.open({ name: `test-${n}` });
    await first.perform(load);
    await second.clear();
    await expect(first.perform(rename('x'))).rejects.toBeInstanceOf(StorageReplaced);
    expect(await second.load()).toBeUndefined();
  });

  it('a bench is begun once, whoever asks', async () => {
    const first = await open();
    const second = await BrowserKeeper.open({ name: `test-${n}` });
    const begun = await Promise.all([first.begin(load), second.begin({ ...load, label: 'again' })]);
    expect(begun.filter(Boolean)).toHaveLength(1);
    await first.perform(rename('mine'));
    expect(await second.begin(load)).toBe(false);
    expect((await second.load())?.bench.name).toBe('mine');
  });

  it('a newer version in another tab: the last bench stays on the screen, with what to do', async () => {
    const store = await shownStore();
    (await openDB(`test-${n}`, BENCH_VERSION + 1)).close();
    expect((await store.load())?.name).toBe(demo.name);
    expect(store.notice()).toMatchObject({
      replaced: false,
      intact: false,
      trouble: expect.stringContaining('newer version'),
    });
    expect(await store.perform(rename('not lost'))).toBe(false);
    expect(store.notice().unsaved).toHaveLength(1);
  });

  it('the store keeps showing the last bench, says what is true, and keeps it again with every act', async () => {
    const store = await shownStore();
    await store.perform(rename('before'));
    await deleteDB(`test-${n}`);
    expect(await store.perform(rename('after'))).toBe(false);
    expect(store.notice()).toMatchObject({
      replaced: true,
      intact: false,
      unsaved: [{ label: 'Renamed after' }],
    });
    expect(store.notice().trouble).toMatch(/deleted/);
    expect((await store.load())?.name).toBe('after');
    await store.perform(rename('later'));
    await store.keepAgain();
    expect(store.notice()).toMatchObject({ replaced: false, trouble: null, unsaved: [] });
    const kept = await (await BrowserKeeper.open({ name: `test-${n}` })).load();
    expect(kept && benchToText(kept.bench)).toBe(benchToText({ ...demo, name: 'later' }));
  });
});

/** A keeper that can be told to refuse. */
class Stubborn extends MemoryKeeper {
  refuse: Error | null = null;
  whole = true;
  override intact(): Promise<boolean> {
    return Promise.resolve(this.whole);
  }
  override perform(act: Act): Promise<Done | undefined> {
    return this.refuse ? Promise.reject(this.refuse) : super.perform(act);
  }
}
const quota = (): Error => Object.assign(new Error('full'), { name: 'QuotaExceededError' });

describe('the store', () => {
  const begin = async () => {
    const client = new QueryClient();
    const keeper = new Stubborn();
    const store = new BenchStore(client, () => Promise.resolve(keeper));
    await store.perform(load);
    const shown = (): Bench | undefined => client.getQueryData<Bench>(BENCH_KEY);
    return { client, keeper, store, shown };
  };

  it('shows an act at once, before it is kept', async () => {
    const { store, shown } = await begin();
    const kept = store.perform(rename('Now'));
    expect(shown()?.name).toBe('Now');
    expect(store.notice().pending).toBe(1);
    expect(await kept).toBe(true);
    expect(store.notice().pending).toBe(0);
    expect(store.notice().status).toBe('Renamed Now');
  });

  it('refuses what could not be opened again, in words, and changes nothing', async () => {
    const { store, shown } = await begin();
    expect(await store.perform(rename('x'.repeat(121)))).toBe(false);
    expect(shown()?.name).toBe(demo.name);
    expect(store.notice()).toMatchObject({
      unsaved: [],
      status: expect.stringMatching(/^Not done: .*Nothing was changed/),
    });
  });

  it('shows a bench in its one order', async () => {
    const { shown } = await begin();
    expect(shown()).toEqual(arranged(demo));
  });

  it('when storage is full nothing on the screen is lost, and it is said plainly', async () => {
    const { keeper, store, shown } = await begin();
    keeper.refuse = quota();
    expect(await store.perform(rename('Kept on screen'))).toBe(false);
    keeper.refuse = null;
    expect(await store.perform(rename('Waits its turn'))).toBe(false);
    expect(shown()?.name).toBe('Waits its turn');
    expect((await store.load())?.name).toBe('Waits its turn');
    expect((await keeper.load())?.bench.name).toBe(demo.name);
    expect(store.notice()).toMatchObject({
      unsaved: [{ label: 'Renamed Kept on screen' }, { label: 'Renamed Waits its turn' }],
      trouble: expect.stringContaining('full'),
    });
    expect(await store.retry()).toBe(true);
    expect((await keeper.load())?.bench.name).toBe('Waits its turn');
    expect(store.notice()).toMatchObject({ unsaved: [], trouble: null });
  });

  it('says that what was kept is unharmed only where it was looked at', async () => {
    for (const whole of [true, false]) {
      const { keeper, store } = await begin();
      keeper.refuse = quota();
      keeper.whole = whole;
      await store.perform(rename('A'));
      expect(store.notice().intact).toBe(whole);
    }
  });

  it('storage that never answers is said after some seconds, and can be done without', async () => {
    jest.useFakeTimers();
    try {
      const store = new BenchStore(new QueryClient(), () => new Promise<Keeper>(() => undefined));
      await jest.advanceTimersByTimeAsync(3000);
      expect(store.notice().silent).toBe(false);
      await jest.advanceTimersByTimeAsync(2000);
      expect(store.notice()).toMatchObject({ silent: true, kind: 'opening' });
      store.goOnWithout();
      expect(await store.perform(load)).toBe(true);
      expect(store.notice()).toMatchObject({
        kind: 'memory',
        silent: false,
        trouble: expect.stringMatching(/only while/),
      });
    } finally {
      jest.useRealTimers();
    }
  });

  it('an act done while storage is being read is not taken off the screen by what was read before it', async () => {
    const { client, keeper, store, shown } = await begin();
    await client.fetchQuery({ queryKey: BENCH_KEY, queryFn: store.load });
    let go: () => void = () => undefined;
    const gate = new Promise<void>((open) => (go = open));
    const read = jest.spyOn(keeper, 'load').mockImplementationOnce(async () => {
      const stale = await MemoryKeeper.prototype.load.call(keeper);
      await gate;
      return stale;
    });
    // Another tab did something: this one reads again, and meanwhile its user goes on.
    const fetched = client.fetchQuery({ queryKey: BENCH_KEY, queryFn: store.load });
    await new Promise((r) => setTimeout(r, 5));
    await store.perform(rename('meanwhile'));
    go();
    await fetched;
    expect(read).toHaveBeenCalledTimes(2);
    expect(shown()?.name).toBe('meanwhile');
  });

  it('a thousand messages of other tabs at once are answered by reading storage twice', async () => {
    const heard: ((e: { data: unknown }) => void)[] = [];
    class Channel {
      addEventListener = (_: string, on: (e: { data: unknown }) => void): void => void heard.push(on);
      removeEventListener = (): void => undefined;
      postMessage = (): void => undefined;
    }
    Object.assign(globalThis, { BroadcastChannel: Channel });
    try {
      const { client, keeper, store } = await begin();
      const watching = new QueryObserver(client, { queryKey: BENCH_KEY, queryFn: store.load });
      const stop = watching.subscribe(() => undefined);
      await watching.refetch();
      const read = jest.spyOn(keeper, 'load');
      for (let i = 0; i < 1000; i += 1) heard[0]?.({ data: { kind: 'changed' } });
      await new Promise((r) => setTimeout(r, 50));
      expect(read.mock.calls.length).toBeGreaterThan(0);
      expect(read.mock.calls.length).toBeLessThanOrEqual(2);
      // What comes later is heard again.
      heard[0]?.({ data: { kind: 'changed' } });
      await new Promise((r) => setTimeout(r, 50));
      expect(read.mock.calls.length).toBeLessThanOrEqual(3);
      expect(read.mock.calls.length).toBeGreaterThan(1);
      stop();
    } finally {
      Reflect.deleteProperty(globalThis, 'BroadcastChannel');
    }
  });

  it('a retry that fails half-way keeps the rest waiting, in order', async () => {
    const { keeper, store } = await begin();
    keeper.refuse = quota();
    await store.perform(rename('A'));
    await store.perform(rename('B'));
    expect(await store.retry()).toBe(false);
    expect(store.notice().unsaved.map((a) => a.label)).toEqual(['Renamed A', 'Renamed B']);
  });

  it('the notice stands until the last waiting act is really kept', async () => {
    const { keeper, store } = await begin();
    keeper.refuse = quota();
    await store.perform(rename('A'));
    await store.perform(rename('B'));
    keeper.refuse = null;
    const seen: [number, string | null][] = [];
    store.subscribe(() => seen.push([store.notice().unsaved.length, store.notice().trouble]));
    await store.retry();
    expect(seen.map(([waiting]) => waiting)).toEqual([1, 0, 0]);
    expect(seen.filter(([waiting]) => waiting > 0).every(([, trouble]) => trouble !== null)).toBe(true);
    expect((await keeper.load())?.bench.name).toBe('B');
  });

  it('undo takes an unsaved act back first', async () => {
    const { keeper, store } = await begin();
    keeper.refuse = quota();
    await store.perform(rename('Unsaved'));
    await store.undo();
    expect(store.notice()).toMatchObject({ unsaved: [], status: 'Undone: Renamed Unsaved' });
    expect((await store.load())?.name).toBe(demo.name);
  });

  it('undo says what it undid, and when there is nothing', async () => {
    const { store } = await begin();
    await store.undo();
    expect(store.notice().status).toBe('Undone: Demo loaded');
    await store.undo();
    expect(store.notice().status).toBe('Nothing to undo');
  });

  it('without storage the bench is kept while the page is open, and that is said', async () => {
    const client = new QueryClient();
    const blocked = Object.assign(new Error('no'), { name: 'SecurityError' });
    const store = new BenchStore(client, () => Promise.reject(blocked));
    expect(await store.perform(load)).toBe(true);
    expect((await store.load())?.name).toBe(demo.name);
    expect(store.notice()).toMatchObject({
      kind: 'memory',
      trouble: expect.stringMatching(/private window or blocked storage.*only while this page is open/),
    });
  });

  it('has words for each kind of trouble', () => {
    expect(troubleWords(quota())).toMatch(/full/);
    expect(troubleWords(new Error('odd'))).toMatch(/odd/);
    expect(troubleWords('x')).toMatch(/failed/);
  });
});

describe('file names', () => {
  it.each([
    ['Saltmarsh Hall', 'saltmarsh-hall.json'],
    ['Édith’s / box: 1', 'e-dith-s-box-1.json'],
    ['../../etc', 'etc.json'],
    ['…', 'bench.json'],
  ])('%s becomes %s', (name, file) => expect(fileName(name, 'json')).toBe(file));
});
