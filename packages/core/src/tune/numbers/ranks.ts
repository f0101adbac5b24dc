import { normalCdf } from './distributions';
import { choose, permutationTest } from './permutation';

/** Ranks from 1; equal values share the middle of theirs. */
export function midranks(values: readonly number[]): number[] {
  const order = values.map((v, i) => ({ v, i })).sort((a, b) => a.v - b.v);
  const out = new Array<number>(values.length).fill(0);
  for (let i = 0; i < order.length;) {
    let j = i;
    while (j < order.length && order[j]?.v === order[i]?.v) j += 1;
    for (let k = i; k < j; k += 1) {
      const at = order[k];
      if (at) out[at.i] = (i + j + 1) / 2;
    }
    i = j;
  }
  return out;
}

/**
 * Rank test of two lots of runs (Mann and Whitney, 1947): U of the second lot and its two-sided p, exact over all arrangements of
 * the ranks as they are, equal ones included; by the normal approximation, with its correction for ties and for continuity, where
 * there are too many.
 */
export function rankTest(
  before: readonly number[],
  after: readonly number[],
): { u: number; p: number; exact: boolean } {
  const ranks = midranks([...before, ...after]);
  const [m, n] = [before.length, after.length];
  const u = ranks.slice(m).reduce((s, r) => s + r, 0) - (n * (n + 1)) / 2;
  if (choose(m + n, n) <= 200_000)
    return { u, p: permutationTest(ranks.slice(0, m), ranks.slice(m)).p, exact: true };
  const ties = new Map<number, number>();
  for (const r of ranks) ties.set(r, (ties.get(r) ?? 0) + 1);
  const all = m + n;
  const tied = [...ties.values()].reduce((s, t) => s + t ** 3 - t, 0);
  const spread = Math.sqrt(((m * n) / 12) * (all + 1 - tied / (all * (all - 1))));
  const z = Math.max(0, Math.abs(u - (m * n) / 2) - 0.5) / spread;
  return { u, p: spread === 0 ? 1 : Math.min(1, 2 * (1 - normalCdf(z))), exact: false };
}
