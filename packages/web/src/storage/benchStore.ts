import { replaceEqualDeep, type QueryClient } from '@tanstack/react-query';
import { arranged, emptyBench, theBench, type Bench } from '@zb/core/model/bench';
import { applyChanges, differences, type Act, type Change } from '@zb/core/model/changes';
import { conflictWords } from '@zb/core/words/conflict';
import { closedAgainst } from '@zb/core/keeping/closed';
import { faultOf } from '@zb/core/model/fault';
import { BrowserKeeper } from './browserKeeper';
import { ChangedElsewhere, StorageReplaced, UnreadableBench, type Done, type Keeper } from './keeper';
import { MemoryKeeper } from './memoryKeeper';
import { OtherTabs } from './otherTabs';

export const BENCH_KEY = ['bench'] as const;

export interface StoreNotice {
  /** Acts that are on this screen only, because storage refused them. */
  unsaved: readonly Act[];
  /** Why storage cannot be used, in words; null where it works. */
  trouble: string | null;
  /** The last thing that happened. */
  status: string;
  /** How many things happened, and whether the last can be taken back by one undo. */
  said: number;
  undoable: boolean;
  kind: Keeper['kind'] | 'opening';
  /** Acts that are shown and on their way into storage. */
  pending: number;
  /** Has storage not answered for some seconds? It is still waited for. */
  silent: boolean;
  /** Was what this page kept deleted, or begun anew elsewhere? The bench on the screen is whole then, and kept nowhere. */
  replaced: boolean;
  /** Is what was kept known to be whole, by reading it? Null where nobody looked. */
  intact: boolean | null;
  /** Name of a bench that another tab shows while nothing is kept here: nothing is begun over it unasked. */
  elsewhere: string | null;
  /** What another tab changed first, so that an act of this one was not done; null where there is nothing to tell. */
  overtaken: { label: string; lines: readonly string[] } | null;
}

const SILENT_MS = 4000;
/** More changes than this are not told to other tabs one by one. */
const MANY = 500;

/** What a storage fault means for the user. */
export function troubleWords(error: unknown): string {
  const { name = '', message = '' } = (error ?? {}) as { name?: string; message?: string };
  if (name === 'QuotaExceededError') return 'The browser’s storage for this page is full.';
  if (error instanceof StorageReplaced)
    return 'What this browser kept was deleted, or begun anew in another tab, while this page was open.';
  if (name === 'VersionError')
    return 'Another tab runs a newer version of this application, which this page cannot keep anything for. Open the page again.';
  if (name === 'InvalidStateError') return 'The browser closed its storage for this page.';
  if (name === 'SecurityError')
    return 'The browser does not let this page keep anything (private window or blocked storage).';
  return `The browser’s storage failed${message ? ` (${message})` : ''}.`;
}

/**
 * The one door to the bench: acts are shown at once, kept in order, told to other tabs, and never dropped. Where
 * storage refuses an act it stays on the screen and in `unsaved` until it is kept or saved to a file.
 */
export class BenchStore {
  private keeper: Promise<Keeper>;
  private queue: Promise<unknown> = Promise.resolve();
  private readonly listeners = new Set<() => void>();
  /** Benches that acts made here, as against those that were read. */
  private readonly made = new WeakSet<object>();
  private readonly tabs: OtherTabs;
  /** How many acts were done on this screen. */
  private performed = 0;
  /** How many changes of the bench are on the screen, by the storage's count. */
  private revision = 0;
  /** The mark of the storage that it came from. */
  private mark = '';
  /** It is read from storage now, and is to be read once more. */
  private reading = false;
  private again = false;
  private state: StoreNotice = {
    unsaved: [],
    trouble: null,
    status: '',
    said: 0,
    undoable: false,
    kind: 'opening',
    pending: 0,
    silent: false,
    replaced: false,
    intact: null,
    elsewhere: null,
    overtaken: null,
  };

  constructor(
    private readonly client: QueryClient,
    open: (onLost: () => void) => Promise<Keeper> = (onLost) => BrowserKeeper.open({ onLost }),
  ) {
    this.tabs = new OtherTabs(
      (done) => this.hear(done),
      () => this.shown()?.name ?? null,
    );
    this.keeper = this.heard(open(() => this.readAnew())).catch((error: unknown) =>
      this.withoutStorage(troubleWords(error)),
    );
    void this.keeper.then((k) => this.say({ kind: k.kind }));
  }

  /** All of it is read from storage again; however often that is wanted while it is read, once more afterwards is enough. */
  private readAnew(): void {
    this.again = true;
    if (this.reading) return;
    this.reading = true;
    void (async () => {
      try {
        while (this.again) {
          this.again = false;
          await this.client.invalidateQueries({ queryKey: BENCH_KEY });
        }
      } finally {
        this.reading = false;
      }
    })();
  }

  private withoutStorage(why: string): Keeper {
    this.say({
      trouble: `${why} The bench is kept only while this page is open. Save it to a file before you close.`,
    });
    return new MemoryKeeper();
  }

  private shown(): Bench | null | undefined {
    return this.client.getQueryData<Bench | null>(BENCH_KEY);
  }

  /** Says so where an answer of storage is long in coming, and takes it back when it comes. */
  private async heard<T>(answer: Promise<T>): Promise<T> {
    const timer = setTimeout(() => this.say({ silent: true }), SILENT_MS);
    try {
      return await answer;
    } finally {
      clearTimeout(timer);
      if (this.state.silent) this.say({ silent: false });
    }
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  notice = (): StoreNotice => this.state;

  say(change: Partial<StoreNotice>): void {
    const told =
      change.status === undefined ? {} : { said: this.state.said + 1, undoable: change.undoable ?? false };
    this.state = { ...this.state, ...change, ...told };
    for (const listener of this.listeners) listener();
  }

  /** The kept bench with what could not be kept on top; undefined where there is none yet. */
  load = async (): Promise<Bench | null> => {
    for (;;) {
      const performed = this.performed;
      const bench = await this.loadOnce();
      // An act done while storage was read is on the screen and not in what was read, which would take it away again.
      if (performed === this.performed) return bench;
    }
  };

  private async loadOnce(): Promise<Bench | null> {
    await this.queue;
    const shown = this.shown();
    // What is on the screen is all there is of it: it stays until somebody says what to do.
    if (this.state.replaced && shown) return shown;
    let kept: Bench | undefined;
    try {
      const found = await this.heard(this.keeper.then((k) => k.load()));
      kept = found?.bench;
      this.revision = found?.revision ?? 0;
      this.mark = found?.mark ?? '';
    } catch (error) {
      const last = this.shown();
      // What cannot be read is handed out whole by a screen of its own; any other fault leaves the last bench where it is.
      if (!last || error instanceof UnreadableBench) throw error;
      const replaced = error instanceof StorageReplaced;
      this.say({ replaced: this.state.replaced || replaced, intact: false, trouble: troubleWords(error) });
      return last;
    }
    if (!kept && this.state.unsaved.length === 0) return null;
    this.say({ elsewhere: null });
    return arranged(
      this.state.unsaved.reduce((bench, act) => applyChanges(bench, act.changes), kept ?? emptyBench()),
    );
  }

  /**
   * Begins a bench where nothing is kept. Where another tab shows one, that is said instead, unless `asked`; where one was
   * begun meanwhile it is shown.
   */
  async begin(act: Act, asked = false): Promise<void> {
    const elsewhere = asked ? null : await this.tabs.bench();
    if (elsewhere !== null) {
      this.say({ elsewhere });
      return;
    }
    try {
      const begun = await this.inOrder(() => this.heard(this.keeper.then((k) => k.begin(act))));
      this.say({ elsewhere: null, ...(begun && asked ? { status: act.label } : {}) });
      if (begun) this.tabs.tellAnew();
    } catch {
      // Storage refuses it: it is on the screen like any other act that could not be kept, and told so.
      await this.perform(act);
      return;
    }
    await this.client.invalidateQueries({ queryKey: BENCH_KEY });
  }

  /** Goes on in memory where storage does not answer. */
  goOnWithout(): void {
    this.keeper = Promise.resolve(this.withoutStorage('The browser’s storage does not answer.'));
    this.queue = Promise.resolve();
    this.say({ silent: false, kind: 'memory' });
    void this.client.resetQueries({ queryKey: BENCH_KEY });
  }

  /** Keeps the bench on the screen in place of whatever is kept here now; one undo takes that back. */
  async keepAgain(): Promise<void> {
    const shown = this.shown();
    if (!shown) return;
    try {
      await this.inOrder(async () => {
        const keeper = await this.keeper;
        await keeper.adopt();
        const there = (await keeper.load())?.bench ?? emptyBench('');
        await keeper.perform({ label: 'Bench kept again', changes: differences(there, shown) });
      });
    } catch (error) {
      this.say({ trouble: troubleWords(error), status: 'Not kept' });
      return;
    }
    this.say({ replaced: false, intact: true, trouble: null, unsaved: [], status: 'Bench kept again' });
    this.tabs.tellAnew();
    await this.client.invalidateQueries({ queryKey: BENCH_KEY });
  }

  /** Lets the bench on the screen go and shows what is kept here now. */
  async takeKept(): Promise<void> {
    await this.inOrder(async () => (await this.keeper).adopt());
    this.say({
      replaced: false,
      intact: null,
      trouble: null,
      unsaved: [],
      status: 'What is kept here is shown',
    });
    await this.client.resetQueries({ queryKey: BENCH_KEY });
  }

  /** Is what was kept still there and readable? Looks now. */
  intact = async (): Promise<boolean> => (await this.keeper).intact();

  private inOrder<T>(work: () => Promise<T>): Promise<T> {
    const next = this.queue.then(work, work);
    this.queue = next.catch(() => undefined);
    return next;
  }

  /** Puts another bench in place of this one; it was checked where it was read, and `changes` lead to it. */
  replace(label: string, to: Bench, changes: Change[]): Promise<boolean> {
    return this.keepInOrder({ label, changes }, () => this.put(to));
  }

  /** Shows an act at once and keeps it. Resolves to false where storage, or the schema of the bench, refused it. */
  perform(act: Act): Promise<boolean> {
    const before = this.shown() ?? emptyBench();
    const fault = faultOf(act, before);
    if (fault !== undefined) {
      this.say({ status: `Not done: ${fault}. Nothing was changed.` });
      return Promise.resolve(false);
    }
    const closed = closedAgainst(before, act);
    if (closed) {
      this.say({
        status: `Not done: ${closed.name} is ${closed.kept?.retired ? 'retired' : 'finished, and closed'}. Open it again with a reason first; nothing was changed.`,
      });
      return Promise.resolve(false);
    }
    return this.keepInOrder(act, () => this.show(act.changes));
  }

  private keepInOrder(act: Act, show: () => void): Promise<boolean> {
    this.performed += 1;
    show();
    this.say({ status: act.label, undoable: true, pending: this.state.pending + 1, overtaken: null });
    return this.inOrder(async () => {
      // Behind an unsaved act everything waits, so that acts are kept in the order they were done.
      if (this.state.unsaved.length > 0 || this.state.replaced) {
        this.say({ unsaved: [...this.state.unsaved, act] });
        return false;
      }
      return this.keep(act);
    }).finally(() => this.say({ pending: this.state.pending - 1 }));
  }

  /** Puts changes on the screen. */
  private show(changes: readonly Change[]): void {
    const before = this.shown() ?? emptyBench();
    this.put(theBench.applyArranged(before, changes));
  }

  private put(bench: Bench): void {
    this.made.add(bench);
    this.client.setQueryData(BENCH_KEY, bench);
  }

  /**
   * What of a bench that was read anew is as it was stays the same object. One that was made of the present one by an act
   * shares with it already; looking through all of it again would hold up every act on a large bench.
   */
  share = (before: unknown, now: unknown): unknown =>
    typeof now === 'object' && now !== null && this.made.has(now) ? now : replaceEqualDeep(before, now);

  /** What another tab did, on this screen as well; all is read anew where something of what was done was missed. */
  private hear(done: Done | undefined): void {
    const follows = done?.revision === this.revision + 1 && done.mark === this.mark;
    if (!done || !follows || this.state.replaced || !this.shown()) return this.readAnew();
    this.revision = done.revision;
    this.performed += 1;
    this.show(done.changes);
  }

  /** Notes what storage has done and tells it to other tabs. */
  private told(done: Done): void {
    const next = done.revision === this.revision + 1;
    this.revision = Math.max(this.revision, done.revision);
    // Of very many changes it is quicker to read the bench anew than to tell them.
    this.tabs.tell(done.changes.length > MANY ? { kind: 'changed' } : { kind: 'changed', done });
    // Another tab came between, and what it did was not told yet.
    if (!next) this.readAnew();
  }

  /** Puts an act into storage and tells other tabs; false, with the reason in the notice, where storage refused it. */
  private async stored(act: Act): Promise<boolean | 'overtaken'> {
    try {
      const done = await this.heard(this.keeper.then((k) => k.perform(act)));
      if (done) this.told(done);
      // Another tab did it: what is kept is what is true.
      else this.readAnew();
      return true;
    } catch (error) {
      if (error instanceof ChangedElsewhere) {
        const bench = this.shown();
        this.say({
          status: `Not done: ${act.label}`,
          overtaken: { label: act.label, lines: error.conflicts.map((c) => conflictWords(bench, c)) },
        });
        this.readAnew();
        return 'overtaken';
      }
      const replaced = error instanceof StorageReplaced;
      const intact = !replaced && (await this.intact());
      this.say({ trouble: troubleWords(error), replaced: this.state.replaced || replaced, intact });
      return false;
    }
  }

  private async keep(act: Act): Promise<boolean> {
    const kept = await this.stored(act);
    if (kept === false) this.say({ unsaved: [...this.state.unsaved, act] });
    return kept === true;
  }

  /** Tries again to keep what storage refused. */
  retry(): Promise<boolean> {
    return this.inOrder(async () => {
      // An act leaves the list only once it is kept, so that the notice never says more than is true.
      for (let act = this.state.unsaved[0]; act; act = this.state.unsaved[0]) {
        if ((await this.stored(act)) === false) return false;
        this.say({ unsaved: this.state.unsaved.slice(1) });
      }
      this.say({ status: 'Saved', trouble: null, intact: true });
      return true;
    });
  }

  /** Forgets all that is kept here, in every tab; the only way on from a bench that cannot be read. */
  async beginAnew(): Promise<void> {
    await this.inOrder(async () => (await this.keeper).clear());
    this.say({ unsaved: [], status: 'Begun anew' });
    this.tabs.tellAnew();
    await this.client.invalidateQueries({ queryKey: BENCH_KEY });
  }

  async undo(): Promise<void> {
    if (this.state.replaced) {
      this.say({ status: 'Nothing undone: say first whether this bench is to be kept again' });
      return;
    }
    if (this.state.unsaved.length > 0) {
      const last = this.state.unsaved[this.state.unsaved.length - 1];
      this.say({ unsaved: this.state.unsaved.slice(0, -1), status: `Undone: ${last?.label ?? ''}` });
      await this.client.invalidateQueries({ queryKey: BENCH_KEY });
      return;
    }
    try {
      const done = await this.inOrder(async () => (await this.keeper).undo());
      if (done) {
        this.performed += 1;
        this.show(done.changes);
        this.told(done);
      }
      this.say({ status: done ? `Undone: ${done.label}` : 'Nothing to undo', overtaken: null });
    } catch (error) {
      this.say({ status: 'Nothing undone', trouble: troubleWords(error) });
      await this.client.invalidateQueries({ queryKey: BENCH_KEY });
    }
  }
}
