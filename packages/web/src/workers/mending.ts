import { useMemo } from 'react';
import type { Pot } from '@zb/core/guests/pot';
import { setFits } from '@zb/core/guests/repair';
import type { WaysToFit } from '@zb/core/guests/trim';
import type { GuestPlan } from '@zb/core/model/guests';
import { useElsewhere, type Elsewhere } from './elsewhere';
import type { GuestJob } from './guestWorker';

const thread = (): Worker => new Worker(new URL('./guestWorker.ts', import.meta.url), { type: 'module' });

/** The ways to make a set of guests fit, off the page’s thread; nothing where it fits. */
export function useMended(plan: GuestPlan, pot: Pot): Elsewhere<WaysToFit, 'stopped'> {
  const job = useMemo<GuestJob | null>(() => (setFits(plan, pot) ? null : { plan, pot }), [plan, pot]);
  return useElsewhere(thread, 'stopped', job);
}
