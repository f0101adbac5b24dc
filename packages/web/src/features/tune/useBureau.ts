import { proxy, wrap, type Remote } from 'comlink';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { LogWorker } from '../../workers/logWorker';

/** Logs and runs on a thread of its own; cancelling ends the thread. */
export function useBureau() {
  const thread = useRef<{ worker: Worker; remote: Remote<LogWorker> } | null>(null);
  const run = useRef(0);
  /** 0 to 1; null where nothing is under way. */
  const [share, setShare] = useState<number | null>(null);
  const end = useCallback((): void => {
    run.current += 1;
    thread.current?.worker.terminate();
    thread.current = null;
    setShare(null);
  }, []);
  useEffect(() => end, [end]);
  /** Does a job with its progress; undefined where it was cancelled meanwhile. */
  const during = useCallback(
    async <T>(
      job: (remote: Remote<LogWorker>, tell: (share: number) => void) => Promise<T>,
    ): Promise<T | undefined> => {
      const mine = (run.current += 1);
      if (!thread.current) {
        const worker = new Worker(new URL('../../workers/logWorker.ts', import.meta.url), { type: 'module' });
        thread.current = { worker, remote: wrap<LogWorker>(worker) };
      }
      setShare(0);
      try {
        const out = await job(
          thread.current.remote,
          proxy((s: number) => {
            if (run.current === mine) setShare(s);
          }),
        );
        return run.current === mine ? out : undefined;
      } finally {
        if (run.current === mine) setShare(null);
      }
    },
    [],
  );
  return { share, during, cancel: end };
}
