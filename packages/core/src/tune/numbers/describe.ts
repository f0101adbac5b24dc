/** Sum that does not lose small values among large ones (Neumaier, 1974). */
export function sumOf(values: ArrayLike<number>): number {
  let sum = 0;
  let lost = 0;
  for (let i = 0; i < values.length; i += 1) {
    const v = values[i] ?? 0;
    const t = sum + v;
    lost += Math.abs(sum) >= Math.abs(v) ? sum - t + v : v - t + sum;
    sum = t;
  }
  return sum + lost;
}

/** Arithmetic mean; NaN of nothing. */
export const mean = (values: ArrayLike<number>): number => sumOf(values) / values.length;

/** Sample variance (divisor n − 1); NaN of fewer than two. */
export function variance(values: ArrayLike<number>): number {
  const m = mean(values);
  let sum = 0;
  for (let i = 0; i < values.length; i += 1) sum += ((values[i] ?? 0) - m) ** 2;
  return sum / (values.length - 1);
}

/** Sample standard deviation; NaN of fewer than two. */
export const deviation = (values: ArrayLike<number>): number => Math.sqrt(variance(values));

/** A sorted copy. */
export function sorted(values: ArrayLike<number>): Float64Array {
  return Float64Array.from(values).sort();
}

/**
 * Quantile of sorted values, 0 ≤ p ≤ 1, by the definition most programs use: straight between the two nearest (Hyndman and
 * Fan, 1996, type 7; NumPy calls it “linear”).
 */
export function quantile(rising: ArrayLike<number>, p: number): number {
  const n = rising.length;
  if (n === 0) return NaN;
  const at = (n - 1) * p;
  const i = Math.min(n - 1, Math.floor(at));
  const low = rising[i] ?? NaN;
  const high = rising[Math.min(n - 1, i + 1)] ?? NaN;
  return low + (high - low) * (at - i);
}

/**
 * Quantile of sorted values as one of them: the least with at least p of all at or below it (Hyndman and Fan, type 1; NumPy
 * calls it “inverted_cdf”).
 */
export function quantileAmong(rising: ArrayLike<number>, p: number): number {
  const n = rising.length;
  if (n === 0) return NaN;
  // A product that should be whole may come out a hair above it.
  const rank = Math.ceil(n * p - 1e-9);
  return rising[Math.min(n - 1, Math.max(0, rank - 1))] ?? NaN;
}

/** Median; NaN of nothing. */
export const median = (values: ArrayLike<number>): number => quantile(sorted(values), 0.5);
