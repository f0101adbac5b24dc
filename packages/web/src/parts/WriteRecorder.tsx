import { useEffect, useRef } from 'react';
import { recordWrite, endedRun } from '@zb/core/acts/write';
import { belongsTo, isOver, jobsOf } from '@zb/core/model/job';
import { findBox, type Bench } from '@zb/core/model/bench';
import { useAct } from '../storage/hooks';
import { useJobs } from './writer';

/**
 * Records how writes ended, each once, on whatever screen the user is: the log line carries the job's own name, so that
 * whichever tab sees it first writes it. Shows nothing.
 */
export default function WriteRecorder({ bench }: { bench: Bench }) {
  const act = useAct();
  const jobs = useJobs();
  const recorded = useRef(new Set<string>());
  useEffect(() => {
    for (const job of jobsOf(bench, jobs.data ?? [])) {
      const box = findBox(bench, belongsTo(job).boxId);
      const known = bench.log.some((e) => e.id === `write-${job.id}`);
      // One that was recorded once and taken back by undo is not recorded again.
      if (known) recorded.current.add(job.id);
      if (!box || !isOver(job) || recorded.current.has(job.id)) continue;
      recorded.current.add(job.id);
      const stamp = { now: new Date().toISOString(), id: () => `write-${job.id}` };
      void act(recordWrite(bench, box, endedRun(bench, job), stamp));
      // One at a time: the next is recorded on the bench that this one leaves.
      return;
    }
  }, [act, bench, jobs.data]);
  return null;
}
