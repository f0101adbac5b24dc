import { normalFrom } from '../tune/numbers/dice';
import { randomFrom } from '../units/random';
import { chanceOf, type Chance } from './chance';
import type { Problem } from './problem';
import { solve, type Solved } from './solve';

/** So many evenings are drawn: a share of them is told to one in a hundred. */
const EVENINGS = 4000;

/** An evening planned: the order that gets most done, and how it comes out over many evenings. */
export interface Planned {
  plan: Solved;
  chance: Chance;
}

/** Plans an evening; `seed` is that of the evenings drawn. `progress` hears the share that is done, from 0 to 1. */
export function planned(problem: Problem, seed = 1, progress: (share: number) => void = () => {}): Planned {
  const plan = solve(problem, { progress: (share) => progress(0.9 * share) });
  return { plan, chance: chanceOf(problem, plan.order, EVENINGS, normalFrom(randomFrom(seed))) };
}
