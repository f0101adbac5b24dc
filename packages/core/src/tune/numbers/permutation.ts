import { randomFrom } from '../../units/random';

/** A test over arrangements: how often chance alone gives a difference at least as large as the one seen. */
export interface Arranged {
  /** Two-sided. */
  p: number;
  /** The least p that so many runs can give at all, whatever they show. */
  least: number;
  /** Arrangements looked at. */
  arrangements: number;
  /** They are drawn by a seed, not all of them. */
  sampled: boolean;
}

/** So many arrangements are still counted out one by one. */
const ALL = 200_000;
const DRAWN = 20_000;

/** In how many ways `k` of `n` can be chosen. */
export function choose(n: number, k: number): number {
  let out = 1;
  for (let i = 1; i <= Math.min(k, n - k); i += 1) out = (out * (n - i + 1)) / i;
  return Math.round(out);
}

/**
 * Permutation test of a difference of means (Fisher, 1935; Pitman, 1937): exact over all arrangements where there are at most
 * 200 000, else over 20 000 drawn by the seed, with the one seen counted among them (Phipson and Smyth, 2010).
 */
export const permutationTest = (before: readonly number[], after: readonly number[], seed = 1): Arranged =>
  arrange([...before, ...after], after.length, undefined, seed);

/**
 * The same with what goes along with a further quantity taken out, such as the place in the evening: `values` are what is left of
 * the values without the change (Freedman and Lane, 1983), and each arrangement is weighed by how far it can be told from that
 * quantity, as the t statistic does.
 */
export const permutationBeside = (
  before: readonly { left: number; beside: number }[],
  after: readonly { left: number; beside: number }[],
  seed = 1,
): Arranged => {
  const all = [...before, ...after];
  const middle = all.reduce((s, r) => s + r.beside, 0) / all.length;
  return arrange(
    all.map((r) => r.left),
    after.length,
    all.map((r) => r.beside - middle),
    seed,
  );
};

/** How large the difference is that a choice of one side gives, in its own scale: squared, and weighed where a quantity stands beside it. */
function scale(
  n: number,
  k: number,
  beside: readonly number[] | undefined,
): (off: number, along: number) => number {
  if (!beside) return (off) => off * off;
  const room = (k * (n - k)) / n;
  const squares = beside.reduce((s, b) => s + b * b, 0);
  return (off, along) => {
    const left = room - (along * along) / squares;
    return left <= 1e-9 * room ? 0 : (off * off) / left;
  };
}

function arrange(
  given: readonly number[],
  k: number,
  beside: readonly number[] | undefined,
  seed: number,
): Arranged {
  const n = given.length;
  const order = Array.from({ length: n }, (_, i) => i);
  const total = given.reduce((s, v) => s + v, 0);
  // With sizes fixed the difference of means goes with the sum of one side.
  const centre = (total * k) / n;
  const size = scale(n, k, beside);
  const of = (chosen: readonly number[]): number =>
    size(
      chosen.reduce((s, i) => s + (given[i] ?? 0), 0) - centre,
      chosen.reduce((s, i) => s + (beside?.[i] ?? 0), 0),
    );
  const seen = of(order.slice(n - k));
  // Sums in another order differ in their last digits: what is as large must count as large.
  const unit = Math.max(1e-300, ...given.map(Math.abs)) * n;
  const bound = seen - 1e-9 * Math.max(seen, 1e-9 * unit * unit);
  const count = choose(n, k);
  const least = Math.min(1, (2 * k === n ? 2 : 1) / count);
  let hits = 0;
  if (count <= ALL) {
    const walk = (from: number, left: number, sum: number, along: number): void => {
      if (left === 0) {
        if (size(sum - centre, along) >= bound) hits += 1;
        return;
      }
      for (let i = from; i <= n - left; i += 1)
        walk(i + 1, left - 1, sum + (given[i] ?? 0), along + (beside?.[i] ?? 0));
    };
    walk(0, k, 0, 0);
    return { p: hits / count, least, arrangements: count, sampled: false };
  }
  const random = randomFrom(seed);
  hits = 1;
  for (let r = 0; r < DRAWN; r += 1) {
    let sum = 0;
    let along = 0;
    for (let i = 0; i < k; i += 1) {
      const j = i + Math.floor(random() * (n - i));
      const taken = order[j] ?? 0;
      order[j] = order[i] ?? 0;
      order[i] = taken;
      sum += given[taken] ?? 0;
      along += beside?.[taken] ?? 0;
    }
    if (size(sum - centre, along) >= bound) hits += 1;
  }
  return { p: hits / (DRAWN + 1), least: 1 / (DRAWN + 1), arrangements: DRAWN, sampled: true };
}
