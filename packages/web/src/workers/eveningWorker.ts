import { planned, type Planned } from '@zb/core/schedule/plan';
import type { Problem } from '@zb/core/schedule/problem';
import type { Told } from './elsewhere';
import { paced } from './paced';

/** An evening to be planned. */
export interface EveningJob {
  problem: Problem;
}

const tell = (told: Told<Planned, 'stopped'>): void => postMessage(told);
onmessage = ({ data }: MessageEvent<EveningJob>) => {
  try {
    tell({
      found: planned(
        data.problem,
        1,
        paced((share) => tell({ share })),
      ),
    });
  } catch (error) {
    tell({ failed: error instanceof Error ? error.message : String(error) });
  }
};
