import { proxy, wrap, type Remote } from 'comlink';
import { useCallback, useEffect, useState, useSyncExternalStore } from 'react';
import type { Bench } from '@zb/core/model/bench';
import type { AssignWorker, Stage } from './assignWorker';

const SECONDS = 20;

export interface Assigning extends Stage {
  state: 'idle' | 'solving' | 'reasons' | 'done' | 'cancelled' | 'failed';
  problem: string;
}

const IDLE: Assigning = { state: 'idle', problem: '' };

/**
 * Solves a shelf on a thread of its own. The solver does not listen while it works, so cancelling, and solving anew
 * before it is done, ends its thread and begins another.
 */
class AssignRun {
  private thread: Worker | undefined;
  /** One for the thread's whole life: a wrapper that is let go closes the thread's end. */
  private remote: Remote<AssignWorker> | undefined;
  private busy = false;
  private run = 0;
  private now: Assigning = IDLE;
  private readonly listeners = new Set<() => void>();

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  get = (): Assigning => this.now;

  private set(now: Assigning): void {
    this.now = now;
    for (const l of this.listeners) l();
  }

  private end(): void {
    this.run += 1;
    this.thread?.terminate();
    this.thread = undefined;
    this.remote = undefined;
    this.busy = false;
  }

  solve(bench: Bench): void {
    if (this.busy) this.end();
    this.thread ??= new Worker(new URL('./assignWorker.ts', import.meta.url), { type: 'module' });
    this.remote ??= wrap<AssignWorker>(this.thread);
    this.busy = true;
    this.run += 1;
    const mine = this.run;
    const live = (): boolean => this.run === mine;
    this.set({ ...this.now, state: 'solving', problem: '' });
    const told = (stage: Stage): void => {
      if (!live()) return;
      const before = stage.solution ? IDLE : this.now;
      this.set({ ...before, ...stage, state: stage.others ? 'done' : 'reasons' });
    };
    this.remote.solve(bench, proxy(told), SECONDS).then(
      () => {
        if (live()) this.busy = false;
      },
      (error: unknown) => {
        if (!live()) return;
        this.end();
        this.set({ state: 'failed', problem: error instanceof Error ? error.message : String(error) });
      },
    );
  }

  cancel(): void {
    this.end();
    this.set({ ...this.now, state: 'cancelled' });
  }

  /** Leaving the screen: the thread goes, what was found stays until the screen is gone as well. */
  close(): void {
    this.end();
  }
}

/** Solves what is given whenever it changes; null solves nothing. */
export function useAssign(given: Bench | null): Assigning & { cancel: () => void; again: () => void } {
  const [run] = useState(() => new AssignRun());
  const now = useSyncExternalStore(run.subscribe, run.get);
  useEffect(() => {
    if (given) run.solve(given);
  }, [run, given]);
  // The thread outlives a change of what is given, so that the solver is loaded once.
  useEffect(() => () => run.close(), [run]);
  const cancel = useCallback(() => run.cancel(), [run]);
  const again = useCallback(() => given && run.solve(given), [run, given]);
  return { ...now, cancel, again };
}
