import { CLAIMED } from './calibration';
import type { TimedRun } from './timed';

/** How far one run moves the width, in its logarithm. */
export const STEP = 0.03;
/** However it went, ranges are made no narrower and no wider than so many times. */
const BOUND = Math.log(2.5);

/**
 * How much wider ranges are made than the model says: a little more after each that did not hold, a little less after each
 * that did, so that in the long run as many hold as are claimed, whoever the owner is (adaptive conformal inference,
 * Gibbs and Candès 2021). Runs oldest first, each with the range it was foretold then.
 */
export function widthOf(runs: readonly Pick<TimedRun, 'range' | 'seconds'>[]): number {
  let log = 0;
  for (const { range, seconds } of runs) {
    if (!range) continue;
    const held = seconds >= range.low && seconds <= range.high;
    log = Math.max(-BOUND, Math.min(BOUND, log + STEP * (held ? CLAIMED - 1 : CLAIMED)));
  }
  return Math.exp(log);
}
