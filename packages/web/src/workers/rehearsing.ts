import { useCallback, useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import type { RehearsalPlan } from '@zb/core/model/rehearsal';
import type { Aim } from '@zb/core/rehearsal/ending';
import type { Rehearsal } from '@zb/core/rehearsal/rehearse';
import type { SafeSets } from '@zb/core/rehearsal/sets';
import type { RehearsalFault } from '@zb/core/rehearsal/tally';
import type { RehearseJob, RehearseTold } from './rehearseWorker';

/** How a job on a thread of its own stands; what was found last stays until the next is there. */
interface Standing<T> {
  found: T | null;
  /** The question that `found` answers. */
  key: string;
  /** 0 to 1; null where nothing is under way. */
  share: number | null;
  fault: RehearsalFault | null;
  /** A fault of ours; null where there is none. */
  failed: string | null;
}

/** The same for a screen, with the ways to stop it and to begin again. */
export interface Elsewhere<T> extends Pick<Standing<T>, 'found' | 'share' | 'fault'> {
  /** What was found answers an earlier question. */
  stale: boolean;
  cancel: () => void;
  again: () => void;
}

/** A job that is under way listens to nobody: stopping it, or asking something else, ends its thread. */
class Bureau<T> {
  private thread: Worker | null = null;
  private now: Standing<T> = { found: null, key: '', share: null, fault: null, failed: null };
  private readonly listeners = new Set<() => void>();

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  get = (): Standing<T> => this.now;

  private set(changed: Partial<Standing<T>>): void {
    this.now = { ...this.now, ...changed };
    for (const l of this.listeners) l();
  }

  /** `key`: the job as JSON. */
  ask(key: string): void {
    if (this.now.share !== null) this.end();
    this.thread ??= new Worker(new URL('./rehearseWorker.ts', import.meta.url), { type: 'module' });
    this.set({ share: 0, fault: null });
    this.thread.onmessage = ({ data }: MessageEvent<RehearseTold>) => {
      if ('share' in data) this.set({ share: data.share });
      else if ('found' in data) this.set({ key, found: data.found as T, share: null });
      else if ('fault' in data) this.set({ key, found: null, share: null, fault: data.fault });
      else this.set({ share: null, failed: data.failed });
    };
    this.thread.postMessage(JSON.parse(key) as RehearseJob);
  }

  cancel = (): void => {
    this.end();
    this.set({ share: null, fault: { code: 'stopped' } });
  };

  end(): void {
    this.thread?.terminate();
    this.thread = null;
  }
}

function useElsewhere<T>(job: RehearseJob | null): Elsewhere<T> {
  const [bureau] = useState(() => new Bureau<T>());
  const now = useSyncExternalStore(bureau.subscribe, bureau.get);
  // The same question, made anew with the bench, is not asked again.
  const key = useMemo(() => (job ? JSON.stringify(job) : ''), [job]);
  useEffect(() => {
    if (key !== '') bureau.ask(key);
  }, [bureau, key]);
  useEffect(() => () => bureau.end(), [bureau]);
  const again = useCallback(() => bureau.ask(key), [bureau, key]);
  // It must be seen, not swallowed.
  if (now.failed !== null) throw new Error(now.failed);
  const { found, share, fault } = now;
  return { found, share, fault, stale: now.key !== key, cancel: bureau.cancel, again };
}

/** A plan rehearsed under some precautions, off the page’s thread. */
export function useRehearsal(plan: RehearsalPlan | null, ids: readonly string[]): Elsewhere<Rehearsal> {
  const job = useMemo<RehearseJob | null>(() => plan && { kind: 'rehearse', plan, ids }, [plan, ids]);
  return useElsewhere<Rehearsal>(job);
}

/** The smallest sets of precautions for a plan, off the page’s thread. */
export function useSafeSets(plan: RehearsalPlan | null, aim: Aim): Elsewhere<SafeSets> {
  const job = useMemo<RehearseJob | null>(() => plan && { kind: 'sets', plan, aim }, [plan, aim]);
  return useElsewhere<SafeSets>(job);
}
