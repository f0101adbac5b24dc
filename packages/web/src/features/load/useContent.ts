import { proxy, wrap, type Remote } from 'comlink';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { LookedView } from '@zb/core/content/view';
import type { ContentWorker, LookAsk, TellWork } from '../../workers/contentWorker';
import type { Folder } from '../../workers/folderHandle';

/** What is under way. */
export interface AtWork {
  what: Parameters<TellWork>[0];
  done: number;
  whole: number | null;
}

/** A folder that was looked through. */
export interface LookedAt {
  name: string;
  /** The folder itself, where it can be written to as well; null where it was opened to read alone. */
  handle: FileSystemDirectoryHandle | null;
  view: LookedView;
}

class Bureau {
  private thread: Worker | null = null;
  private remote: Remote<ContentWorker> | null = null;
  get(): Remote<ContentWorker> {
    if (!this.remote) {
      this.thread = new Worker(new URL('../../workers/contentWorker.ts', import.meta.url), {
        type: 'module',
      });
      this.remote = wrap<ContentWorker>(this.thread);
    }
    return this.remote;
  }
  /** Whoever waits on it waits for nothing any more. */
  end(): void {
    this.thread?.terminate();
    this.thread = null;
    this.remote = null;
  }
}

/** A folder on a thread of its own: looked through, judged anew, planned. Cancelling ends the thread, and what it held. */
export function useContent() {
  const bureau = useRef<Bureau | null>(null);
  const get = useCallback((): Remote<ContentWorker> => (bureau.current ??= new Bureau()).get(), []);
  const [work, setWork] = useState<AtWork | null>(null);
  const [looked, setLooked] = useState<LookedAt | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const run = useRef(0);
  useEffect(() => () => bureau.current?.end(), []);
  /** Does a job with its progress; undefined where it failed or was cancelled meanwhile. */
  const during = useCallback(
    async <T>(job: (worker: Remote<ContentWorker>, tell: TellWork) => Promise<T>): Promise<T | undefined> => {
      const mine = (run.current += 1);
      setFault(null);
      setWork({ what: 'seen', done: 0, whole: null });
      try {
        const out = await job(
          get(),
          proxy((what, done, whole) => {
            if (run.current === mine) setWork({ what, done, whole });
          }),
        );
        return run.current === mine ? out : undefined;
      } catch (error) {
        if (run.current === mine) setFault(error instanceof Error ? error.message : String(error));
        return undefined;
      } finally {
        if (run.current === mine) {
          // What was still on its way when the work ended is heard no more.
          run.current += 1;
          setWork(null);
        }
      }
    },
    [get],
  );
  const look = useCallback(
    async (name: string, folder: Folder, ask: LookAsk): Promise<LookedView | undefined> => {
      const view = await during((w, tell) => w.look(folder, ask, tell));
      if (view) setLooked({ name, handle: 'handle' in folder ? folder.handle : null, view });
      return view;
    },
    [during],
  );
  const again = useCallback(
    async (ask: LookAsk): Promise<void> => {
      const view = await during((w, tell) => w.again(ask, tell));
      if (view) setLooked((l) => l && { ...l, view });
    },
    [during],
  );
  const cancel = useCallback((): void => {
    run.current += 1;
    bureau.current?.end();
    setWork(null);
    setLooked(null);
  }, []);
  return { get, work, looked, fault, during, look, again, cancel };
}

/** The same, as its parts are given it. */
export type Content = ReturnType<typeof useContent>;
