import type { Panel, Trace } from '../model/tune';
import { seriesUnits, type LogFact, type LogFault, type LogKind, type TuneLog } from './logs/log';
import { quantile, sorted } from './numbers/describe';
import { readRun, traceOf, type RunReading } from './runValues';

/** One series of a log in a line: what it is, between which values, and its thinned course. */
export interface SeriesLine {
  part: string;
  unit: string;
  readings: number;
  missing: number;
  least: number;
  middle: number;
  most: number;
  trace: Trace;
}

/** A log as a screen shows it. */
export interface LogView {
  kind: LogKind;
  lines: number;
  faults: LogFault[];
  facts: LogFact[];
  series: SeriesLine[];
  /** How often frames took how long: shares over equal steps of ms, from 0; the last takes all beyond. Null without frames. */
  spread: { step: number; shares: number[] } | null;
  reading: RunReading;
}

const STEPS = 40;

/** How frame times spread: in equal steps up to a little beyond the slowest hundredth. */
function spreadOf(frames: Float64Array | null): LogView['spread'] {
  if (!frames || frames.length < 2) return null;
  const rising = sorted(frames);
  const step = (quantile(rising, 0.995) * 1.1) / STEPS;
  const shares = new Array<number>(STEPS).fill(0);
  for (const f of frames) {
    const at = Math.min(STEPS - 1, Math.floor(f / step));
    shares[at] = (shares[at] ?? 0) + 1 / frames.length;
  }
  return { step, shares };
}

/** Sets a log out for a screen, with what it says of a run. */
export function logView(log: TuneLog, ask: { measureSeconds: number | null; panel: Panel | null }): LogView {
  return {
    kind: log.kind,
    lines: log.lines,
    faults: log.faults,
    facts: log.facts,
    series: log.series.map((s) => {
      const good = sorted(s.v.filter((v) => Number.isFinite(v)));
      return {
        part: s.part,
        unit: seriesUnits[s.kind],
        readings: good.length,
        missing: s.v.length - good.length,
        least: good[0] ?? NaN,
        middle: quantile(good, 0.5),
        most: good[good.length - 1] ?? NaN,
        trace: traceOf(s.part, seriesUnits[s.kind], s.t, s.v),
      };
    }),
    spread: spreadOf(log.frames),
    reading: readRun(log, ask),
  };
}
