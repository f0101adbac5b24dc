import type { RehearsalPlan } from '@zb/core/model/rehearsal';
import type { Aim } from '@zb/core/rehearsal/ending';
import { rehearse, setsFor, type Rehearsal } from '@zb/core/rehearsal/rehearse';
import type { SafeSets } from '@zb/core/rehearsal/sets';
import { RehearsalError, type RehearsalFault, type Watch } from '@zb/core/rehearsal/tally';
import type { Told } from './elsewhere';

/** What is asked of the thread. */
export type RehearseJob =
  | { kind: 'rehearse'; plan: RehearsalPlan; ids: readonly string[] }
  | { kind: 'sets'; plan: RehearsalPlan; aim: Aim };

type RehearseTold = Told<Rehearsal | SafeSets, RehearsalFault>;

/** So often it tells how far it is. */
const EVERY_MS = 100;

const tell = (told: RehearseTold): void => self.postMessage(told);

self.onmessage = ({ data }: MessageEvent<RehearseJob>): void => {
  let before = performance.now();
  const watch: Watch = {
    progress: (share) => {
      const now = performance.now();
      if (now - before < EVERY_MS) return;
      before = now;
      tell({ share });
    },
  };
  try {
    tell({
      found:
        data.kind === 'rehearse' ? rehearse(data.plan, data.ids, watch) : setsFor(data.plan, data.aim, watch),
    });
  } catch (error) {
    if (error instanceof RehearsalError) tell({ fault: error.fault });
    else tell({ failed: error instanceof Error ? error.message : String(error) });
  }
};
