/** Where a series takes another level. */
export interface Step {
  /** The first place of the second level. */
  at: number;
  before: number;
  after: number;
  /** Share of the squares about one level that two levels explain. */
  explained: number;
}

/**
 * The place at which two levels describe a series best (least squares over all places, as in Page, 1955, for one change), with at
 * least `least` values on either side. Undefined where there are too few.
 */
export function oneStep(values: ArrayLike<number>, least = 3): Step | undefined {
  const n = values.length;
  if (n < 2 * least) return undefined;
  const sums = new Float64Array(n + 1);
  let squares = 0;
  const first = values[0] ?? 0;
  for (let i = 0; i < n; i += 1) {
    const v = (values[i] ?? 0) - first;
    sums[i + 1] = (sums[i] ?? 0) + v;
    squares += v * v;
  }
  const whole = sums[n] ?? 0;
  const about = squares - (whole * whole) / n;
  let best = -1;
  let gain = -Infinity;
  for (let i = least; i <= n - least; i += 1) {
    const left = sums[i] ?? 0;
    const right = whole - left;
    const g = (left * left) / i + (right * right) / (n - i);
    if (g > gain) {
      gain = g;
      best = i;
    }
  }
  const left = sums[best] ?? 0;
  return {
    at: best,
    before: first + left / best,
    after: first + (whole - left) / (n - best),
    explained: about > 0 ? (gain - (whole * whole) / n) / about : 0,
  };
}
