import { gammaTail, incompleteBeta, logGamma } from './special';

/** Distribution function of the standard normal distribution. */
export function normalCdf(x: number): number {
  const tail = 0.5 * gammaTail(0.5, (x * x) / 2);
  return x > 0 ? 1 - tail : tail;
}

/** Where a rising function is 0, by halving; `low` and `high` enclose it. */
function root(f: (x: number) => number, low: number, high: number): number {
  let a = low;
  let b = high;
  for (let i = 0; i < 200; i += 1) {
    const middle = (a + b) / 2;
    if (middle === a || middle === b) break;
    if (f(middle) < 0) a = middle;
    else b = middle;
  }
  return (a + b) / 2;
}

/** Quantile of the standard normal distribution, 0 < p < 1. */
export const normalQuantile = (p: number): number =>
  p > 0.5 ? -normalQuantile(1 - p) : root((x) => normalCdf(x) - p, -40, 0);

/** Distribution function of Student's t with `dof` degrees of freedom (need not be whole). */
export function tCdf(x: number, dof: number): number {
  const tail = 0.5 * incompleteBeta(dof / (dof + x * x), dof / 2, 0.5);
  return x > 0 ? 1 - tail : tail;
}

/** Quantile of Student's t; ±∞ at the ends, NaN beyond them. */
export function tQuantile(p: number, dof: number): number {
  if (!(p > 0 && p < 1)) return p === 0 ? -Infinity : p === 1 ? Infinity : NaN;
  if (p === 0.5) return 0;
  if (p > 0.5) return -tQuantile(1 - p, dof);
  let low = -1;
  while (tCdf(low, dof) > p) low *= 2;
  return root((x) => tCdf(x, dof) - p, low, 0);
}

/** Chance of at most `k` of `n` where each has the chance `p`. */
export function binomialCdf(k: number, n: number, p: number): number {
  if (k < 0) return 0;
  if (k >= n) return 1;
  return incompleteBeta(1 - p, n - k, k + 1);
}

/**
 * Chance that Student's t with a shift `delta` (noncentral) lies beyond ±`bound`: the power of a two-sided t test. The chi
 * distribution of the spread is integrated by Simpson's rule.
 */
export function tPower(bound: number, dof: number, delta: number): number {
  const upper = 1 + 9 / Math.sqrt(dof);
  const steps = dof < 3 ? 800 : 200;
  const h = upper / steps;
  const log = Math.log(2) + (dof / 2) * Math.log(dof / 2) - logGamma(dof / 2);
  let sum = 0;
  for (let i = 1; i <= steps; i += 1) {
    const s = i * h;
    const density = Math.exp(log + (dof - 1) * Math.log(s) - (dof * s * s) / 2);
    const beyond = normalCdf(delta - bound * s) + normalCdf(-delta - bound * s);
    sum += density * beyond * (i === steps ? 1 : i % 2 === 1 ? 4 : 2);
  }
  // With one degree of freedom the density begins above 0.
  if (dof === 1) sum += Math.exp(log) * (normalCdf(delta) + normalCdf(-delta));
  return Math.min(1, (sum * h) / 3);
}
