import { useMemo } from 'react';
import type { Planned } from '@zb/core/schedule/plan';
import type { Problem } from '@zb/core/schedule/problem';
import { useElsewhere, type Elsewhere } from './elsewhere';
import type { EveningJob } from './eveningWorker';

const thread = (): Worker => new Worker(new URL('./eveningWorker.ts', import.meta.url), { type: 'module' });

/** An evening planned off the page’s thread. */
export function useEvening(problem: Problem | null): Elsewhere<Planned, 'stopped'> {
  const job = useMemo<EveningJob | null>(() => problem && { problem }, [problem]);
  return useElsewhere<Planned, 'stopped'>(thread, 'stopped', job);
}
