import { membersOf, type PlacedPool } from './placed';

/** Of so many drives that fail together: how many choices of them there are, and after how many all is still there. */
export interface Failures {
  failed: number;
  choices: number;
  survived: number;
}

/** What a pool survives, by how many of its drives fail at once. */
export interface Survival {
  /** Any so many drives may fail. */
  any: number;
  /** With luck in which ones fail, so many may. */
  most: number;
  by: Failures[];
}

/** n over k, exact for as many drives as a pool takes. */
export const choose = (n: number, k: number): number => {
  let out = 1;
  for (let i = 1; i <= k; i += 1) out = (out * (n - k + i)) / i;
  return Math.round(out);
};

/**
 * How many failures a row bears of those in it. Which drives hold block groups together depends on what was written when,
 * and the file system’s own records grow as it fills: of more than their copies bear, nothing is counted on.
 */
function bears({ way }: PlacedPool, row: readonly unknown[]): number {
  if (way.shape === 'parity') return way.level;
  if (way.manner === 'groups') return way.shape === 'copies' ? way.level - 1 : 0;
  return row.length - 1;
}

/** Choices that a row of so many survives, by how many of it fail. */
const rowChoices = (length: number, most: number): number[] =>
  Array.from({ length: most + 1 }, (_, k) => choose(length, k));

/** Two independent lots of choices together: the product of their generating functions. */
function together(a: readonly number[], b: readonly number[]): number[] {
  const out = Array.from({ length: a.length + b.length - 1 }, () => 0);
  a.forEach((x, i) => b.forEach((y, j) => (out[i + j] = (out[i + j] ?? 0) + x * y)));
  return out;
}

/** Every combination of failures, counted: rows do not depend on each other, so their generating functions multiply. */
export function survivalOf(pool: PlacedPool): Survival {
  const n = membersOf(pool).length;
  const counts = pool.rows.reduce((sum, row) => together(sum, rowChoices(row.length, bears(pool, row))), [1]);
  const by = Array.from({ length: Math.min(n, counts.length) }, (_, i) => ({
    failed: i + 1,
    choices: choose(n, i + 1),
    survived: counts[i + 1] ?? 0,
  }));
  const worst = by.find((f) => f.survived < f.choices);
  return {
    any: worst ? worst.failed - 1 : by.length,
    most: by.reduce((most, f) => (f.survived > 0 ? f.failed : most), 0),
    by,
  };
}
