import { useEffect, useRef } from 'react';
import { recordWrite } from '@zb/core/acts/box';
import { predictWrite } from '@zb/core/media/time';
import { findBox, storesOf, type Bench } from '@zb/core/schema/bench';
import { useAct } from '../storage/hooks';
import { belongsTo, isOver, jobsOf, useJobs } from './writer';

/**
 * Records how writes ended, each once, on whatever screen the user is: the log line carries the job's own name, so that
 * whichever tab sees it first writes it. Shows nothing.
 */
export function WriteRecorder({ bench }: { bench: Bench }) {
  const act = useAct();
  const jobs = useJobs();
  const recorded = useRef(new Set<string>());
  useEffect(() => {
    for (const job of jobsOf(bench, jobs.data)) {
      const { boxId, imageId } = belongsTo(job);
      const box = findBox(bench, boxId);
      const known = bench.log.some((e) => e.id === `write-${job.id}`);
      if (!box || !isOver(job) || known || recorded.current.has(job.id)) continue;
      recorded.current.add(job.id);
      const store = storesOf(bench).find((s) => s.serial === job.serial);
      const run = {
        imageId,
        imageName: job.imageName,
        serial: job.serial,
        bytes: job.total,
        written: job.written,
        seconds: job.seconds,
        predicted: store ? predictWrite(job.total, store, bench.log).value : null,
        result: job.state === 'proven' || job.state === 'cancelled' ? job.state : ('failed' as const),
        explanation: job.explanation,
        realBytes: job.pattern === 'lying capacity' ? job.firstDifference : null,
      };
      const stamp = { now: new Date().toISOString(), id: () => `write-${job.id}` };
      void act(recordWrite(bench, box, run, stamp));
      // One at a time: the next is recorded on the bench that this one leaves.
      return;
    }
  }, [act, bench, jobs.data]);
  return null;
}
