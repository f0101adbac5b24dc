import { useMemo } from 'react';
import type { Host, Network } from '@zb/core/model/network';
import type { Cut } from '@zb/core/network/cut';
import type { CutJob } from './cutWorker';
import { useElsewhere, type Elsewhere } from './elsewhere';

const thread = (): Worker => new Worker(new URL('./cutWorker.ts', import.meta.url), { type: 'module' });
/** A cut of some minutes: shorter than any usual lease. */
const OUTAGE_SECONDS = 600;

/** The power of a network cut, off the page’s thread; nothing where there is no network. */
export function useCut(
  network: Network | undefined,
  hosts: readonly Host[],
  outageSeconds = OUTAGE_SECONDS,
): Elsewhere<Cut, 'stopped'> {
  const job = useMemo<CutJob | null>(
    () =>
      network ? { network, hosts: hosts.filter((h) => h.networkId === network.id), outageSeconds } : null,
    [network, hosts, outageSeconds],
  );
  return useElsewhere(thread, 'stopped', job);
}
