import { incompleteBeta } from '../tune/numbers/special';
import type { Span } from '../units/duration';

/** A run with what was foretold of it before. Seconds. */
export interface Held {
  range: Span;
  seconds: number;
}

/** Share of ranges that are claimed to hold. */
export const CLAIMED = 0.8;

/** How often what was foretold came true. */
export interface Calibration {
  runs: number;
  inside: number;
  /** Took less than the range, took more. */
  under: number;
  over: number;
  /** Share inside; null with no run. */
  share: number | null;
  /** Between what shares the true one lies, nineteen times of twenty; null with no run. */
  between: { low: number; high: number } | null;
  /** The claim lies outside of that: ranges are too narrow, or too wide. */
  off: 'too narrow' | 'too wide' | null;
}

/** Where a rising function of a share reaches a value. */
function shareAt(f: (p: number) => number, value: number): number {
  let low = 0;
  let high = 1;
  for (let i = 0; i < 60; i += 1) {
    const p = (low + high) / 2;
    if (f(p) < value) low = p;
    else high = p;
  }
  return (low + high) / 2;
}

/** The exact interval of a share (Clopper and Pearson 1934): `k` of `n`, nineteen times of twenty. */
export function exactShare(k: number, n: number): { low: number; high: number } {
  const beta = (a: number, b: number) => (p: number) => incompleteBeta(p, a, b);
  return {
    low: k === 0 ? 0 : shareAt(beta(k, n - k + 1), 0.025),
    high: k === n ? 1 : shareAt(beta(k + 1, n - k), 0.975),
  };
}

/** How often runs lay in the range that was foretold of them. */
export function calibrationOf(held: readonly Held[]): Calibration {
  const under = held.filter((h) => h.seconds < h.range.low).length;
  const over = held.filter((h) => h.seconds > h.range.high).length;
  const runs = held.length;
  const inside = runs - under - over;
  if (runs === 0) return { runs, inside, under, over, share: null, between: null, off: null };
  const between = exactShare(inside, runs);
  return {
    runs,
    inside,
    under,
    over,
    share: inside / runs,
    between,
    off: between.high < CLAIMED ? 'too narrow' : between.low > CLAIMED ? 'too wide' : null,
  };
}
