import { deviation, mean } from './numbers/describe';
import {
  driftFree,
  intervalOf,
  pOf,
  welch,
  withoutDrift,
  type Estimate,
  type Placed,
} from './numbers/interval';
import { jointTest } from './numbers/joint';
import { permutationBeside, permutationTest, type Arranged } from './numbers/permutation';
import { runsFor } from './numbers/power';
import { rankTest } from './numbers/ranks';

/** Runs of one state. */
export interface StateRuns {
  n: number;
  mean: number;
  /** One standard deviation of runs; NaN with fewer than two. */
  spread: number;
}

/** How a difference was worked out: with the evening’s drift taken out, without (Welch), or not at all. */
export type DifferenceMethod = 'drift taken out' | 'Welch' | 'none';

/** What a change did to one quantity, as numbers. */
export interface Difference {
  before: StateRuns;
  after: StateRuns;
  /** After less before, with its interval at 95 %; null with fewer than two runs on a side. */
  change: number | null;
  low: number | null;
  high: number | null;
  method: DifferenceMethod;
  /** Two-sided p of the t statistic. */
  p: number | null;
  /** Two-sided p over all arrangements of the runs. */
  exact: Arranged | null;
  /** Two-sided p by ranks. */
  ranks: number | null;
  /** All runs of one state came before all of the other: what changed in between is in the difference. */
  inARow: boolean;
}

/** What can be said of a change. “no difference”: shown to be less than matters; “no difference seen”: not the same thing. */
export type Outcome = 'better' | 'worse' | 'no difference' | 'no difference seen' | 'cannot say';

/** A difference with what can be said of it. */
export interface Judged extends Difference {
  outcome: Outcome;
  /** The p that decided, corrected for all that was looked at; null where nothing could be said. */
  corrected: number | null;
  /** What would matter, in the quantity’s unit. */
  matters: number;
  /** Runs still wanted on each side for a chance of 80 % to see what matters; null where the most we plan would not do. */
  more: number | null;
}

const stateOf = (runs: readonly Placed[]): StateRuns => ({
  n: runs.length,
  mean: mean(runs.map((r) => r.value)),
  spread: deviation(runs.map((r) => r.value)),
});

/** How far places and sides go together, −1 to 1. */
function together(before: readonly Placed[], after: readonly Placed[]): number {
  const all = [...before.map((r) => ({ at: r.at, side: -1 })), ...after.map((r) => ({ at: r.at, side: 1 }))];
  const [a, s] = [mean(all.map((r) => r.at)), mean(all.map((r) => r.side))];
  let [as, aa, ss] = [0, 0, 0];
  for (const r of all) {
    as += (r.at - a) * (r.side - s);
    aa += (r.at - a) ** 2;
    ss += (r.side - s) ** 2;
  }
  return aa === 0 || ss === 0 ? 0 : as / Math.sqrt(aa * ss);
}

/** Runs mixed well enough that a drift over the evening can be told from the change. */
const MIXED = 0.35;
/** Runs in all from which taking out a drift costs less than it may save. */
const ENOUGH = 8;

/** The difference of two states with its spread, and how it was worked out; undefined with fewer than two runs on a side. */
function estimateOf(
  before: readonly Placed[],
  after: readonly Placed[],
  apart: number,
): { estimate: Estimate; method: Exclude<DifferenceMethod, 'none'> } | undefined {
  const plain = welch(
    before.map((r) => r.value),
    after.map((r) => r.value),
  );
  if (!plain) return undefined;
  const freed =
    apart <= MIXED && before.length + after.length >= ENOUGH ? driftFree(before, after) : undefined;
  return freed ? { estimate: freed, method: 'drift taken out' } : { estimate: plain, method: 'Welch' };
}

/** Compares runs of two states; places count from 0 in the order in which all runs were made. Throws where a value is no number. */
export const difference = (before: readonly Placed[], after: readonly Placed[]): Difference =>
  compared(before, after).difference;

function compared(
  before: readonly Placed[],
  after: readonly Placed[],
): { difference: Difference; estimate: Estimate | null } {
  for (const r of [...before, ...after])
    if (!Number.isFinite(r.value)) throw new RangeError('a run has no number');
  const apart = Math.abs(together(before, after));
  const base = {
    before: stateOf(before),
    after: stateOf(after),
    inARow: apart > 0.8 && before.length + after.length > 2,
  };
  const found = estimateOf(before, after, apart);
  if (!found)
    return {
      estimate: null,
      difference: {
        ...base,
        change: null,
        low: null,
        high: null,
        method: 'none',
        p: null,
        exact: null,
        ranks: null,
      },
    };
  const { estimate, method } = found;
  const all = [...before, ...after];
  const freed = method === 'drift taken out';
  const left = freed ? withoutDrift(all) : all.map((r) => r.value);
  const [b, a] = [left.slice(0, before.length), left.slice(before.length)];
  const placed = all.map((r, i) => ({ left: left[i] ?? 0, beside: r.at }));
  return {
    estimate,
    difference: {
      ...base,
      change: estimate.change,
      ...intervalOf(estimate),
      method,
      p: pOf(estimate),
      exact: freed
        ? permutationBeside(placed.slice(0, before.length), placed.slice(before.length))
        : permutationTest(b, a),
      ranks: rankTest(b, a).p,
    },
  };
}

/** A run with its state and its place in the evening, and what it gave in each quantity that is looked at. */
export interface JudgedRun {
  arm: string;
  at: number;
  values: readonly (number | undefined)[];
}

/** A quantity that is looked at. */
export interface AskedQuantity {
  better: 'less' | 'more';
  /** What would matter, in its unit. */
  matters: number;
  /** How runs usually vary, for when these do not tell. */
  usual: number;
}

/** What a test may be wrong with where nothing changed. */
export const ALPHA = 0.05;

/**
 * Judges every state against the first, in every quantity, all together: “better” and “worse” only where the test over arrangements
 * of whole runs is sure at 5 % for all of them at once (jointTest); “no difference” only where the 90 % interval lies within what
 * matters (two one-sided tests, Schuirmann, 1987); “cannot say” where so few runs could not be sure whatever they showed, and
 * where all runs of one state came before all of the other. Intervals hold for all comparisons at once as well (Bonferroni).
 */
export function judgeTogether(
  runs: readonly JudgedRun[],
  base: string,
  quantities: readonly AskedQuantity[],
  seed = 1,
): { arm: string; column: number; judged: Judged }[] {
  const names = [base, ...new Set(runs.map((r) => r.arm).filter((a) => a !== base))];
  const of = (arm: string, column: number): Placed[] =>
    runs.flatMap((r) => {
      const value = r.values[column];
      return r.arm === arm && value !== undefined ? [{ value, at: r.at }] : [];
    });
  const pairs = names.slice(1).flatMap((arm) =>
    quantities.flatMap((quantity, column) => {
      const [before, after] = [of(base, column), of(arm, column)];
      if (before.length === 0 || after.length === 0) return [];
      const { difference: d, estimate } = compared(before, after);
      return [{ arm, column, quantity, d, estimate }];
    }),
  );
  const told = pairs.filter((p) => p.d.change !== null);
  const joint = jointTest(
    runs.map((r) => ({ state: names.indexOf(r.arm), at: r.at, values: r.values.map((v) => v ?? NaN) })),
    told.map((p) => ({
      state: names.indexOf(p.arm),
      column: p.column,
      drift: p.d.method === 'drift taken out',
    })),
    seed,
  );
  return pairs.map((p) => {
    const { d, quantity } = p;
    const at = told.indexOf(p);
    const corrected = at < 0 ? null : (joint.corrected[at] ?? 1);
    const spread = pooled(d) ?? quantity.usual;
    const wanted = runsFor(quantity.matters, spread, ALPHA, Math.max(1, told.length), names.length);
    const more = wanted === undefined ? null : Math.max(0, wanted - Math.min(d.before.n, d.after.n));
    const many = Math.max(1, told.length);
    // In a row, what the evening did is in the difference, and no test takes it out.
    const outcome = d.inARow ? 'cannot say' : outcomeOf(p.estimate, quantity, corrected, joint.least, many);
    const interval = p.estimate ? intervalOf(p.estimate, 1 - ALPHA / many) : {};
    return {
      arm: p.arm,
      column: p.column,
      judged: { ...d, ...interval, outcome, corrected, matters: quantity.matters, more },
    };
  });
}

function outcomeOf(
  e: Estimate | null,
  { better, matters }: AskedQuantity,
  p: number | null,
  least: number,
  many: number,
): Outcome {
  if (p === null || e === null) return 'cannot say';
  if (p <= ALPHA)
    return e.change === 0 ? 'no difference' : e.change > 0 === (better === 'more') ? 'better' : 'worse';
  const { low, high } = intervalOf(e, 1 - (2 * ALPHA) / many);
  if (-matters < low && high < matters) return 'no difference';
  return least > ALPHA ? 'cannot say' : 'no difference seen';
}

/** One standard deviation of runs, of both states together; undefined where neither tells. */
function pooled({ before: b, after: a }: Difference): number | undefined {
  const dof = Math.max(0, b.n - 1) + Math.max(0, a.n - 1);
  if (dof < 2) return undefined;
  const squares = (b.n > 1 ? b.spread ** 2 * (b.n - 1) : 0) + (a.n > 1 ? a.spread ** 2 * (a.n - 1) : 0);
  return squares === 0 ? undefined : Math.sqrt(squares / dof);
}
