import { useMemo } from 'react';
import type { BoxGate } from '@zb/core/rules/forBox';
import { useElsewhere, type Elsewhere } from './elsewhere';
import type { GateJob, GateJudged } from './gateWorker';

const thread = (): Worker => new Worker(new URL('./gateWorker.ts', import.meta.url), { type: 'module' });

/** Rules of a gate judged over every packet, off the page’s thread; nothing where no zone is laid out. */
export function useGateJudged({ plan, networks, hosts }: BoxGate): Elsewhere<GateJudged, 'stopped'> {
  const job = useMemo<GateJob | null>(
    () => (plan.zones.length > 0 ? { plan, networks: [...networks], hosts: [...hosts] } : null),
    [plan, networks, hosts],
  );
  return useElsewhere(thread, 'stopped', job);
}
