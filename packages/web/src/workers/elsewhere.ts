import { useCallback, useEffect, useMemo, useState, useSyncExternalStore } from 'react';

/** What a thread tells: how far it is (0 to 1), what it found, or why it found nothing. */
export type Told<T, F> = { share: number } | { found: T } | { fault: F } | { failed: string };

/** How a job on a thread of its own stands; what was found last stays until the next is there. */
interface Standing<T, F> {
  found: T | null;
  /** The question that `found` answers. */
  key: string;
  /** 0 to 1; null where nothing is under way. */
  share: number | null;
  fault: F | null;
  /** A fault of ours; null where there is none. */
  failed: string | null;
}

/** The same for a screen, with the ways to stop it and to begin again. */
export interface Elsewhere<T, F> extends Pick<Standing<T, F>, 'found' | 'share' | 'fault'> {
  /** What was found answers an earlier question. */
  stale: boolean;
  cancel: () => void;
  again: () => void;
}

/** A job that is under way listens to nobody: stopping it, or asking something else, ends its thread. */
class Bureau<T, F> {
  constructor(
    private readonly made: () => Worker,
    private readonly stopped: F,
  ) {}

  private thread: Worker | null = null;
  private now: Standing<T, F> = { found: null, key: '', share: null, fault: null, failed: null };
  private readonly listeners = new Set<() => void>();

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  get = (): Standing<T, F> => this.now;

  private set(changed: Partial<Standing<T, F>>): void {
    this.now = { ...this.now, ...changed };
    for (const l of this.listeners) l();
  }

  /** `key`: the job as JSON. */
  ask(key: string): void {
    if (this.now.share !== null) this.end();
    this.thread ??= this.made();
    this.set({ share: 0, fault: null });
    this.thread.onmessage = ({ data }: MessageEvent<Told<T, F>>) => {
      if ('share' in data) this.set({ share: data.share });
      else if ('found' in data) this.set({ key, found: data.found, share: null });
      else if ('fault' in data) this.set({ key, found: null, share: null, fault: data.fault });
      else this.set({ share: null, failed: data.failed });
    };
    this.thread.postMessage(JSON.parse(key));
  }

  cancel = (): void => {
    this.end();
    this.set({ share: null, fault: this.stopped });
  };

  end(): void {
    this.thread?.terminate();
    this.thread = null;
  }
}

/** A job (plain JSON) on a thread of its own; null where there is nothing to ask. `stopped` is what stopping it is told as. */
export function useElsewhere<T, F>(made: () => Worker, stopped: F, job: object | null): Elsewhere<T, F> {
  const [bureau] = useState(() => new Bureau<T, F>(made, stopped));
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
