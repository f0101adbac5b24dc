import type { Context } from 'hono';
import { streamSSE } from 'hono/streaming';
import { isOver, type Job } from '@zb/core/model/job';
import type { Book } from './writer/book';

/**
 * A job's progress as server-sent events (HTML standard §9.2), to the last one. A reader that is slow gets fewer of them:
 * only the newest waits for it.
 */
export function tellProgress(c: Context, job: Job, book: Book): Response {
  return streamSSE(c, async (stream) => {
    let latest: string | undefined = JSON.stringify(job);
    let over = isOver(job);
    let wake: () => void = () => undefined;
    const stop = book.listen(job.id, (now) => {
      latest = JSON.stringify(now);
      over = isOver(now);
      wake();
    });
    stream.onAbort(() => {
      over = true;
      latest = undefined;
      wake();
    });
    try {
      for (;;) {
        const data: string | undefined = latest;
        latest = undefined;
        if (data !== undefined) await stream.writeSSE({ data });
        else if (over) return;
        else await new Promise<void>((go) => (wake = go));
      }
    } finally {
      stop();
    }
  });
}
