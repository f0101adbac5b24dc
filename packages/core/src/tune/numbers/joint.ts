import { randomFrom } from '../../units/random';
import { mean } from './describe';
import { shuffle } from './dice';
import { withoutDrift } from './interval';
import { choose } from './permutation';

/** A run with its state, its place in the evening, and what it gave in each quantity; NaN where it was not measured. */
export interface JointRun {
  state: number;
  at: number;
  values: readonly number[];
}

/** One comparison: a state against state 0, in one quantity, with or without the drift of the evening taken out. */
export interface JointAsk {
  state: number;
  column: number;
  drift: boolean;
}

/** What came of it. */
export interface Joint {
  /** For each comparison, two-sided, corrected for all of them. */
  corrected: number[];
  /** The least p that these runs can give at all. */
  least: number;
  arrangements: number;
  sampled: boolean;
}

/** So much work is still done over all arrangements. */
const ALL = 20_000;
const DRAWN = 4000;

/** In how many ways runs can be given to states of these sizes. */
function ways(sizes: readonly number[]): number {
  let left = sizes.reduce((s, n) => s + n, 0);
  let out = 1;
  for (const n of sizes) {
    out *= choose(left, n);
    left -= n;
  }
  return out;
}

/** The square of the t statistic of one comparison under an assignment of runs to states. */
function square(
  runs: readonly JointRun[],
  left: readonly Float64Array[],
  states: Int32Array,
  a: JointAsk,
): number {
  const y = left[a.column];
  if (!y) return 0;
  let [n0, n1, s0, s1, p0, p1, pp, yy, py] = [0, 0, 0, 0, 0, 0, 0, 0, 0];
  for (let i = 0; i < runs.length; i += 1) {
    const state = states[i];
    const v = y[i] ?? NaN;
    if ((state !== 0 && state !== a.state) || Number.isNaN(v)) continue;
    const p = runs[i]?.at ?? 0;
    if (state === 0) {
      n0 += 1;
      s0 += v;
      p0 += p;
    } else {
      n1 += 1;
      s1 += v;
      p1 += p;
    }
    pp += p * p;
    yy += v * v;
    py += p * v;
  }
  const n = n0 + n1;
  if (n0 < 1 || n1 < 1 || n < 3) return 0;
  // Sums of squares and products about the means.
  const syy = yy - (s0 + s1) ** 2 / n;
  const room = (n0 * n1) / n;
  const sgy = s1 - (n1 * (s0 + s1)) / n;
  let explained = (sgy * sgy) / room;
  let whole = syy;
  if (a.drift) {
    const spp = pp - (p0 + p1) ** 2 / n;
    const spy = py - ((p0 + p1) * (s0 + s1)) / n;
    const sgp = p1 - (n1 * (p0 + p1)) / n;
    const free = room - (sgp * sgp) / spp;
    if (!(free > 1e-9 * room)) return 0;
    explained = (sgy - (sgp * spy) / spp) ** 2 / free;
    whole = syy - (spy * spy) / spp;
  }
  const rest = whole - explained;
  const dof = n - (a.drift ? 3 : 2);
  if (dof < 1 || explained <= 1e-12 * yy) return 0;
  return rest <= 1e-12 * yy ? 1e12 : (explained / rest) * dof;
}

/** Values about their mean, with what is straight over the evening taken out where any comparison of the quantity asks for it. */
function leftOver(runs: readonly JointRun[], column: number, drift: boolean): Float64Array {
  const out = Float64Array.from(runs, (r) => r.values[column] ?? NaN);
  const good = runs.flatMap((r, i) => {
    const value = out[i] ?? NaN;
    return Number.isNaN(value) ? [] : [{ i, at: r.at, value }];
  });
  const middle = mean(good.map((g) => g.value));
  const left = drift ? withoutDrift(good) : good.map((g) => g.value - middle);
  good.forEach(({ i }, k) => (out[i] = left[k] ?? NaN));
  return out;
}

/**
 * Tests several comparisons at once over arrangements of whole runs: what is said to be sure is sure for all of them together
 * (step-down greatest t, Westfall and Young, 1993, §2.6). All arrangements where there are at most 20 000, else 4000 drawn with a
 * seed and the one seen counted among them. A drift of the evening is taken out as in permutationBeside.
 */
export function jointTest(runs: readonly JointRun[], asked: readonly JointAsk[], seed = 1): Joint {
  const columns = Math.max(0, ...asked.map((a) => a.column + 1));
  const left = Array.from({ length: columns }, (_, c) =>
    leftOver(
      runs,
      c,
      asked.some((a) => a.column === c && a.drift),
    ),
  );
  const seenStates = Int32Array.from(runs, (r) => r.state);
  const seen = asked.map((a) => square(runs, left, seenStates, a));
  const order = seen.map((s, i) => ({ s, i })).sort((x, y) => y.s - x.s);
  const hits = new Float64Array(asked.length);
  const count = (states: Int32Array): void => {
    let most = 0;
    for (let k = order.length - 1; k >= 0; k -= 1) {
      const at = order[k];
      const ask = at && asked[at.i];
      if (!at || !ask) continue;
      most = Math.max(most, square(runs, left, states, ask));
      if (most >= at.s * (1 - 1e-9)) hits[k] = (hits[k] ?? 0) + 1;
    }
  };
  const sizes = [...new Set(runs.map((r) => r.state))].map((s) => runs.filter((r) => r.state === s).length);
  const all = ways(sizes);
  // Two states of one size change places without changing anything.
  const same = sizes.length === 2 && sizes[0] === sizes[1] ? 2 : 1;
  let made: number;
  if (all <= ALL) {
    eachArrangement(seenStates, count);
    made = all;
  } else {
    const random = randomFrom(seed);
    const states = Int32Array.from(seenStates);
    count(seenStates);
    for (let d = 0; d < DRAWN; d += 1) {
      shuffle(states, random);
      count(states);
    }
    made = DRAWN + 1;
  }
  const corrected = new Array<number>(asked.length).fill(1);
  let least = 0;
  order.forEach(({ i }, k) => {
    least = Math.max(least, (hits[k] ?? made) / made);
    corrected[i] = least;
  });
  return {
    corrected,
    least: Math.min(1, same / Math.min(all, made)),
    arrangements: made,
    sampled: all > ALL,
  };
}

/** Every way to give the states to the runs. */
function eachArrangement(states: Int32Array, tell: (states: Int32Array) => void): void {
  const names = [...new Set(states)];
  const left = names.map((s) => states.filter((x) => x === s).length);
  const out = new Int32Array(states.length);
  const walk = (at: number): void => {
    if (at === out.length) {
      tell(out);
      return;
    }
    names.forEach((name, k) => {
      if ((left[k] ?? 0) === 0) return;
      left[k] = (left[k] ?? 0) - 1;
      out[at] = name;
      walk(at + 1);
      left[k] = (left[k] ?? 0) + 1;
    });
  };
  walk(0);
}
