import type { QueryClient } from '@tanstack/react-query';
import { emptyBench, type Bench } from '@zb/core/schema/bench';
import { arranged } from '@zb/core/schema/arrange';
import { applyChanges, type Act } from '@zb/core/schema/changes';
import { faultOf } from '@zb/core/schema/fault';
import { BrowserKeeper } from './browserKeeper';
import type { Keeper } from './keeper';
import { MemoryKeeper } from './memoryKeeper';

export const BENCH_KEY = ['bench'] as const;

export interface StoreNotice {
  /** Acts that are on this screen only, because storage refused them. */
  unsaved: readonly Act[];
  /** Why storage cannot be used, in words; null where it works. */
  trouble: string | null;
  /** The last thing that happened, for the status line. */
  status: string;
  kind: Keeper['kind'] | 'opening';
  /** Acts that are shown and on their way into storage. */
  pending: number;
}

/** What a storage fault means for the user. */
export function troubleWords(error: unknown): string {
  const name = error instanceof Error ? error.name : '';
  if (name === 'QuotaExceededError') return 'The browser’s storage for this page is full.';
  if (name === 'SecurityError' || name === 'InvalidStateError')
    return 'The browser does not let this page keep anything (private window or blocked storage).';
  return `The browser’s storage failed${error instanceof Error && error.message ? ` (${error.message})` : ''}.`;
}

/**
 * The one door to the bench: acts are shown at once, kept in order, told to other tabs, and never dropped. Where
 * storage refuses an act it stays on the screen and in `unsaved` until it is kept or saved to a file.
 */
export class BenchStore {
  private keeper: Promise<Keeper>;
  private queue: Promise<unknown> = Promise.resolve();
  private readonly channel =
    typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('zealous-box');
  private readonly listeners = new Set<() => void>();
  private state: StoreNotice = { unsaved: [], trouble: null, status: '', kind: 'opening', pending: 0 };

  constructor(
    private readonly client: QueryClient,
    open: () => Promise<Keeper> = () => BrowserKeeper.open(),
  ) {
    this.keeper = open().catch((error: unknown) => {
      this.say({
        trouble: `${troubleWords(error)} The bench is kept only while this page is open. Save it to a file before you close.`,
      });
      return new MemoryKeeper();
    });
    void this.keeper.then((k) => this.say({ kind: k.kind }));
    this.channel?.addEventListener(
      'message',
      () => void this.client.invalidateQueries({ queryKey: BENCH_KEY }),
    );
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  notice = (): StoreNotice => this.state;

  say(change: Partial<StoreNotice>): void {
    this.state = { ...this.state, ...change };
    for (const listener of this.listeners) listener();
  }

  /** The kept bench with what could not be kept on top; undefined where there is none yet. */
  load = async (): Promise<Bench | null> => {
    await this.queue;
    const kept = await (await this.keeper).load();
    if (!kept && this.state.unsaved.length === 0) return null;
    return arranged(
      this.state.unsaved.reduce((bench, act) => applyChanges(bench, act.changes), kept ?? emptyBench()),
    );
  };

  private inOrder<T>(work: () => Promise<T>): Promise<T> {
    const next = this.queue.then(work, work);
    this.queue = next.catch(() => undefined);
    return next;
  }

  /** Shows an act at once and keeps it. Resolves to false where storage, or the schema of the bench, refused it. */
  perform(act: Act): Promise<boolean> {
    const fault = faultOf(act);
    if (fault !== undefined) {
      this.say({ status: `Not done: ${fault}. Nothing was changed.` });
      return Promise.resolve(false);
    }
    const before = this.client.getQueryData<Bench | null>(BENCH_KEY) ?? emptyBench();
    this.client.setQueryData(BENCH_KEY, arranged(applyChanges(before, act.changes)));
    this.say({ status: act.label, pending: this.state.pending + 1 });
    return this.inOrder(async () => {
      // Behind an unsaved act everything waits, so that acts are kept in the order they were done.
      if (this.state.unsaved.length > 0) {
        this.say({ unsaved: [...this.state.unsaved, act] });
        return false;
      }
      return this.keep(act);
    }).finally(() => this.say({ pending: this.state.pending - 1 }));
  }

  /** Puts an act into storage and tells other tabs; false, with the reason in the notice, where storage refused it. */
  private async stored(act: Act): Promise<boolean> {
    try {
      await (await this.keeper).perform(act);
    } catch (error) {
      this.say({ trouble: troubleWords(error) });
      return false;
    }
    this.channel?.postMessage('changed');
    return true;
  }

  private async keep(act: Act): Promise<boolean> {
    const kept = await this.stored(act);
    if (!kept) this.say({ unsaved: [...this.state.unsaved, act] });
    return kept;
  }

  /** Tries again to keep what storage refused. */
  retry(): Promise<boolean> {
    return this.inOrder(async () => {
      // An act leaves the list only once it is kept, so that the notice never says more than is true.
      for (let act = this.state.unsaved[0]; act; act = this.state.unsaved[0]) {
        if (!(await this.stored(act))) return false;
        this.say({ unsaved: this.state.unsaved.slice(1) });
      }
      this.say({ status: 'Saved', trouble: null });
      return true;
    });
  }

  /** Forgets all that is kept here, in every tab; the only way on from a bench that cannot be read. */
  async beginAnew(): Promise<void> {
    await this.inOrder(async () => (await this.keeper).clear());
    this.say({ unsaved: [], status: 'Begun anew' });
    this.channel?.postMessage('changed');
    await this.client.invalidateQueries({ queryKey: BENCH_KEY });
  }

  async undo(): Promise<void> {
    if (this.state.unsaved.length > 0) {
      const last = this.state.unsaved[this.state.unsaved.length - 1];
      this.say({ unsaved: this.state.unsaved.slice(0, -1), status: `Undone: ${last?.label ?? ''}` });
    } else {
      const label = await this.inOrder(async () => (await this.keeper).undo());
      this.say({ status: label === undefined ? 'Nothing to undo' : `Undone: ${label}` });
      this.channel?.postMessage('changed');
    }
    await this.client.invalidateQueries({ queryKey: BENCH_KEY });
  }
}
