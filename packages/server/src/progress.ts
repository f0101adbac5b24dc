import type { Context } from 'hono';
import { streamSSE } from 'hono/streaming';
import { isOver, type Job } from '@zb/core/model/job';
import type { Book } from './writer/book';

/**
 * Tells what changes as server-sent events (HTML standard §9.2): how it is now, then every change, to the last one. A reader
 * that is slow gets fewer of them: only the newest waits for it. `listen` is called at once, and what it answers when nobody
 * reads any more.
 */
export function tellNewest<T>(
  c: Context,
  first: T,
  listen: (tell: (now: T) => void) => () => void,
  isLast: (now: T) => boolean,
): Response {
  let newest: { now: T } | undefined = { now: first };
  let last = isLast(first);
  let wake: () => void = () => undefined;
  const stop = listen((now) => {
    newest = { now };
    last = isLast(now);
    wake();
  });
  return streamSSE(c, async (stream) => {
    stream.onAbort(() => {
      last = true;
      newest = undefined;
      wake();
    });
    try {
      for (;;) {
        const told: { now: T } | undefined = newest;
        newest = undefined;
        if (told) await stream.writeSSE({ data: JSON.stringify(told.now) });
        else if (last) return;
        else await new Promise<void>((go) => (wake = go));
      }
    } finally {
      stop();
    }
  });
}

/** A write's progress, to its end. */
export const tellProgress = (c: Context, job: Job, book: Book): Response =>
  tellNewest(c, job, (tell) => book.listen(job.id, tell), isOver);
