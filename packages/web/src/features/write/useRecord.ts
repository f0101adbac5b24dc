import { useEffect, useRef } from 'react';
import { recordWrite } from '@zb/core/acts/box';
import { predictWrite } from '@zb/core/media/time';
import { findImage, storesOf, type Bench, type Box } from '@zb/core/schema/bench';
import { useAct } from '../../storage/hooks';
import { isOver, type Job } from './useWriter';

const imageOf = (job: Job): string => job.tag.split(':')[1] ?? '';

/** The writes that belong to this box on this bench: the server may know of others, from another bench or browser. */
export const jobsOf = (bench: Bench, box: Box, jobs: readonly Job[] | undefined): Job[] =>
  jobs?.filter((j) => j.tag.startsWith(`${box.id}:`) && findImage(bench, imageOf(j)) !== undefined) ?? [];

/** Records how writes ended, each once, by whichever tab sees it first: the log line carries the job's own name. */
export function useRecord(bench: Bench, box: Box, jobs: readonly Job[]): void {
  const act = useAct();
  const recorded = useRef(new Set<string>());
  useEffect(() => {
    for (const job of jobs) {
      const known = bench.log.some((e) => e.id === `write-${job.id}`);
      if (!isOver(job) || known || recorded.current.has(job.id)) continue;
      recorded.current.add(job.id);
      const store = storesOf(bench).find((s) => s.serial === job.serial);
      const run = {
        imageId: imageOf(job),
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
    }
  });
}
