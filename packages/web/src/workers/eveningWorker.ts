import { chanceOf, type Chance } from '@zb/core/schedule/chance';
import type { Problem } from '@zb/core/schedule/problem';
import { solve, type Solved } from '@zb/core/schedule/solve';
import { normalFrom } from '@zb/core/tune/numbers/dice';
import { randomFrom } from '@zb/core/units/random';
import type { Told } from './elsewhere';
import { paced } from './paced';

/** An evening to be planned. */
export interface EveningJob {
  problem: Problem;
}
/** The plan, and how it comes out over many evenings. */
export interface EveningFound {
  plan: Solved;
  chance: Chance;
}

/** So many evenings are drawn: a share of them is told to one in a hundred. */
const EVENINGS = 4000;

const tell = (told: Told<EveningFound, 'stopped'>): void => postMessage(told);
onmessage = ({ data }: MessageEvent<EveningJob>) => {
  try {
    const plan = solve(data.problem, { progress: paced((share) => tell({ share: 0.9 * share })) });
    const chance = chanceOf(data.problem, plan.order, EVENINGS, normalFrom(randomFrom(1)));
    tell({ found: { plan, chance } });
  } catch (error) {
    tell({ failed: error instanceof Error ? error.message : String(error) });
  }
};
