import { cholesky } from '../tune/numbers/cholesky';
import { eightOfTen, LEAST_SHARE, valueAt } from '../tune/numbers/logNormal';
import type { Span } from '../units/duration';
import { place, type Lengths, type Problem } from './problem';

/** A time of a span by a normal number: log-normal, a tenth of evenings below its low end and a tenth above its high. Seconds. */
export function drawn({ low, high }: Span, z: number): number {
  if (high <= 0) return 0;
  return valueAt(eightOfTen(Math.max(low, high * LEAST_SHARE), high), z);
}

/** Evenings drawn one after the other. `normal` draws standard normal numbers. */
function eveningsOf({ tasks, correlations }: Problem, normal: () => number): () => Lengths {
  const l = correlations && cholesky(correlations);
  return () => {
    const by = tasks.map(normal);
    // A step as a whole is quick or slow: its time by hand and its time alone are parts of what is foretold of it together.
    const z = l ? Array.from(l, (row) => row.reduce((sum, x, j) => sum + x * (by[j] ?? 0), 0)) : by;
    return {
      hands: tasks.map((t, i) => drawn(t.hands, z[i] ?? 0)),
      alone: tasks.map((t, i) => drawn(t.alone, z[i] ?? 0)),
    };
  };
}

/** How an order of hands comes out over many evenings. */
export interface Chance {
  /** Share of evenings in which everything is done by the end; null where there is none. */
  done: number | null;
  /** The end of all in the middle of them, and in all but a tenth to either side. Seconds. */
  middle: number;
  span: Span;
  /** By box: share of evenings in which it is done by the end. */
  boxes: (number | null)[];
}

/**
 * The chance to be done by the end, with hands kept in their order and every task as long as it happens to be. Tasks of one
 * evening go together as the problem says: who is slow at one is slow at all (normal copula, Nelsen, An Introduction to
 * Copulas, 2006, §2.3).
 */
export function chanceOf(
  problem: Problem,
  order: readonly number[],
  evenings: number,
  normal: () => number,
): Chance {
  const ends: number[] = [];
  const inTime = problem.boxes.map(() => 0);
  const { until } = problem;
  const evening = eveningsOf(problem, normal);
  for (let n = 0; n < evenings; n += 1) {
    const plan = place(problem, order, evening());
    ends.push(plan.end);
    plan.done.forEach((d, b) => {
      if (until !== null && d <= until) inTime[b] = (inTime[b] ?? 0) + 1;
    });
  }
  ends.sort((a, b) => a - b);
  const at = (p: number): number => ends[Math.min(ends.length - 1, Math.floor(p * ends.length))] ?? 0;
  return {
    done: until === null ? null : ends.filter((e) => e <= until).length / evenings,
    middle: at(0.5),
    span: { low: at(0.1), high: at(0.9) },
    boxes: inTime.map((n) => (until === null ? null : n / evenings)),
  };
}
