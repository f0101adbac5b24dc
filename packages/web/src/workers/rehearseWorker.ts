import type { RehearsalPlan } from '@zb/core/model/rehearsal';
import type { Aim } from '@zb/core/rehearsal/ending';
import { rehearse, setsFor, type Rehearsal } from '@zb/core/rehearsal/rehearse';
import type { SafeSets } from '@zb/core/rehearsal/sets';
import { RehearsalError, type RehearsalFault, type Watch } from '@zb/core/rehearsal/tally';
import type { Told } from './elsewhere';
import { paced } from './paced';

/** What is asked of the thread. */
export type RehearseJob =
  | { kind: 'rehearse'; plan: RehearsalPlan; ids: readonly string[] }
  | { kind: 'sets'; plan: RehearsalPlan; aim: Aim };

type RehearseTold = Told<Rehearsal | SafeSets, RehearsalFault>;

const tell = (told: RehearseTold): void => self.postMessage(told);

self.onmessage = ({ data }: MessageEvent<RehearseJob>): void => {
  const watch: Watch = { progress: paced((share) => tell({ share })) };
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
