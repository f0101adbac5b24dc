import { calibrationOf, type Calibration } from '../learning/calibration';
import type { Bench } from '../model/bench';
import type { Span } from '../units/duration';
import { credibleSteps, type TimedStep } from './timed';

/** What was foretold of steps beside what they took. */
export interface MeasuredSteps {
  /** The latest, newest first, and how many there are in all. */
  latest: TimedStep[];
  calibration: Calibration;
  /** The shortest and longest of the latest, foretold or measured; seconds. */
  within: Span;
}

/** So many of the latest are shown. */
const SHOWN = 14;

/** Steps with a clock beside what was foretold of them. */
export function measuredSteps(bench: Bench): MeasuredSteps {
  const all = credibleSteps(bench);
  const latest = all.slice(-SHOWN).reverse();
  return {
    latest,
    calibration: calibrationOf(all),
    within: {
      low: Math.min(...latest.flatMap((s) => [s.range.low, s.seconds])),
      high: Math.max(...latest.flatMap((s) => [s.range.high, s.seconds])),
    },
  };
}
