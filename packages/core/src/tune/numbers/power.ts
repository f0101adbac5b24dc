import { tPower, tQuantile } from './distributions';
import { choose } from './permutation';

/**
 * Chance that so many runs on each side show a difference of `effect`, where runs vary by `spread` (one standard deviation), at
 * level `alpha`, two-sided, with so many comparisons looked at together: power of the t test (noncentral t) with the level shared
 * out among them, which is a little less than the joint test has. None at all where so few runs of two states cannot be sure
 * whatever they show.
 */
export function powerOf(
  runs: number,
  effect: number,
  spread: number,
  alpha = 0.05,
  comparisons = 1,
  states = 2,
): number {
  if (runs < 2 || (states === 2 && 2 / choose(2 * runs, runs) > alpha)) return 0;
  if (spread === 0) return 1;
  const dof = 2 * runs - 2;
  return tPower(tQuantile(1 - alpha / comparisons / 2, dof), dof, effect / (spread * Math.sqrt(2 / runs)));
}

/** Runs beyond which nobody goes. */
const MOST = 60;

/** The fewest runs on each side whose chance is at least `power`; undefined where 60 are not enough. */
export function runsFor(
  effect: number,
  spread: number,
  alpha = 0.05,
  comparisons = 1,
  states = 2,
  power = 0.8,
): number | undefined {
  const enough = (n: number): boolean => powerOf(n, effect, spread, alpha, comparisons, states) >= power;
  if (!enough(MOST)) return undefined;
  let low = 1;
  let high = MOST;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (enough(middle)) high = middle;
    else low = middle;
  }
  return high;
}
