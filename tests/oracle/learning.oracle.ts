/**
 * What is foretold of steps against a working-out in NumPy and SciPy that knows no shortcut: every run a line of one matrix,
 * its likelihood the multivariate t’s; shares against SciPy’s beta distribution (Clopper and Pearson 1934).
 */
import { exactShare } from '@zb/core/learning/calibration';
import { foreteller } from '@zb/core/learning/foretell';
import type { TimedRun, Work } from '@zb/core/learning/timed';
import { randomFrom } from '@zb/core/units/random';
import { run } from './files';

const random = randomFrom(20261127);
const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)] as T;
const work = (): Work => ({
  act: pick(['a', 'b', 'c', 'd']),
  kind: pick([null, 'tower', 'handheld']),
  system: pick([null, 'one', 'two']),
});
const span = () => {
  const low = pick([0, 2, 15, 60, 300]);
  return { low, high: Math.max(low, 1) * (1 + random() * 5) };
};
const timed = (): TimedRun => {
  const table = span();
  const seconds = table.high * Math.exp(3 * (random() - 0.6));
  return { ...work(), table, seconds, range: random() < 0.3 ? null : span() };
};
const cases = Array.from({ length: 60 }, (_, i) => ({
  runs: Array.from({ length: i === 0 ? 0 : Math.floor(random() * 40) + 1 }, timed),
  asks: Array.from({ length: 5 }, () => ({ ...work(), table: span() })),
}));
const shares = Array.from({ length: 200 }, () => {
  const n = 1 + Math.floor(random() * 300);
  return [Math.floor(random() * (n + 1)), n] as const;
});
const theirs = JSON.parse(
  run('/usr/bin/python3', ['tests/oracle/learning.py'], JSON.stringify({ cases, shares })),
) as { foretold: number[][][]; shares: [number, number][] };

it('foretells what NumPy and SciPy foretell, 60 records and 300 steps', () => {
  cases.forEach(({ runs, asks }, i) => {
    const foretell = foreteller(runs);
    asks.forEach((a, j) => {
      const { range, half, median } = foretell(a, a.table);
      [range.low, half.low, median, half.high, range.high].forEach((ours, k) =>
        expect(ours / (theirs.foretold[i]?.[j]?.[k] ?? NaN)).toBeCloseTo(1, 6),
      );
    });
  });
});

it('bounds a share as SciPy does', () => {
  shares.forEach(([k, n], i) => {
    const { low, high } = exactShare(k, n);
    expect(low).toBeCloseTo(theirs.shares[i]?.[0] ?? NaN, 8);
    expect(high).toBeCloseTo(theirs.shares[i]?.[1] ?? NaN, 8);
  });
});
