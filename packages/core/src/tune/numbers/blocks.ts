import { randomFrom } from '../../units/random';
import { mean, quantile } from './describe';

/** Covariances of a series with itself so many places on (divisor n), each worked out when it is asked for. */
function autocovariances(values: ArrayLike<number>): (lag: number) => number {
  const n = values.length;
  const m = mean(values);
  const d = new Float64Array(n);
  for (let i = 0; i < n; i += 1) d[i] = (values[i] ?? 0) - m;
  const known = new Map<number, number>();
  return (lag) => {
    const there = known.get(lag);
    if (there !== undefined) return there;
    let sum = 0;
    for (let i = lag; i < n; i += 1) sum += (d[i] ?? 0) * (d[i - lag] ?? 0);
    known.set(lag, sum / n);
    return sum / n;
  };
}

/** Of a longer series so many values of its middle tell how long blocks must be. */
const TELLING = 65_536;

/**
 * How long a block must be so that what hangs together stays together: the automatic choice of Politis and White (2004) for the
 * circular block bootstrap, as corrected by Patton, Politis and White (2009). At least 1; at most a third of the series, and 3 √n.
 */
export function blockLength(values: ArrayLike<number>): number {
  const all = values.length;
  if (all < 8) return 1;
  const from = Math.max(0, (all - TELLING) >> 1);
  const told: ArrayLike<number> =
    all > TELLING ? Float64Array.from({ length: TELLING }, (_, i) => values[from + i] ?? 0) : values;
  const n = told.length;
  const kn = Math.max(5, Math.ceil(Math.sqrt(Math.log10(n))));
  const most = Math.ceil(Math.sqrt(n)) + kn;
  const cov = autocovariances(told);
  const c0 = cov(0);
  if (!(c0 > 0)) return 1;
  const bound = 2 * Math.sqrt(Math.log10(n) / n);
  // The first place after which kn lags in a row mean nothing.
  let m = 0;
  let still = 0;
  for (let lag = 1; lag <= most && still < kn; lag += 1) {
    if (Math.abs(cov(lag) / c0) < bound) still += 1;
    else {
      still = 0;
      m = lag;
    }
  }
  if (still < kn) m = most - kn;
  const reach = Math.min(2 * Math.max(1, m), most);
  let g = 0;
  let spectrum = 0;
  for (let lag = -reach; lag <= reach; lag += 1) {
    const t = Math.abs(lag) / reach;
    // The flat-top window of Politis and Romano (1995).
    const weight = t <= 0.5 ? 1 : 2 * (1 - t);
    const c = cov(Math.abs(lag));
    g += weight * Math.abs(lag) * c;
    spectrum += weight * c;
  }
  if (!(spectrum > 0)) return 1;
  const length = Math.cbrt(((2 * g * g) / ((4 / 3) * spectrum * spectrum)) * all);
  return Math.max(1, Math.min(Math.ceil(length), Math.floor(all / 3), Math.ceil(3 * Math.sqrt(all))));
}

/** What is asked of a series: its mean, a quantile, or the mean of all beyond a quantile. */
export type Statistic = { kind: 'mean' } | { kind: 'quantile'; p: number } | { kind: 'tail'; p: number };

/** Mean of the greatest (1 − p) of sorted values; where that is no whole number of them, the last counts in part. */
export function tailMean(rising: ArrayLike<number>, p: number): number {
  const n = rising.length;
  const count = Math.max(1, n * (1 - p));
  let sum = 0;
  let left = count;
  for (let i = n - 1; i >= 0 && left > 1e-9; i -= 1) {
    const part = Math.min(1, left);
    sum += part * (rising[i] ?? 0);
    left -= part;
  }
  return sum / count;
}

const valueOf = (rising: ArrayLike<number>, s: Statistic): number =>
  s.kind === 'mean' ? mean(rising) : s.kind === 'quantile' ? quantile(rising, s.p) : tailMean(rising, s.p);

/**
 * What a single value adds to the statistic (its influence function, Hampel, 1974), up to the slope of the distribution, which
 * for a quantile is taken from the sorted values afterwards.
 */
function influences(values: ArrayLike<number>, rising: Float64Array, s: Statistic): Float64Array {
  const out = new Float64Array(values.length);
  const q = s.kind === 'mean' ? 0 : quantile(rising, s.p);
  const wide = s.kind === 'tail' ? 1 / (1 - s.p) : 1;
  for (let i = 0; i < out.length; i += 1) {
    const v = values[i] ?? 0;
    out[i] = s.kind === 'mean' ? v : s.kind === 'quantile' ? (v <= q ? 1 : 0) : q + Math.max(0, v - q) * wide;
  }
  return out;
}

/** A figure of a series with the interval that holds the truth so often. */
export interface Bounded {
  value: number;
  low: number;
  high: number;
}

/**
 * Intervals by the circular block bootstrap (Politis and Romano, 1992), for several figures of one series at once: blocks are
 * drawn with a seed, and each figure is worked out by what every value adds to it, so that a draw costs as many steps as it has
 * blocks. A quantile's interval is that of the share at or below it, read back from the sorted values (Woodruff, 1952).
 * `rising`: the same values sorted.
 */
export function blockBootstrap(
  values: ArrayLike<number>,
  rising: Float64Array,
  statistics: readonly Statistic[],
  { seed = 1, draws = 1000, length = drawnLength(values), confidence = 0.95 } = {},
): Bounded[] {
  const n = values.length;
  const blocks = Math.ceil(n / length);
  const random = randomFrom(seed);
  const starts = new Int32Array(draws * blocks);
  for (let i = 0; i < starts.length; i += 1) starts[i] = Math.floor(random() * n);
  const last = n - (blocks - 1) * length;
  const tail = (1 - confidence) / 2;
  return statistics.map((s) => {
    const value = valueOf(rising, s);
    if (n < 2) return { value, low: value, high: value };
    const h = influences(values, rising, s);
    const sums = new Float64Array(2 * n + 1);
    for (let i = 0; i < 2 * n; i += 1) sums[i + 1] = (sums[i] ?? 0) + (h[i % n] ?? 0);
    const drawn = new Float64Array(draws);
    for (let d = 0; d < draws; d += 1) {
      let sum = 0;
      for (let b = 0; b < blocks; b += 1) {
        const from = starts[d * blocks + b] ?? 0;
        sum += (sums[from + (b === blocks - 1 ? last : length)] ?? 0) - (sums[from] ?? 0);
      }
      drawn[d] = sum / n;
    }
    drawn.sort();
    const [low, high] = [quantile(drawn, tail), quantile(drawn, 1 - tail)];
    return s.kind === 'quantile'
      ? { value, low: quantile(rising, low), high: quantile(rising, high) }
      : { value, low, high };
  });
}

/** Blocks as long as they must be, and of a long series so long that no more than a thousand make it up: longer ones do no harm. */
export const drawnLength = (values: ArrayLike<number>, needed = blockLength(values)): number =>
  Math.max(needed, Math.ceil(values.length / 1000));

/** How many times more values are wanted than if they were independent: the variance of block means against that of values. */
export function inefficiency(values: ArrayLike<number>, length = blockLength(values)): number {
  const n = values.length;
  const blocks = Math.floor(n / length);
  if (length <= 1 || blocks < 2) return 1;
  const m = mean(values);
  let all = 0;
  let between = 0;
  for (let b = 0; b < blocks; b += 1) {
    let sum = 0;
    for (let i = b * length; i < (b + 1) * length; i += 1) {
      const d = (values[i] ?? 0) - m;
      sum += d;
      all += d * d;
    }
    between += sum * sum;
  }
  return all === 0 ? 1 : Math.max(1, between / all);
}
