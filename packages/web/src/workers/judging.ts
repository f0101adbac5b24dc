import { useMemo } from 'react';
import type { BoxGate } from '@zb/core/rules/forBox';
import { useElsewhere, type Elsewhere } from './elsewhere';
import type { Beside } from '@zb/core/rules/beside';
import type { BesideFault, BesideJob } from './besideWorker';
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

const besideThread = (): Worker =>
  new Worker(new URL('./besideWorker.ts', import.meta.url), { type: 'module' });

/** What a gate printed, held beside the plan off the page’s thread; nothing where the text is null. */
export function useBeside(
  { plan, networks, hosts }: BoxGate,
  text: string | null,
): Elsewhere<Beside, BesideFault> {
  const job = useMemo<BesideJob | null>(
    () => (text === null ? null : { plan, networks: [...networks], hosts: [...hosts], text }),
    [plan, networks, hosts, text],
  );
  return useElsewhere(besideThread, 'stopped', job);
}
