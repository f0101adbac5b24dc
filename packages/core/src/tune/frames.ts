import type { Panel } from '../model/tune';
import { binomialCdf } from './numbers/distributions';
import {
  blockBootstrap,
  blockLength,
  drawnLength,
  inefficiency,
  type Bounded,
  type Statistic,
} from './numbers/blocks';
import { quantile, quantileAmong, sorted, sumOf } from './numbers/describe';

/** What a run of frames was like. Times in ms, rates in frames per second. */
export interface FrameReport {
  frames: number;
  seconds: number;
  /** Frames over time. */
  rate: Bounded;
  /** Times at the middle and at the slow end: straight between two frames, and as the time of one of them (`among`). */
  times: { p: number; ms: Bounded; among: number }[];
  /** “1 % low” as the rate that 99 % of frames are faster than: 1000 over the 99th percentile of times. */
  lowPercentile: Bounded;
  /** “1 % low” as the mean rate of the slowest hundredth of frames: 1000 over the mean of their times. */
  lowAverage: Bounded;
  /** How much a frame differs from the one before: the middle of all such differences, and the greatest twentieth. */
  pace: { median: number; p95: number };
  stutters: Stutters;
  /** Frames longer than two seconds, which are no frames but loading or a pause; they are counted in. */
  pauses: number;
  /** How long frames hang together, in frames, and how many frames are worth one that is independent. */
  block: number;
  inefficiency: number;
  /** Frames from which the 99th percentile is known to ±2 % of itself; undefined where no run would do. */
  wanted: number | undefined;
}

/** What was seen on the panel instead of an even pace. */
export interface Stutters {
  /** Frames that stayed longer than most do, or on a fixed panel shorter. */
  count: number;
  perMinute: number;
  /** Refreshes that most frames stay for; null where the panel follows the frames. */
  usual: number | null;
}

const flipped = ({ value, low, high }: Bounded): Bounded => ({
  value: 1000 / value,
  low: 1000 / high,
  high: 1000 / low,
});

const TIMES = [0.5, 0.95, 0.99, 0.999];
const PAUSE = 2000;

/**
 * Frames that stay on a fixed panel for more refreshes than most do, or for fewer. A frame is shown at the first refresh after it is done
 * (common practice: waiting for the vertical blank, with nothing queued).
 */
function onFixed(times: ArrayLike<number>, hz: number): { count: number; usual: number } {
  const period = 1000 / hz;
  const stays = new Map<number, number>();
  let now = 0;
  let shown = 0;
  for (let i = 0; i < times.length; i += 1) {
    now += times[i] ?? 0;
    // Sums of frames that are exactly a refresh long end a hair beside it.
    const at = Math.max(shown, Math.ceil(now / period - 1e-6));
    const stay = at - shown;
    shown = at;
    stays.set(stay, (stays.get(stay) ?? 0) + 1);
  }
  const usual = [...stays].reduce((a, b) => (b[1] > a[1] ? b : a), [1, 0])[0];
  let count = 0;
  // A frame that is never shown is not seen to stutter.
  for (const [stay, n] of stays) if (stay > 0 && stay !== Math.max(1, usual)) count += n;
  return { count, usual: Math.max(1, usual) };
}

/** Frames at least half as long again as the middle of the eight before: what is seen where the panel follows the frames. */
function onVariable(times: ArrayLike<number>): number {
  let count = 0;
  const before = new Float64Array(8);
  for (let i = 8; i < times.length; i += 1) {
    for (let k = 0; k < 8; k += 1) before[k] = times[i - 1 - k] ?? 0;
    before.sort();
    if ((times[i] ?? 0) >= 1.5 * ((before[3] ?? 0) + (before[4] ?? 0)) * 0.5) count += 1;
  }
  return count;
}

/** Whether a rate lies where the panel can follow it. */
const follows = (panel: Panel, rate: number): boolean =>
  panel.low !== null && panel.high !== null && rate >= panel.low && rate <= panel.high;

/** Stutters on a panel; null of it is taken as 60 Hz, fixed. */
export function stuttersOf(times: ArrayLike<number>, panel: Panel | null): Stutters {
  const seconds = sumOf(times) / 1000;
  const rate = times.length / seconds;
  const minutes = seconds / 60;
  if (panel && follows(panel, rate)) {
    const count = onVariable(times);
    return { count, perMinute: count / minutes, usual: null };
  }
  const { count, usual } = onFixed(times, panel?.hz ?? 60);
  return { count, perMinute: count / minutes, usual };
}

/**
 * Judges frame times (ms, each above 0). Intervals are for this run alone, by block bootstrap with a seed: frames hang together,
 * and another run of the same machine differs by more. Undefined with fewer than two frames.
 */
export function judgeFrames(
  times: Float64Array,
  panel: Panel | null,
  { seed = 1, draws = 1000 } = {},
): FrameReport | undefined {
  const n = times.length;
  if (n < 2) return undefined;
  const rising = sorted(times);
  const total = sumOf(times);
  const length = blockLength(times);
  const asked: Statistic[] = [
    { kind: 'mean' },
    { kind: 'tail', p: 0.99 },
    ...TIMES.map((p): Statistic => ({ kind: 'quantile', p })),
  ];
  const [middle, slowest, ...quantiles] = blockBootstrap(times, rising, asked, {
    seed,
    draws,
    length: drawnLength(times, length),
  });
  const p99 = quantiles[TIMES.indexOf(0.99)];
  if (!middle || !slowest || !p99) return undefined;
  const steps = new Float64Array(n - 1);
  for (let i = 1; i < n; i += 1) steps[i - 1] = Math.abs((times[i] ?? 0) - (times[i - 1] ?? 0));
  steps.sort();
  const every = inefficiency(times, length);
  let pauses = 0;
  for (let i = n - 1; i >= 0 && (rising[i] ?? 0) > PAUSE; i -= 1) pauses += 1;
  return {
    frames: n,
    seconds: total / 1000,
    rate: flipped(middle),
    times: TIMES.map((p, i) => ({ p, ms: quantiles[i] ?? middle, among: quantileAmong(rising, p) })),
    lowPercentile: flipped(p99),
    lowAverage: flipped(slowest),
    pace: { median: quantile(steps, 0.5), p95: quantile(steps, 0.95) },
    stutters: stuttersOf(times, panel),
    pauses,
    block: length,
    inefficiency: every,
    wanted: framesForWidth(rising, 0.99, 0.02, every),
  };
}

/**
 * The fewest independent frames from which a percentile has an interval at all: with both of its ends among the frames (order
 * statistics; Conover, Practical Nonparametric Statistics, §3.2). 0 < p < 1.
 */
export function framesForInterval(p: number, confidence = 0.95): number {
  const far = Math.max(p, 1 - p);
  // The chance that all frames lie on one side of the percentile must be small.
  return Math.ceil(Math.log((1 - confidence) / 2) / Math.log(far));
}

/**
 * The fewest frames for which the interval of a percentile is within ±`share` of it, going by the frames of a first run: ranks of
 * order statistics from the binomial distribution, read in that run, times its inefficiency. Undefined where even a thousand times
 * as many would not do.
 */
export function framesForWidth(
  rising: ArrayLike<number>,
  p: number,
  share: number,
  every: number,
): number | undefined {
  const at = quantile(rising, p);
  const fits = (n: number): boolean => {
    const [low, high] = ranksOf(n, p);
    if (low < 0 || high >= n) return false;
    return quantile(rising, (high + 0.5) / n) - quantile(rising, (low + 0.5) / n) <= 2 * share * at;
  };
  let high = framesForInterval(p);
  const most = Math.max(high, rising.length) * 1000;
  while (high <= most && !fits(high)) high *= 2;
  if (high > most) return undefined;
  let low = high / 2;
  while (high - low > Math.max(1, high / 200)) {
    const middle = Math.round((low + high) / 2);
    if (fits(middle)) high = middle;
    else low = middle;
  }
  return Math.ceil(high * every);
}

/** The two ranks (from 0) between which a percentile of `n` values lies with 95 %; outside 0 to n − 1 where there are too few. */
export function ranksOf(n: number, p: number, confidence = 0.95): [number, number] {
  const tail = (1 - confidence) / 2;
  const least = (q: number): number => {
    let low = -1;
    let high = n;
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (binomialCdf(middle, n, p) > q) high = middle;
      else low = middle;
    }
    return high;
  };
  return [least(tail) - 1, least(1 - tail) + (binomialCdf(n - 1, n, p) < 1 - tail ? 1 : 0)];
}
