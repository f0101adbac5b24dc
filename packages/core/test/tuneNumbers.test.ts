/** Statistics of a run by their own laws; that they are the right ones is held against SciPy in tests/oracle/statistics.oracle.ts. */
import fc from 'fast-check';
import { allowedBy } from '@zb/core/tune/allows';
import { judgeTogether } from '@zb/core/tune/compare';
import { designOf } from '@zb/core/tune/design';
import { factorialEffects } from '@zb/core/tune/factorial';
import { framesForInterval, framesForWidth, judgeFrames, stuttersOf } from '@zb/core/tune/frames';
import { dominated, kneeChance, kneeOf, type TradePoint } from '@zb/core/tune/knee';
import { heatGrade, partOf } from '@zb/core/tune/limits';
import { blockBootstrap, blockLength, inefficiency, tailMean } from '@zb/core/tune/numbers/blocks';
import { oneStep } from '@zb/core/tune/numbers/change';
import {
  mean,
  median,
  quantile,
  quantileAmong,
  sorted,
  sumOf,
  variance,
} from '@zb/core/tune/numbers/describe';
import { normalFrom } from '@zb/core/tune/numbers/dice';
import { endOfThree, fitSettling, stillToGo } from '@zb/core/tune/numbers/exponential';
import { holm } from '@zb/core/tune/numbers/holm';
import { jointTest, type JointRun } from '@zb/core/tune/numbers/joint';
import { inverse, leastSquares } from '@zb/core/tune/numbers/leastSquares';
import { choose, permutationTest } from '@zb/core/tune/numbers/permutation';
import { powerOf, runsFor } from '@zb/core/tune/numbers/power';
import { midranks, rankTest } from '@zb/core/tune/numbers/ranks';
import { orderOf } from '@zb/core/tune/order';
import { capFor, evenCaps, followedRates } from '@zb/core/tune/pace';
import { batteryMinutes, noiseChange, runningCost } from '@zb/core/tune/running';
import { boostEnds, judgeSteady, settleTime } from '@zb/core/tune/steady';
import { sustainedOf, throttlingOf } from '@zb/core/tune/sustained';
import { randomFrom } from '@zb/core/units/random';
import { runs } from './runs';

const figure = fc.double({ min: -1e6, max: 1e6, noNaN: true });
const few = fc.array(figure, { minLength: 2, maxLength: 5 });
/** Whole sevenths: two differences are the same or far apart, and never within rounding of each other. */
const fewWhole = fc.array(
  fc.integer({ min: -100, max: 100 }).map((v) => v / 7),
  { minLength: 2, maxLength: 5 },
);

describe('figures of a list', () => {
  it('quantiles lie among the values, rise with p, and both definitions agree at the ends', () => {
    fc.assert(
      fc.property(
        fc.array(figure, { minLength: 1, maxLength: 60 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (v, p) => {
          const r = sorted(v);
          const q = quantile(r, p);
          expect(q).toBeGreaterThanOrEqual(Math.min(...v));
          expect(q).toBeLessThanOrEqual(Math.max(...v));
          expect(v.map((x) => x + 0)).toContain(quantileAmong(r, p) + 0);
          expect(quantile(r, 0) + 0).toBe(Math.min(...v) + 0);
          expect(quantileAmong(r, 1) + 0).toBe(Math.max(...v) + 0);
          // At least p of all are at or below it.
          expect(v.filter((x) => x <= quantileAmong(r, p)).length).toBeGreaterThanOrEqual(
            p * v.length - 1e-6,
          );
          expect(tailMean(r, p)).toBeGreaterThanOrEqual(q - Math.abs(q) * 1e-9 - 1e-9);
        },
      ),
      { numRuns: runs(400) },
    );
  });
  it('sums lose nothing among large values', () => {
    expect(sumOf([1e16, 1, -1e16])).toBe(1);
    expect(mean([0.1, 0.2, 0.3])).toBeCloseTo(0.2, 15);
    expect(variance([2, 4, 4, 4, 5, 5, 7, 9])).toBeCloseTo(32 / 7, 12);
    expect(mean([])).toBeNaN();
    expect(variance([3])).toBeNaN();
  });
  it('the inverse of a matrix is one, and none is given where there is none', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(figure, figure, figure), { minLength: 6, maxLength: 12 }), (rows) => {
        const gram = [0, 1, 2].map((i) =>
          [0, 1, 2].map((j) => rows.reduce((s, r) => s + (r[i] ?? 0) * (r[j] ?? 0), 0)),
        );
        const inv = inverse(gram);
        if (!inv) return;
        const again = inverse(inv);
        for (const [i, row] of (again ?? []).entries())
          for (const [j, v] of row.entries()) {
            const scale = Math.sqrt(Math.abs((gram[i]?.[i] ?? 0) * (gram[j]?.[j] ?? 0))) + 1;
            expect(Math.abs(v - (gram[i]?.[j] ?? 0)) / scale).toBeLessThan(1e-2);
          }
      }),
      { numRuns: runs(100) },
    );
    expect(
      inverse([
        [1, 1],
        [1, 1],
      ]),
    ).toBeUndefined();
    expect(
      leastSquares(
        [
          [1, 1],
          [1, 1],
          [1, 1],
        ],
        [1, 2, 3],
      ),
    ).toBeUndefined();
  });
});

describe('tests over arrangements', () => {
  /** All ways to choose k of n, by trying every set of bits. */
  const allChoices = (n: number, k: number): number[][] =>
    Array.from({ length: 2 ** n }, (_, bits) =>
      Array.from({ length: n }, (_, i) => i).filter((i) => (bits >> i) & 1),
    ).filter((c) => c.length === k);
  it('count what a plain walk over all of them counts, with ties, constants and outliers', () => {
    fc.assert(
      fc.property(
        fc.array(fc.oneof(figure, fc.integer({ min: 0, max: 3 }).map(Number), fc.constant(1e6)), {
          minLength: 2,
          maxLength: 5,
        }),
        fc.array(fc.oneof(figure, fc.integer({ min: 0, max: 3 }).map(Number)), {
          minLength: 2,
          maxLength: 5,
        }),
        (a, b) => {
          const all = [...a, ...b];
          const total = all.reduce((s, v) => s + v, 0);
          const gap = (chosen: readonly number[]): number => {
            const s = chosen.reduce((x, i) => x + (all[i] ?? 0), 0);
            return Math.abs(s / b.length - (total - s) / a.length);
          };
          const seen = gap(b.map((_, i) => a.length + i));
          const ways = allChoices(all.length, b.length);
          const near = 1e-7 * Math.max(...all.map(Math.abs), 1e-9);
          const sure = ways.filter((w) => gap(w) > seen + near).length;
          const atMost = ways.filter((w) => gap(w) >= seen - near).length;
          const { p, arrangements } = permutationTest(a, b);
          expect(arrangements).toBe(ways.length);
          expect(p * ways.length).toBeGreaterThanOrEqual(sure - 1e-6);
          expect(p * ways.length).toBeLessThanOrEqual(atMost + 1e-6);
        },
      ),
      { numRuns: runs(200) },
    );
  });
  it('three runs of each can never be sure: at best one arrangement in ten is as extreme', () => {
    fc.assert(
      fc.property(
        fc.array(figure, { minLength: 3, maxLength: 3 }),
        fc.array(figure, { minLength: 3, maxLength: 3 }),
        (a, b) => {
          expect(permutationTest(a, b).p).toBeGreaterThanOrEqual(0.1 - 1e-12);
        },
      ),
      { numRuns: runs(200) },
    );
    expect(permutationTest([1, 2, 3], [11, 12, 13]).p).toBeCloseTo(0.1, 12);
    expect(powerOf(3, 100, 1)).toBe(0);
    expect(powerOf(4, 100, 1)).toBeCloseTo(1, 6);
  });
  it('ranks share the middle of ties, and U goes both ways', () => {
    expect(midranks([3, 1, 3, 2])).toEqual([3.5, 1, 3.5, 2]);
    fc.assert(
      fc.property(few, few, (a, b) => {
        const [x, y] = [rankTest(a, b), rankTest(b, a)];
        expect(x.u + y.u).toBeCloseTo(a.length * b.length, 9);
        expect(x.p).toBeCloseTo(y.p, 9);
      }),
      { numRuns: runs(200) },
    );
  });
  it('many runs are drawn by a seed, and the same seed draws the same', () => {
    const random = randomFrom(3);
    const of = (): number[] => Array.from({ length: 14 }, () => random());
    const [a, b] = [of(), of()];
    const found = permutationTest(a, b, 9);
    expect(found.sampled).toBe(true);
    expect(permutationTest(a, b, 9)).toEqual(found);
    expect(choose(28, 14)).toBe(40116600);
  });
  it('Holm’s correction never falls below what it corrects, keeps the order and ends at 1', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { maxLength: 12 }), (ps) => {
        const out = holm(ps);
        out.forEach((v, i) => {
          expect(v).toBeGreaterThanOrEqual(ps[i] ?? 0);
          expect(v).toBeLessThanOrEqual(1);
          ps.forEach((q, k) => q <= (ps[i] ?? 0) && expect(out[k] ?? 1).toBeLessThanOrEqual(v + 1e-12));
        });
      }),
      { numRuns: runs(300) },
    );
  });
});

describe('comparisons judged together', () => {
  const runsOf = (a: readonly number[][], b: readonly number[][], mixed = true): JointRun[] => {
    const made = [...a.map((values) => ({ state: 0, values })), ...b.map((values) => ({ state: 1, values }))];
    return made.map((r, i) => ({ ...r, at: mixed ? (i < a.length ? 2 * i : 2 * (i - a.length) + 1) : i }));
  };
  it('of one quantity and two states is the permutation test itself', () => {
    fc.assert(
      fc.property(fewWhole, fewWhole, (a, b) => {
        fc.pre(new Set([...a, ...b]).size > 2);
        const joint = jointTest(
          runsOf(
            a.map((v) => [v]),
            b.map((v) => [v]),
          ),
          [{ state: 1, column: 0, drift: false }],
        );
        const plain = permutationTest(a, b);
        expect(joint.arrangements).toBe(plain.arrangements);
        expect(joint.corrected[0]).toBeCloseTo(plain.p, 9);
      }),
      { numRuns: runs(150) },
    );
  });
  it('corrects for what else is looked at, and less than Holm where figures go together', () => {
    const normal = normalFrom(randomFrom(8));
    const one = (shift: number) => Array.from({ length: 5 }, () => shift + normal());
    const [a, b] = [one(0), one(2.2)];
    const asked = [0, 1, 2].map((column) => ({ state: 1, column, drift: false }));
    const twin = (v: readonly number[]): number[][] => v.map((x) => [x, 2 * x, -x]);
    const { corrected } = jointTest(runsOf(twin(a), twin(b)), asked);
    const single = permutationTest(a, b).p;
    // Three times the same figure is one comparison.
    for (const p of corrected) expect(p).toBeCloseTo(single, 9);
    const noise = (v: readonly number[]): number[][] => v.map((x) => [x, normal(), normal()]);
    const wider = jointTest(runsOf(noise(a), noise(b)), asked).corrected;
    expect(wider[0] ?? 0).toBeGreaterThanOrEqual(single);
    expect(wider[1] ?? 0).toBeGreaterThanOrEqual(wider[0] ?? 1);
  });
  it('says better, worse, no difference, none seen, and that it cannot say', () => {
    const judge = (a: readonly number[], b: readonly number[], matters: number) =>
      judgeTogether(
        [
          ...a.map((v, i) => ({ arm: 'A', at: 2 * i, values: [v] })),
          ...b.map((v, i) => ({ arm: 'B', at: 2 * i + 1, values: [v] })),
        ],
        'A',
        [{ better: 'less', matters, usual: 1 }],
      )[0]?.judged;
    expect(judge([80, 81, 80.5, 79.8, 80.2], [70, 71, 70.5, 69.8, 70.2], 3)?.outcome).toBe('better');
    expect(judge([70, 71, 70.5, 69.8, 70.2], [80, 81, 80.5, 79.8, 80.2], 3)?.outcome).toBe('worse');
    expect(judge([70, 71, 70.5, 69.8, 70.2], [70.3, 70.9, 70.4, 69.9, 70.1], 3)?.outcome).toBe(
      'no difference',
    );
    expect(judge([70, 75, 62, 69, 78], [71, 66, 76, 64, 72], 1)?.outcome).toBe('no difference seen');
    const few = judge([80, 81, 80.5], [70, 71, 70.5], 3);
    expect(few?.outcome).toBe('cannot say');
    expect(few?.more).toBeGreaterThan(0);
    expect(judge([80], [70], 3)?.outcome).toBe('cannot say');
    // What never varies is told by its arrangements, not by a spread of nothing.
    expect(judge([5, 5, 5, 5], [5, 5, 5, 5], 1)?.outcome).toBe('no difference');
    expect(judge([5, 5, 5, 5], [4, 4, 4, 4], 1)?.outcome).toBe('better');
  });
  it('takes a drift of the evening out where runs were mixed, and says so where they were not', () => {
    const normal = normalFrom(randomFrom(4));
    const order = orderOf(2, 6, 3);
    const value = (arm: string, at: number): number => (arm === 'B' ? 68 : 70) + 0.8 * at + 0.2 * normal();
    const made = [...order].map((arm, at) => ({ arm, at, values: [value(arm, at)] }));
    const [found] = judgeTogether(made, 'A', [{ better: 'less', matters: 1, usual: 1 }]);
    expect(found?.judged.method).toBe('drift taken out');
    expect(found?.judged.change).toBeCloseTo(-2, 0);
    expect((found?.judged.high ?? 0) - (found?.judged.low ?? 0)).toBeLessThan(1.2);
    expect(found?.judged.outcome).toBe('better');
    const row = [...'AAAAAABBBBBB'].map((arm, at) => ({ arm, at, values: [value(arm, at)] }));
    const [inRow] = judgeTogether(row, 'A', [{ better: 'less', matters: 1, usual: 1 }]);
    expect(inRow?.judged.inARow).toBe(true);
    expect(inRow?.judged.method).toBe('Welch');
    // Whatever it shows, the evening is in it.
    expect(inRow?.judged.outcome).toBe('cannot say');
  });
  it('intervals hold for all comparisons at once, as the verdict does', () => {
    const normal = normalFrom(randomFrom(9));
    const runs = [...'ABBAABBA'].map((arm, at) => ({
      arm,
      at,
      values: [0, 1, 2, 3].map(() => 70 + normal()),
    }));
    const asked = { better: 'less', matters: 1, usual: 1 } as const;
    const wide = judgeTogether(runs, 'A', [asked, asked, asked, asked])[0]?.judged;
    const narrow = judgeTogether(
      runs.map((r) => ({ ...r, values: r.values.slice(0, 1) })),
      'A',
      [asked],
    )[0]?.judged;
    const width = (d: typeof wide): number => (d?.high ?? 0) - (d?.low ?? 0);
    expect(wide?.change).toBeCloseTo(narrow?.change ?? 0, 9);
    expect(width(wide)).toBeGreaterThan(1.2 * width(narrow));
  });
  it('a number that is none is refused', () => {
    const bad = [NaN, 1, 2].map((v, i) => ({ arm: i < 2 ? 'A' : 'B', at: i, values: [v] }));
    expect(() => judgeTogether(bad, 'A', [{ better: 'less', matters: 1, usual: 1 }])).toThrow(RangeError);
  });
});

it.each([60, 150, 300])('a time constant of %i s is found in readings of whole degrees', (tau) => {
  const t = Array.from({ length: 240 }, (_, i) => i * 5);
  const fit = fitSettling(
    t,
    t.map((s) => Math.round(68 - 30 * Math.exp(-s / tau))),
  );
  expect((fit?.tau ?? 0) / tau).toBeGreaterThan(0.75);
  expect((fit?.tau ?? 0) / tau).toBeLessThan(1.35);
  expect(fit?.final).toBeCloseTo(68, 0);
});

describe('two settings at once', () => {
  it('finds what each does and what both do beyond that, as planted', () => {
    const normal = normalFrom(randomFrom(6));
    const order = orderOf(4, 5, 2);
    const made = [...order].map((arm, at) => {
      const first = arm === 'B' || arm === 'D' ? 1 : 0;
      const second = arm === 'C' || arm === 'D' ? 1 : 0;
      return {
        first,
        second,
        at,
        value: 50 - 6 * first + 3 * second + 4 * first * second + 0.2 * normal(),
      } as const;
    });
    const found = factorialEffects(
      made.map((m) => ({ ...m, first: m.first === 1 ? 1 : 0, second: m.second === 1 ? 1 : 0 })),
    );
    // Main effects are means over both states of the other; the rest is half of what both do together.
    expect(found?.map((e) => Math.round(e.change))).toEqual([-4, 5, 2]);
    expect(found?.every((e) => e.corrected < 0.05)).toBe(true);
    expect(factorialEffects(made.slice(0, 3).map((m) => ({ ...m, first: 0, second: 0 })))).toBeUndefined();
  });
});

describe('orders', () => {
  it('have each state as often as asked, and of two states a straight drift falls out of every four', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 8 }),
        fc.integer({ min: 1, max: 12 }),
        fc.integer({ min: 0, max: 1e6 }),
        (states, n, seed) => {
          const order = orderOf(states, n, seed);
          expect(order).toBe(orderOf(states, n, seed));
          for (const s of 'ABCDEFGH'.slice(0, states))
            expect([...order].filter((o) => o === s)).toHaveLength(n);
          if (states === 2)
            for (let i = 0; i + 4 <= order.length; i += 4)
              expect(['ABBA', 'BAAB']).toContain(order.slice(i, i + 4));
        },
      ),
      { numRuns: runs(200) },
    );
    expect(orderOf(2, 3, 1, true)).toBe('AAABBB');
  });
  it('a plan says its chance, and what it takes', () => {
    const d = designOf({ question: 'cooler', arms: 2, factorial: false, seed: 1 });
    expect(d.chance).toBeGreaterThanOrEqual(0.8);
    expect(d.runs).toBe(d.runsFor80);
    expect(d.settle?.ground).toBe('usual');
    const three = designOf({ question: 'cooler', arms: 2, factorial: false, seed: 1, runs: 3 });
    expect(three.chance).toBe(0);
    expect(three.runsFor80).toBe(d.runs);
    const finer = designOf({ question: 'cooler', arms: 2, factorial: false, seed: 1, matters: 1 });
    expect(finer.runs).toBeGreaterThan(d.runs);
    const measured = designOf(
      { question: 'cooler', arms: 2, factorial: false, seed: 1 },
      { spread: { value: 0.3, ground: 'measured here' }, tau: { value: 1200, ground: 'measured here' } },
    );
    expect(measured.runs).toBeLessThanOrEqual(d.runs);
    expect(measured.settle?.seconds).toBe(Math.round(settleTime(1200)));
    expect(designOf({ question: 'faster network', arms: 2, factorial: false, seed: 1 }).settle).toBeNull();
    expect(runsFor(0.001, 1)).toBeUndefined();
  });
});

describe('whether it has settled', () => {
  it('three readings at equal distances: 30, 50, 60 end at 70 (worked example of the trade)', () => {
    expect(endOfThree(30, 50, 60)).toBe(70);
    expect(endOfThree(30, 50, 70)).toBeUndefined();
    expect(endOfThree(30, 50, 45)).toBeUndefined();
    expect(endOfThree(30, 30, 30)).toBeUndefined();
    fc.assert(
      fc.property(
        figure,
        fc.double({ min: 1, max: 1e4, noNaN: true }),
        fc.double({ min: 0.05, max: 0.9, noNaN: true }),
        (end, start, ratio) => {
          const got = endOfThree(end - start, end - start * ratio, end - start * ratio * ratio);
          expect(Math.abs((got ?? NaN) - end)).toBeLessThan(1e-3 * (Math.abs(end) + start));
        },
      ),
      { numRuns: runs(200) },
    );
  });
  it('an exact curve is found again, up or down', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 20, max: 95, noNaN: true }),
        fc.double({ min: 5, max: 60, noNaN: true }),
        fc.boolean(),
        fc.double({ min: 60, max: 1200, noNaN: true }),
        (end, span, up, tau) => {
          const t = Array.from({ length: 300 }, (_, i) => (i * 4 * tau) / 300);
          const y = t.map((s) => end + (up ? -span : span) * Math.exp(-s / tau));
          const fit = fitSettling(t, y);
          expect(Math.abs((fit?.final ?? NaN) - end)).toBeLessThan(0.02);
          expect(Math.abs((fit?.tau ?? NaN) / tau - 1)).toBeLessThan(0.02);
          expect(fit && stillToGo(fit, 4 * tau)).toBeCloseTo(span * Math.exp(-4), 1);
        },
      ),
      { numRuns: runs(40) },
    );
  });
  it('says that it is level, not yet, or that it is too early to tell', () => {
    const normal = normalFrom(randomFrom(2));
    const t = Array.from({ length: 400 }, (_, i) => i);
    expect(
      judgeSteady(
        t,
        t.map(() => 61 + 0.1 * normal()),
      ).code,
    ).toBe('level');
    expect(judgeSteady([0, 1, 2], [20, 30, 35]).code).toBe('too short');
    const slow = judgeSteady(
      t,
      t.map((s) => 80 - 55 * Math.exp(-s / 1200) + 0.3 * normal()),
    );
    expect(['not yet', 'open']).toContain(slow.code);
    const early = judgeSteady(
      t.slice(0, 40),
      t.slice(0, 40).map((s) => 80 - 55 * Math.exp(-s / 1200) + 0.4 * normal()),
    );
    expect(early.code).toBe('open');
  });
  it('cuts a boost window off, and only one that is one', () => {
    const normal = normalFrom(randomFrom(5));
    const t = Array.from({ length: 500 }, (_, i) => i);
    const watts = t.map((s) => (s < 28 ? 54 : 45) + 0.4 * normal());
    expect(boostEnds(t, watts)).toBe(28);
    expect(
      boostEnds(
        t,
        t.map(() => 45 + 0.4 * normal()),
      ),
    ).toBe(0);
    expect(
      boostEnds(
        t,
        t.map((s) => (s < 400 ? 54 : 45)),
      ),
    ).toBe(0);
  });
});

describe('frames', () => {
  const series = (n: number, hang: number, seed: number): Float64Array => {
    const normal = normalFrom(randomFrom(seed));
    let x = 0;
    return Float64Array.from({ length: n }, () => {
      x = hang * x + Math.sqrt(1 - hang * hang) * normal();
      return 16 * Math.exp(0.1 * x);
    });
  };
  it('names both meanings of the 1 % low, and the average is the lower', () => {
    const r = judgeFrames(series(4000, 0.7, 1), null);
    if (!r) throw new Error('not judged');
    expect(r.lowAverage.value).toBeLessThan(r.lowPercentile.value);
    expect(r.lowPercentile.value).toBeLessThan(r.rate.value);
    // Both definitions of a percentile, named; of many frames they hardly differ.
    for (const t of r.times) expect(Math.abs(t.among - t.ms.value)).toBeLessThan(0.02 * t.ms.value + 0.2);
    expect(r.wanted ?? 0).toBeGreaterThan(368);
    const p99 = r.times.find((t) => t.p === 0.99)?.ms.value ?? 0;
    expect(1000 / p99).toBeCloseTo(r.lowPercentile.value, 9);
    for (const b of [r.rate, r.lowAverage, r.lowPercentile]) {
      expect(b.low).toBeLessThanOrEqual(b.value);
      expect(b.high).toBeGreaterThanOrEqual(b.value);
    }
    expect(judgeFrames(Float64Array.of(16), null)).toBeUndefined();
    const two = judgeFrames(Float64Array.of(10, 30), null);
    expect(two?.rate.value).toBe(50);
  });
  it('frames that hang together are worth fewer, and longer blocks are drawn', () => {
    expect(blockLength(series(4000, 0.9, 2))).toBeGreaterThan(blockLength(series(4000, 0, 2)));
    expect(inefficiency(series(8000, 0.9, 3))).toBeGreaterThan(3);
    expect(inefficiency(series(8000, 0, 3))).toBeLessThan(2);
    const x = series(3000, 0.9, 4);
    const wide = (length: number): number => {
      const [b] = blockBootstrap(x, sorted(x), [{ kind: 'mean' }], { length, seed: 1 });
      return (b?.high ?? 0) - (b?.low ?? 0);
    };
    expect(wide(40)).toBeGreaterThan(1.5 * wide(1));
    expect(
      blockBootstrap([7, 7, 7, 7], Float64Array.of(7, 7, 7, 7), [{ kind: 'mean' }], { length: 1 }),
    ).toEqual([{ value: 7, low: 7, high: 7 }]);
  });
  it('stutters are counted against the panel: none at an even pace, one for each late frame', () => {
    const even = Float64Array.from({ length: 600 }, () => 1000 / 60);
    expect(stuttersOf(even, { hz: 60, low: null, high: null }).count).toBe(0);
    const late = even.slice();
    late[100] = 2000 / 60;
    late[300] = 3000 / 60;
    expect(stuttersOf(late, { hz: 60, low: null, high: null }).count).toBe(2);
    // 40 frames a second on 60 Hz: refreshes of one and two take turns.
    const uneven = Float64Array.from({ length: 400 }, () => 25);
    expect(stuttersOf(uneven, { hz: 60, low: null, high: null }).count).toBeGreaterThan(150);
    expect(stuttersOf(uneven, { hz: 60, low: 36, high: 60 }).count).toBe(0);
    expect(
      stuttersOf(
        Float64Array.from({ length: 300 }, () => 1000 / 30),
        { hz: 60, low: null, high: null },
      ),
    ).toMatchObject({ count: 0, usual: 2 });
  });
  it('the 99th percentile has an interval from 368 frames on; one twice as narrow wants more', () => {
    // 0.99^n ≤ 0.025 (order statistics).
    expect(framesForInterval(0.99)).toBe(368);
    const r = sorted(series(20_000, 0, 6));
    const [wide, narrow] = [framesForWidth(r, 0.99, 0.05, 1), framesForWidth(r, 0.99, 0.02, 1)];
    expect(wide).toBeGreaterThanOrEqual(368);
    expect(narrow ?? 0).toBeGreaterThan(2 * (wide ?? 0));
    expect(framesForWidth(r, 0.99, 0.05, 4)).toBe(4 * (wide ?? 0));
  });
});

describe('pace of a picture', () => {
  it('even caps are whole divisors of the panel’s rate (common practice, no source)', () => {
    const fixed = { hz: 120, low: null, high: null };
    expect(evenCaps(fixed).map((c) => c.cap)).toEqual([120, 60, 40, 30, 24]);
    expect(capFor(fixed, 55)).toEqual({ cap: 40, stays: 3 });
    expect(capFor({ hz: 60, low: null, high: null }, 20)).toBeUndefined();
    expect(followedRates(fixed)).toBeNull();
  });
  it('in the range of a panel that follows, any rate is even; below it frames are shown twice where it can', () => {
    const panel = { hz: 144, low: 48, high: 144 };
    expect(followedRates(panel)).toEqual({ low: 24, high: 144 });
    expect(followedRates({ hz: 60, low: 40, high: 60 })).toEqual({ low: 40, high: 60 });
    expect(capFor(panel, 71.6)).toEqual({ cap: 71, stays: null });
    expect(capFor(panel, 400)).toEqual({ cap: 141, stays: null });
  });
});

describe('trade-offs', () => {
  const point = fc.record({ cost: fc.integer({ min: 1, max: 60 }), gain: fc.integer({ min: 1, max: 90 }) });
  it('what is beaten is beaten by something that is not', () => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 1, maxLength: 8 }), (list) => {
        const points = list.map((p, i): TradePoint => ({ key: String(i), ...p }));
        const beaten = dominated(points);
        const kept = points.filter((p) => !beaten.has(p.key));
        expect(kept.length).toBeGreaterThan(0);
        for (const p of points.filter((x) => beaten.has(x.key)))
          expect(kept.some((k) => k.cost <= p.cost && k.gain >= p.gain)).toBe(true);
        const knee = kneeOf(points);
        if (knee !== undefined) expect(beaten.has(knee)).toBe(false);
      }),
      { numRuns: runs(300) },
    );
  });
  it('the knee of a curve that flattens is where it bends; a straight line has none', () => {
    const of = (f: (w: number) => number): TradePoint[] =>
      [8, 12, 18, 24, 31].map((w) => ({ key: `${w} W`, cost: w, gain: f(w) }));
    // By hand: 18 W lies 0.39 above the line between the ends, 12 W 0.32, 24 W 0.26.
    expect(kneeOf(of((w) => 60 * (1 - Math.exp(-w / 6))))).toBe('18 W');
    expect(kneeOf(of((w) => 2 * w))).toBeUndefined();
    expect(kneeOf(of((w) => w * w))).toBeUndefined();
    expect(kneeOf(of(() => 50))).toBeUndefined();
    const sure = kneeChance(
      of((w) => 60 * (1 - Math.exp(-w / 6))).map((p) => ({
        ...p,
        runs: [p.gain - 0.1, p.gain, p.gain + 0.1],
      })),
      1,
    );
    expect(sure.chances[0]).toEqual({ key: '18 W', chance: 1 });
    // The scale of either axis does not matter.
    expect(kneeOf(of((w) => 1000 * (1 - Math.exp(-w / 6))))).toBe('18 W');
  });
});

describe('what a drive keeps up, and what a processor does not', () => {
  it('the end of a fast part is found with its bytes', () => {
    const normal = normalFrom(randomFrom(11));
    const t = Array.from({ length: 90 }, (_, i) => i + 1);
    const rates = t.map((s) => (s <= 31 ? 1.8e9 : 4.1e8) * (1 + 0.03 * normal()));
    const found = sustainedOf(t, rates);
    expect(found?.drop?.seconds).toBe(31);
    expect((found?.drop?.bytes ?? 0) / (31 * 1.8e9)).toBeCloseTo(1, 1);
    expect((found?.steady ?? 0) / 4.1e8).toBeCloseTo(1, 1);
    expect(
      sustainedOf(
        t,
        t.map(() => 5e8 * (1 + 0.03 * normal())),
      )?.drop,
    ).toBeNull();
    expect(
      sustainedOf(
        t,
        t.map((s) => (s < 20 ? 4e8 : 9e8)),
      )?.drop,
    ).toBeNull();
    expect(sustainedOf([1], [1])).toBeUndefined();
  });
  it('clocks that fall while it is hottest are throttling; clocks that fall when it is cool are not', () => {
    const t = Array.from({ length: 200 }, (_, i) => i);
    const clock = t.map((s) => (s < 80 ? 3600 : 2400));
    expect(
      throttlingOf(
        clock,
        t.map((s) => 40 + Math.min(56, s)),
      ),
    ).toMatchObject({ from: 3600, to: 2400 });
    expect(
      throttlingOf(
        clock,
        t.map((s) => (s < 60 ? 95 : 50)),
      ),
    ).toBeUndefined();
    expect(
      throttlingOf(
        t.map(() => 3600),
        t.map(() => 95),
      ),
    ).toBeUndefined();
  });
  it('one step is where two levels describe a series best', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 3, max: 60 }),
        fc.integer({ min: 3, max: 60 }),
        fc.integer({ min: 1, max: 100 }),
        (a, b, by) => {
          const found = oneStep([
            ...Array.from({ length: a }, () => 500),
            ...Array.from({ length: b }, () => 500 - by),
          ]);
          expect(found).toMatchObject({ at: a, before: 500, after: 500 - by });
          expect(found?.explained).toBeCloseTo(1, 9);
        },
      ),
      { numRuns: runs(100) },
    );
    expect(oneStep([1, 2, 3])).toBeUndefined();
  });
});

describe('what links allow', () => {
  it('SATA III carries 600 MB/s of drives and a gigabit wire 118.7 MB/s of payload; what passes them was something else', () => {
    // 6 Gb/s with 8 bits coded in 10 (SATA revision 3); 1460 of 1538 bytes of a full frame (IEEE 802.3).
    expect(allowedBy('drive', 540e6)).toMatchObject({
      by: { name: 'SATA 6 Gb/s', bytesPerSecond: 600e6 },
      share: 0.9,
    });
    const wire = allowedBy('wire', 117e6);
    expect(wire?.by.name).toBe('Ethernet 1 Gb/s');
    expect(wire?.by.bytesPerSecond).toBeCloseTo(118.66e6, -4);
    expect(wire?.not).toBe('Ethernet 100 Mb/s');
    expect(allowedBy('wire', 280e6)?.by.name).toBe('Ethernet 2.5 Gb/s');
    expect(allowedBy('drive', 20e9)).toBeUndefined();
    fc.assert(
      fc.property(
        fc.constantFrom('drive' as const, 'wire' as const),
        fc.integer({ min: 1, max: 1e9 }),
        (kind, rate) => {
          const found = allowedBy(kind, rate);
          expect(found?.share ?? 1).toBeGreaterThan(0);
          expect(found?.share ?? 1).toBeLessThanOrEqual(1);
          if (found) expect(rate).toBeLessThanOrEqual(found.by.bytesPerSecond * 1.0101);
        },
      ),
      { numRuns: runs(200) },
    );
  });
});

describe('heat, money and noise', () => {
  it('parts by their sensors, and how warm they may be (common practice, no source)', () => {
    expect(
      [
        'cputemp-pci-00c3, Tctl',
        'nvme-pci-0100, Composite',
        'drivetemp-scsi-0-0, temp1',
        'temperature BAT0',
        'gpu-pci-0400, edge',
        'acpitz, temp1',
      ].map(partOf),
    ).toEqual(['processor', 'solid-state drive', 'hard drive', 'battery', 'graphics', 'board']);
    expect(heatGrade('battery', 46)).toBe('check');
    expect(heatGrade('battery', 61)).toBe('stop');
    expect(heatGrade('solid-state drive', 71)).toBe('stop');
    expect(heatGrade('processor', 72)).toBe('fine');
  });
  it('a year at so many watts, minutes on a battery, and a fan at half its speed', () => {
    const r = runningCost(45, 24, 0.3);
    expect(r.yearly.kwh).toBeCloseTo(45 * 24 * 0.36525, 6);
    expect(r.yearly.money).toBeCloseTo(r.yearly.kwh * 0.3, 9);
    expect(batteryMinutes(40, 10)).toBe(240);
    expect(batteryMinutes(40, 10, 0.5)).toBe(120);
    // Fan affinity: 50 log10 of the ratio of speeds; half the speed is 15 dB less.
    expect(noiseChange(2000, 1000)).toBeCloseTo(-15.05, 2);
    expect(median([3, 1, 2])).toBe(2);
  });
});
