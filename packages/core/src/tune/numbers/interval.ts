import { mean, variance } from './describe';
import { tCdf, tQuantile } from './distributions';
import { leastSquares } from './leastSquares';

/** A difference, after less before, with its spread. */
export interface Estimate {
  change: number;
  /** Standard error; 0 where nothing varies. */
  error: number;
  dof: number;
}

/** The interval of an estimate that holds the truth so often (Student, 1908). */
export function intervalOf(e: Estimate, confidence = 0.95): { low: number; high: number } {
  if (e.error === 0) return { low: e.change, high: e.change };
  const reach = tQuantile(0.5 + confidence / 2, e.dof) * e.error;
  return { low: e.change - reach, high: e.change + reach };
}

/** Two-sided p of “no change”; 1 or 0 where nothing varies. */
export function pOf(e: Estimate): number {
  if (e.error === 0) return e.change === 0 ? 1 : 0;
  return 2 * (1 - tCdf(Math.abs(e.change) / e.error, e.dof));
}

/** Difference of means where the two sides may vary differently (Welch, 1947); undefined with fewer than two on a side. */
export function welch(before: readonly number[], after: readonly number[]): Estimate | undefined {
  if (before.length < 2 || after.length < 2) return undefined;
  const a = variance(before) / before.length;
  const b = variance(after) / after.length;
  const dof = (a + b) ** 2 / (a ** 2 / (before.length - 1) + b ** 2 / (after.length - 1));
  return { change: mean(after) - mean(before), error: Math.sqrt(a + b), dof: a + b === 0 ? 1 : dof };
}

/** A value with its place in the order of the evening. */
export interface Placed {
  value: number;
  at: number;
}

/**
 * Difference of means with a straight drift over the evening taken out: least squares with the place as a further column, both
 * sides varying alike. Undefined where places and sides cannot be told apart.
 */
export function driftFree(before: readonly Placed[], after: readonly Placed[]): Estimate | undefined {
  const all = [...before.map((r) => ({ ...r, side: 0 })), ...after.map((r) => ({ ...r, side: 1 }))];
  const middle = mean(all.map((r) => r.at));
  const fitted = leastSquares(
    all.map((r) => [1, r.side, r.at - middle]),
    all.map((r) => r.value),
  );
  if (!fitted || fitted.dof < 1) return undefined;
  const spread = fitted.squares / fitted.dof;
  return {
    change: fitted.coefficients[1] ?? 0,
    error: Math.sqrt(spread * (fitted.unscaled[1]?.[1] ?? 0)),
    dof: fitted.dof,
  };
}

/** What is left of values once a straight line over their places is taken out, about 0 (Freedman and Lane, 1983: the model without the change). */
export function withoutDrift(runs: readonly Placed[]): number[] {
  const [at, value] = [mean(runs.map((r) => r.at)), mean(runs.map((r) => r.value))];
  let [along, squares] = [0, 0];
  for (const r of runs) {
    along += (r.at - at) * (r.value - value);
    squares += (r.at - at) ** 2;
  }
  const slope = squares > 0 ? along / squares : 0;
  return runs.map((r) => r.value - value - slope * (r.at - at));
}
