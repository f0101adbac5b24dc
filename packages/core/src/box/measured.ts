import type { Bench } from '../model/bench';
import { formatDay } from '../units/date';
import type { Span } from '../units/duration';

/** A measured time beside what was foretold for it, in seconds. */
export interface MeasuredRun {
  label: string;
  /** Seconds. */
  predicted: Span;
  seconds: number;
  within: boolean;
}

/** So many of the latest runs are drawn: more would not be told apart. */
const DRAWN = 24;

/** Writes with a prediction beside the measurement, oldest first, and what they amount to. */
export function measuredWrites(bench: Bench): { runs: MeasuredRun[]; headline: string } {
  const runs = bench.log
    .filter((e) => e.kind === 'write')
    .sort((a, b) => (a.at < b.at ? -1 : 1))
    .flatMap((e): MeasuredRun[] =>
      e.predicted && e.result === 'proven'
        ? [
            {
              label: `…${e.serial.slice(-4)}, ${formatDay(e.at)}`,
              predicted: e.predicted,
              seconds: e.seconds,
              within: e.seconds >= e.predicted.low && e.seconds <= e.predicted.high,
            },
          ]
        : [],
    );
  const within = runs.filter((r) => r.within).length;
  const headline =
    runs.length === 0
      ? bench.log.length === 0
        ? 'What happened? Nothing is on record yet'
        : 'What happened, and when'
      : `${within} of ${runs.length} writes took what was foretold`;
  return { runs: runs.slice(-DRAWN), headline };
}
