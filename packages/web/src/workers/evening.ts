import { useMemo } from 'react';
import type { Problem } from '@zb/core/schedule/problem';
import { useElsewhere, type Elsewhere } from './elsewhere';
import type { EveningFound, EveningJob } from './eveningWorker';

const thread = (): Worker => new Worker(new URL('./eveningWorker.ts', import.meta.url), { type: 'module' });

/** An evening planned off the page’s thread. */
export function useEvening(problem: Problem | null): Elsewhere<EveningFound, 'stopped'> {
  const job = useMemo<EveningJob | null>(() => problem && { problem }, [problem]);
  return useElsewhere<EveningFound, 'stopped'>(thread, 'stopped', job);
}
