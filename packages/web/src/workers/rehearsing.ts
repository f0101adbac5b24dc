import { useMemo } from 'react';
import type { RehearsalPlan } from '@zb/core/model/rehearsal';
import type { Aim } from '@zb/core/rehearsal/ending';
import type { Rehearsal } from '@zb/core/rehearsal/rehearse';
import type { SafeSets } from '@zb/core/rehearsal/sets';
import type { RehearsalFault } from '@zb/core/rehearsal/tally';
import { useElsewhere, type Elsewhere } from './elsewhere';
import type { RehearseJob } from './rehearseWorker';

const thread = (): Worker => new Worker(new URL('./rehearseWorker.ts', import.meta.url), { type: 'module' });
const STOPPED: RehearsalFault = { code: 'stopped' };

/** A plan rehearsed under some precautions, off the page’s thread. */
export function useRehearsal(
  plan: RehearsalPlan | null,
  ids: readonly string[],
): Elsewhere<Rehearsal, RehearsalFault> {
  const job = useMemo<RehearseJob | null>(() => plan && { kind: 'rehearse', plan, ids }, [plan, ids]);
  return useElsewhere(thread, STOPPED, job);
}

/** The smallest sets of precautions for a plan, off the page’s thread. */
export function useSafeSets(plan: RehearsalPlan | null, aim: Aim): Elsewhere<SafeSets, RehearsalFault> {
  const job = useMemo<RehearseJob | null>(() => plan && { kind: 'sets', plan, aim }, [plan, aim]);
  return useElsewhere(thread, STOPPED, job);
}
