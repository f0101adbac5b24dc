import { tQuantile } from '../tune/numbers/distributions';
import { span, type Span } from '../units/duration';
import { cholesky, forward } from '../tune/numbers/cholesky';
import { widthOf } from './width';
import { valueAt, Z90 } from '../tune/numbers/logNormal';
import { deviationsOf, scaleOf } from './scale';
import type { Foretold, TimedRun, Work } from './timed';

/**
 * What makes runs of one owner differ from the usual beside chance, as shares of that part of the variance: how quick they
 * are at everything, at this kind of work, on this kind of machine, with this system. Our own judgement, no source; the test
 * holds the ranges against owners who are otherwise.
 */
export const SHARES = { pace: 0.34, act: 0.42, kind: 0.13, system: 0.11 } as const;
/** What share of the whole variance is from run to run: the one under which the record is likeliest is taken; with none, the first. */
export const RUN_SHARES = [0.4, 0.2, 0.08, 0.65] as const;
/** How sure the table is of its own width, in runs (the shape of the inverse gamma distribution, doubled). */
export const SURE = 8;
/** A run further from the usual than this was not the step alone: somebody ate in between. Deviations. */
export const FARTHEST = 4;
/** Newest kinds of work on kinds of machines that are looked at; more would take long and tell nothing new. */
const MOST_CELLS = 240;

const T = { half: 0.75, range: 0.9 } as const;
/** So that what is foretold without any run is the table itself: eight of ten in its range. */
export const SPREAD = ((Z90 / tQuantile(T.range, SURE)) ** 2 * SURE) / 2;

/** Runs of the same work on the same kind of machine with the same system: they tell the same, all together. */
interface Cell extends Work {
  count: number;
  mean: number;
  /** Squares about their mean. */
  within: number;
}

const dot = (a: readonly number[], b: readonly number[]): number =>
  a.reduce((n, x, i) => n + x * (b[i] ?? 0), 0);

/** How alike two kinds of work turn out, as shares of the variance that is not from run to run. */
function alike(a: Work, b: Work): number {
  if (a.act !== b.act) return SHARES.pace;
  return (
    SHARES.pace +
    SHARES.act +
    (a.kind !== null && a.kind === b.kind ? SHARES.kind : 0) +
    (a.system !== null && a.system === b.system ? SHARES.system : 0)
  );
}

/** Runs, oldest first, brought together. */
function cellsOf(runs: readonly TimedRun[]): Cell[] {
  const cells = new Map<string, Cell>();
  for (const { act, kind, system, table, seconds } of runs) {
    const z = Math.max(-FARTHEST, Math.min(FARTHEST, deviationsOf(scaleOf(table), seconds)));
    const key = JSON.stringify([act, kind, system]);
    const cell = cells.get(key) ?? { act, kind, system, count: 0, mean: 0, within: 0 };
    // What is told again last is newest: it is the last to be left out.
    cells.delete(key);
    const count = cell.count + 1;
    const mean = cell.mean + (z - cell.mean) / count;
    cells.set(key, { ...cell, count, mean, within: cell.within + (z - cell.mean) * (z - mean) });
  }
  return [...cells.values()].slice(-MOST_CELLS);
}

/** What the cells tell under one share of chance. */
interface Fit {
  share: number;
  l: Float64Array[];
  weights: number[];
  variance: number;
  /** Logarithm of how likely the record is, but for what all shares have alike. */
  likely: number;
}

function fitted(cells: readonly Cell[], share: number, dof: number): Fit {
  const l = cholesky(
    cells.map((a, i) => cells.map((b, j) => alike(a, b) * (1 - share) + (i === j ? share / a.count : 0))),
  );
  const weights = forward(
    l,
    cells.map((c) => c.mean),
  );
  const squares = weights.reduce((n, w) => n + w * w, 0) + cells.reduce((n, c) => n + c.within / share, 0);
  // The determinant of all runs: that of the cells, and the share once more for every run beyond the first of its cell.
  const determinant =
    l.reduce((n, row, i) => n + Math.log(row[i] as number), 0) +
    cells.reduce((n, c) => n + ((c.count - 1) * Math.log(share) + Math.log(c.count)) / 2, 0);
  return {
    share,
    l,
    weights,
    variance: (2 * SPREAD + squares) / dof,
    likely: -determinant - (dof / 2) * Math.log(SPREAD + squares / 2),
  };
}

/** Foretells the time of work from its table and what was measured so far. */
export type Foreteller = (work: Work, table: Span) => Foretold;

/** What runs teach. */
export interface Learned {
  foretell: Foreteller;
  /**
   * How far steps of one evening go together: the correlation of each with each, −1 to 1, of the logarithms of their times. What is
   * not known yet of an owner makes all of them long or short at once; what was measured takes it out.
   */
  correlations: (works: readonly Work[]) => number[][];
}

/**
 * Learns from runs, oldest first. The logarithm of a run, in deviations of its table, is the sum of normal effects with the
 * shares above; the common variance has an inverse gamma prior, so that what is foretold is Student’s t about the shrunk
 * middle (best linear unbiased prediction, Henderson 1975; Gelman and others, Bayesian Data Analysis, 14.2). Few runs move
 * it little, one never decides. Nothing measured: the table itself. The width follows how often ranges held before.
 */
export function learn(runs: readonly TimedRun[]): Learned {
  const cells = cellsOf(runs);
  const dof = SURE + cells.reduce((n, c) => n + c.count, 0);
  const fits = (cells.length === 0 ? RUN_SHARES.slice(0, 1) : RUN_SHARES).map((share) =>
    fitted(cells, share, dof),
  );
  const { share, l, weights, variance } = fits.reduce((a, b) => (b.likely > a.likely ? b : a));
  const wide = widthOf(runs);
  const t = { half: tQuantile(T.half, dof) * wide, range: tQuantile(T.range, dof) * wide };
  const byAct = new Map<string, number>();
  for (const c of cells) byAct.set(c.act, (byAct.get(c.act) ?? 0) + c.count);
  const seen = (work: Work): number[] =>
    forward(
      l,
      cells.map((c) => alike(c, work) * (1 - share)),
    );
  // What belongs to its own machine and system alone is its own where they are not known, too.
  const own = (work: Work): number =>
    alike(work, work) + (work.kind === null ? SHARES.kind : 0) + (work.system === null ? SHARES.system : 0);
  const foretell: Foreteller = (work, table) => {
    const scale = scaleOf(table);
    const v = seen(work);
    const middle = dot(v, weights);
    const left = own(work) * (1 - share) + share - dot(v, v);
    const deviation = Math.sqrt(variance * Math.max(left, 0));
    const around = (q: number): Span =>
      span(valueAt(scale, middle - q * deviation), valueAt(scale, middle + q * deviation));
    const like = byAct.get(work.act) ?? 0;
    return {
      ground: like > 0 ? 'runs like it' : cells.length > 0 ? 'your pace' : 'usual',
      median: valueAt(scale, middle),
      half: around(t.half),
      range: around(t.range),
      runs: like,
    };
  };
  return {
    foretell,
    correlations: (works) => {
      const kinds = new Map<string, { work: Work; v: number[]; deviation: number }>();
      const each = works.map((work) => {
        const key = JSON.stringify([work.act, work.kind, work.system]);
        let kind = kinds.get(key);
        if (!kind) {
          const v = seen(work);
          kind = { work, v, deviation: Math.sqrt(own(work) * (1 - share) + share - dot(v, v)) };
          kinds.set(key, kind);
        }
        return kind;
      });
      return each.map((a, i) =>
        each.map((b, j) =>
          i === j ? 1 : (alike(a.work, b.work) * (1 - share) - dot(a.v, b.v)) / (a.deviation * b.deviation),
        ),
      );
    },
  };
}

/** Foretells from runs, oldest first. */
export const foreteller = (runs: readonly TimedRun[]): Foreteller => learn(runs).foretell;
