/**
 * Every statistic of stop 11 against SciPy and NumPy (Debian’s packages) on data by dice: with ties, constants, outliers, two
 * values and a million.
 */
import { blockBootstrap, blockLength, tailMean } from '@zb/core/tune/numbers/blocks';
import { deviation, quantile, quantileAmong, sorted } from '@zb/core/tune/numbers/describe';
import { normalFrom } from '@zb/core/tune/numbers/dice';
import {
  binomialCdf,
  normalCdf,
  normalQuantile,
  tCdf,
  tPower,
  tQuantile,
} from '@zb/core/tune/numbers/distributions';
import { fitSettling } from '@zb/core/tune/numbers/exponential';
import { holm } from '@zb/core/tune/numbers/holm';
import { driftFree, intervalOf, pOf, welch } from '@zb/core/tune/numbers/interval';
import { permutationTest } from '@zb/core/tune/numbers/permutation';
import { rankTest } from '@zb/core/tune/numbers/ranks';
import { framesForInterval, ranksOf } from '@zb/core/tune/frames';
import { randomFrom } from '@zb/core/units/random';
import { run } from './files';

const ALL = process.env.ZB_TUNE === 'all';
const ask = <T>(script: string, data: unknown): T =>
  JSON.parse(run('/usr/bin/python3', ['-c', script], JSON.stringify(data))) as T;
/** Equal to so many parts of the greater. */
const near = (a: number, b: number, share = 1e-9): boolean =>
  Math.abs(a - b) <= share * Math.max(1e-12, Math.abs(a), Math.abs(b)) + 1e-13;

/** Two lots of runs by dice: with ties, constants, outliers, unequal spread and size. */
function lots(count: number): [number[], number[]][] {
  const random = randomFrom(20261127);
  const normal = normalFrom(random);
  return Array.from({ length: count }, (_, i) => {
    const size = (): number => 2 + Math.floor(random() * (i % 9 === 0 ? 5 : 7));
    const kind = i % 6;
    const draw = (shift: number, spread: number): number => {
      const v = shift + spread * normal();
      if (kind === 1) return Math.round(v);
      if (kind === 2) return 7;
      if (kind === 3 && random() < 0.15) return v * 40;
      return v;
    };
    const shift = 50 + 4 * normal();
    return [
      Array.from({ length: size() }, () => draw(50, 1)),
      Array.from({ length: size() }, () => draw(shift, kind === 4 ? 6 : 1)),
    ];
  });
}

describe('distributions against scipy.stats', () => {
  const xs = [-38, -8, -3.3, -1, -1e-3, 0, 0.4, 1.7, 2.9, 6, 25];
  const dofs = [1, 2, 2.7, 5, 9, 30.5, 400, 1e5];
  const ps = [1e-9, 1e-4, 0.025, 0.2, 0.5, 0.7, 0.95, 0.999, 1 - 1e-9];
  const shifts: [number, number, number][] = [];
  for (const dof of [1, 2, 4, 8, 18, 60])
    for (const d of [0, 0.5, 2, 5, 9]) shifts.push([tQuantile(0.975, dof), dof, d]);
  const binomials: [number, number, number][] = [];
  for (const n of [1, 7, 367, 5000])
    for (const p of [0.01, 0.5, 0.99])
      for (const k of [-1, 0, 3, Math.floor(n * p), n]) binomials.push([k, n, p]);
  const truth = ask<{
    norm: number[];
    t: number[];
    tq: number[];
    nq: number[];
    power: number[];
    binom: number[];
  }>(
    `
import json, sys
from scipy import stats
d = json.load(sys.stdin)
json.dump({
  "norm": [stats.norm.cdf(x) for x in d["xs"]],
  "nq": [stats.norm.ppf(p) for p in d["ps"]],
  "t": [stats.t.cdf(x, n) for n in d["dofs"] for x in d["xs"]],
  "tq": [stats.t.ppf(p, n) for n in d["dofs"] for p in d["ps"]],
  "power": [1 - stats.nct.cdf(c, n, s) + stats.nct.cdf(-c, n, s) if s else 2*stats.t.sf(c, n) for c, n, s in d["shifts"]],
  "binom": [stats.binom.cdf(k, n, p) for k, n, p in d["binomials"]],
}, sys.stdout)`,
    { xs, dofs, ps, shifts, binomials },
  );
  test('normal', () => {
    xs.forEach((x, i) => expect(near(normalCdf(x), truth.norm[i] ?? NaN, 1e-9)).toBe(true));
    ps.forEach((p, i) => expect(near(normalQuantile(p), truth.nq[i] ?? NaN, 1e-8)).toBe(true));
  });
  test('Student’s t', () => {
    dofs
      .flatMap((n) => xs.map((x) => [x, n] as const))
      .forEach(([x, n], i) =>
        expect([x, n, near(tCdf(x, n), truth.t[i] ?? NaN, 1e-8)]).toEqual([x, n, true]),
      );
    dofs
      .flatMap((n) => ps.map((p) => [p, n] as const))
      .forEach(([p, n], i) =>
        expect([p, n, near(tQuantile(p, n), truth.tq[i] ?? NaN, 1e-6)]).toEqual([p, n, true]),
      );
  });
  test('power of the t test', () => {
    shifts.forEach(([c, n, d], i) => {
      expect([n, d, Math.abs(tPower(c, n, d) - (truth.power[i] ?? NaN)) < 1e-6]).toEqual([n, d, true]);
    });
  });
  test('binomial', () => {
    binomials.forEach(([k, n, p], i) =>
      expect([k, n, p, near(binomialCdf(k, n, p), truth.binom[i] ?? NaN, 1e-8)]).toEqual([k, n, p, true]),
    );
  });
});

describe('two lots of runs against scipy.stats', () => {
  const data = lots(ALL ? 600 : 120);
  const truth = ask<
    {
      perm: number;
      welch: [number, number, number, number] | null;
      u: number;
      rank: number | null;
      drift: [number, number, number] | null;
    }[]
  >(
    `
import json, sys, numpy as np
from scipy import stats
def drift(a, b):
    n = len(a) + len(b)
    at = np.arange(n); side = np.r_[np.zeros(len(a)), np.ones(len(b))]
    order = np.argsort(np.r_[np.arange(len(a))*2, np.arange(len(b))*2+1], kind="stable")
    place = np.empty(n); place[order] = at
    X = np.c_[np.ones(n), side, place]
    y = np.r_[a, b]
    if n < 4: return None
    beta, rss, rank, _ = np.linalg.lstsq(X, y, rcond=None)
    if rank < 3 or n == 3: return None
    s2 = float(((y - X @ beta)**2).sum()) / (n - 3)
    se = float(np.sqrt(s2 * np.linalg.inv(X.T @ X)[1, 1]))
    return [float(beta[1]), se, n - 3]
out = []
for a, b in json.load(sys.stdin):
    a, b = np.array(a), np.array(b)
    perm = stats.permutation_test((b, a), lambda x, y: x.mean() - y.mean(), n_resamples=np.inf, vectorized=False)
    w = None
    if np.ptp(a) or np.ptp(b):
        r = stats.ttest_ind(b, a, equal_var=False)
        va, vb = a.var(ddof=1)/len(a), b.var(ddof=1)/len(b)
        dof = (va+vb)**2/(va**2/(len(a)-1)+vb**2/(len(b)-1))
        half = stats.t.ppf(.975, dof)*np.sqrt(va+vb)
        d = b.mean()-a.mean()
        w = [float(d), float(d-half), float(d+half), float(r.pvalue)]
    both = np.r_[a, b]
    ties = len(set(both)) < len(both)
    m = stats.mannwhitneyu(b, a, method="exact") if not ties else stats.mannwhitneyu(b, a, method="asymptotic")
    out.append({"perm": float(perm.pvalue), "welch": w, "u": float(m.statistic), "rank": None if ties else float(m.pvalue), "drift": drift(a, b)})
json.dump(out, sys.stdout)`,
    data,
  );
  test('permutation test, all arrangements', () => {
    data.forEach(([a, b], i) => {
      const t = truth[i]?.perm ?? NaN;
      // SciPy doubles the lesser tail; with sides of one size, or no ties in the sums, both agree.
      const ours = permutationTest(a, b);
      if (a.length === b.length) expect([i, near(ours.p, t, 1e-9)]).toEqual([i, true]);
      expect(ours.p).toBeLessThanOrEqual(1);
      expect(ours.p).toBeGreaterThanOrEqual(ours.least - 1e-12);
    });
  });
  test('Welch’s difference, interval and p', () => {
    data.forEach(([a, b], i) => {
      const t = truth[i]?.welch;
      const e = welch(a, b);
      if (!e) throw new Error('no estimate');
      if (!t) {
        expect(e.error).toBe(0);
        return;
      }
      const { low, high } = intervalOf(e);
      expect([
        near(e.change, t[0], 1e-7),
        near(low, t[1], 1e-6),
        near(high, t[2], 1e-6),
        near(pOf(e), t[3], 1e-5),
      ]).toEqual([true, true, true, true]);
    });
  });
  test('U, and its exact p where nothing is tied', () => {
    data.forEach(([a, b], i) => {
      const ours = rankTest(a, b);
      expect(ours.u).toBeCloseTo(truth[i]?.u ?? NaN, 9);
      const t = truth[i]?.rank;
      if (t != null) expect([i, near(ours.p, t, 1e-9)]).toEqual([i, true]);
    });
  });
  test('difference with the drift taken out against least squares of NumPy', () => {
    let looked = 0;
    data.forEach(([a, b], i) => {
      const t = truth[i]?.drift;
      const places = [
        ...a.map((_, k) => ({ side: 0, key: 2 * k })),
        ...b.map((_, k) => ({ side: 1, key: 2 * k + 1 })),
      ].sort((x, y) => x.key - y.key);
      const at = (side: number, k: number): number =>
        places.findIndex((p) => p.side === side && p.key === 2 * k + side);
      const e = driftFree(
        a.map((value, k) => ({ value, at: at(0, k) })),
        b.map((value, k) => ({ value, at: at(1, k) })),
      );
      if (!t || !e) return;
      looked += 1;
      expect([near(e.change, t[0], 1e-6), near(e.error, t[1], 1e-5) || t[1] < 1e-9, e.dof]).toEqual([
        true,
        true,
        t[2],
      ]);
    });
    expect(looked).toBeGreaterThan(60);
  });
});

test('Holm’s correction by its definition, worked out in Python', () => {
  const random = randomFrom(5);
  const ps = Array.from({ length: 40 }, (_, i) =>
    Array.from({ length: 1 + (i % 9) }, () => Math.round(random() * 50) / 500),
  );
  const truth = ask<number[][]>(
    `
import json, sys
def holm(ps):
    m = len(ps)
    return [max(min(1, (m - k) * q) for k, q in enumerate(sorted(ps)) if q <= p) for p in ps]
json.dump([holm(p) for p in json.load(sys.stdin)], sys.stdout)`,
    ps,
  );
  ps.forEach((p, i) => holm(p).forEach((v, k) => expect(v).toBeCloseTo(truth[i]?.[k] ?? NaN, 12)));
});

test('quantiles by their two definitions, and the mean of a tail, against NumPy; two values and a million', () => {
  const random = randomFrom(9);
  const sets = [
    [1, 2],
    [5, 5, 5, 5],
    Array.from({ length: 100 }, () => Math.round(random() * 20)),
    Array.from({ length: 1001 }, () => random() * 16),
    Array.from({ length: 37 }, (_, i) => (i === 3 ? 1e9 : random())),
  ];
  const ps = [0, 0.01, 0.25, 0.5, 0.95, 0.99, 0.999, 1];
  const script = `
import json, sys, numpy as np
d = json.load(sys.stdin)
out = []
for s in d["sets"]:
    x = np.array(s, dtype=float)
    out.append([[float(np.quantile(x, p, method=m)) for p in d["ps"]] for m in ("linear", "inverted_cdf")] + [float(x.std(ddof=1))])
big = np.sin(np.arange(1, 1000001) * 12.9898) * 43758.5453
big = big - np.floor(big)
out.append([[float(np.quantile(big, p)) for p in d["ps"]], float(np.sort(big)[-10000:].mean())])
json.dump(out, sys.stdout)`;
  const truth = ask<[number[], number[], number][]>(script, { sets, ps });
  sets.forEach((s, i) => {
    const r = sorted(s);
    ps.forEach((p, k) => {
      expect(quantile(r, p)).toBeCloseTo(truth[i]?.[0][k] ?? NaN, 9);
      expect(quantileAmong(r, p)).toBe(truth[i]?.[1][k]);
    });
    expect(near(deviation(s), truth[i]?.[2] ?? NaN, 1e-9)).toBe(true);
  });
  const big = sorted(
    Float64Array.from({ length: 1e6 }, (_, i) => {
      const v = Math.sin((i + 1) * 12.9898) * 43758.5453;
      return v - Math.floor(v);
    }),
  );
  const last = truth[sets.length] as unknown as [number[], number];
  ps.forEach((p, k) => expect(Math.abs(quantile(big, p) - (last[0][k] ?? NaN))).toBeLessThan(1e-6));
  expect(Math.abs(tailMean(big, 0.99) - last[1])).toBeLessThan(1e-6);
});

describe('blocks of frames that hang together', () => {
  /** Frame times of a kind: an autoregression in their logarithm. */
  const series = (seed: number, n: number, hang: number): Float64Array => {
    const normal = normalFrom(randomFrom(seed));
    let x = normal();
    return Float64Array.from({ length: n }, () => {
      x = hang * x + Math.sqrt(1 - hang * hang) * normal();
      return 16 * Math.exp(0.12 * x);
    });
  };

  test('length of a block by Politis and White, against the same worked out in NumPy', () => {
    const all = [0, 0.3, 0.8, 0.95].flatMap((h, i) => [series(i + 1, 900, h), series(i + 50, 4000, h)]);
    const truth = ask<number[]>(
      `
import json, sys, numpy as np
def length(x):
    # Politis & White (2004), circular, with the correction of Patton, Politis & White (2009)
    x = np.asarray(x); n = len(x); e = x - x.mean()
    kn = max(5, int(np.ceil(np.sqrt(np.log10(n))))); most = int(np.ceil(np.sqrt(n))) + kn
    R = np.array([(e[k:] * e[:n-k]).sum() / n for k in range(most + 1)]); rho = R / R[0]
    bound = 2 * np.sqrt(np.log10(n) / n)
    m = next((m for m in range(most - kn) if (np.abs(rho[m+1:m+1+kn]) < bound).all()), most - kn)
    M = min(2 * max(1, m), most)
    k = np.arange(-M, M + 1); t = np.abs(k) / M
    lam = np.where(t <= .5, 1, 2 * (1 - t))
    G = (lam * np.abs(k) * R[np.abs(k)]).sum(); g0 = (lam * R[np.abs(k)]).sum()
    b = (2 * G * G / (4/3 * g0 * g0)) ** (1/3) * n ** (1/3)
    return int(max(1, min(np.ceil(b), n // 3, np.ceil(3 * np.sqrt(n)))))
json.dump([length(x) for x in json.load(sys.stdin)], sys.stdout)`,
      all.map((a) => Array.from(a)),
    );
    expect(all.map((a) => blockLength(a))).toEqual(truth);
  });

  test('intervals against a block bootstrap in NumPy that sorts every draw, within Monte Carlo error', () => {
    const x = series(77, 6000, 0.8);
    const length = blockLength(x);
    const truth = ask<Record<'mean' | 'p99' | 'tail', [number, number]>>(
      `
import json, sys, numpy as np
d = json.load(sys.stdin); x = np.array(d["x"]); L = d["length"]; n = len(x)
rng = np.random.default_rng(3); B = 1500
blocks = -(-n // L); wrap = np.r_[x, x]
out = {"mean": [], "p99": [], "tail": []}
for _ in range(B):
    s = rng.integers(0, n, blocks)
    y = np.sort(np.concatenate([wrap[i:i+L] for i in s])[:n])
    out["mean"].append(y.mean()); out["p99"].append(np.quantile(y, .99)); out["tail"].append(y[-n//100:].mean())
json.dump({k: [float(np.quantile(v, q)) for q in (.025, .975)] for k, v in out.items()}, sys.stdout)`,
      { x: Array.from(x), length },
    );
    const rising = sorted(x);
    const [mean, p99, tail] = blockBootstrap(
      x,
      rising,
      [{ kind: 'mean' }, { kind: 'quantile', p: 0.99 }, { kind: 'tail', p: 0.99 }],
      { draws: 3000, seed: 4, length },
    );
    for (const [ours, t] of [
      [mean, truth.mean],
      [p99, truth.p99],
      [tail, truth.tail],
    ] as const) {
      const width = t[1] - t[0];
      expect(Math.abs((ours?.low ?? NaN) - t[0])).toBeLessThan(0.12 * width);
      expect(Math.abs((ours?.high ?? NaN) - t[1])).toBeLessThan(0.12 * width);
    }
  });

  test('their intervals hold the truth about as often as they say', () => {
    const runs = ALL ? 1500 : 150;
    // The 99th percentile of a log-normal: 16 e^(0.12 × 2.3263).
    const truth = 16 * Math.exp(0.12 * 2.3263478740408408);
    let held = 0;
    for (let i = 0; i < runs; i += 1) {
      const x = series(1000 + i, 8000, 0.8);
      const [p] = blockBootstrap(x, sorted(x), [{ kind: 'quantile', p: 0.99 }], { draws: 400, seed: i });
      if (p && p.low <= truth && truth <= p.high) held += 1;
    }
    // Known to be a little short of 95 % for far percentiles; more would show here.
    expect(held / runs).toBeGreaterThan(0.9);
    expect(held / runs).toBeLessThan(0.985);
  });
});

test('ranks between which a percentile lies, and the fewest frames, against scipy.stats.binom', () => {
  const asked = [
    [3600, 0.99],
    [367, 0.99],
    [20, 0.5],
    [10000, 0.999],
    [5, 0.5],
  ];
  const truth = ask<{ ranks: [number, number][]; fewest: number[] }>(
    `
import json, sys
from scipy.stats import binom
asked = json.load(sys.stdin)
def fewest(p):
    n = 1
    while binom.cdf(0, n, 1-p) > .025 or p**n > .025: n += 1
    return n
json.dump({"ranks": [[int(binom.ppf(.025, n, p)) - 1, int(binom.ppf(.975, n, p))] for n, p in asked],
           "fewest": [fewest(p) for p in (.5, .9, .99, .999)]}, sys.stdout)`,
    asked,
  );
  asked.forEach(([n = 0, p = 0], i) => {
    const [low, high] = ranksOf(n, p);
    expect([low, Math.min(high, n - 1)]).toEqual([
      truth.ranks[i]?.[0],
      Math.min(truth.ranks[i]?.[1] ?? NaN, n - 1),
    ]);
  });
  expect([0.5, 0.9, 0.99, 0.999].map((p) => framesForInterval(p))).toEqual(truth.fewest);
});

test('curves that settle against scipy.optimize.curve_fit', () => {
  const normal = normalFrom(randomFrom(31));
  const curves = [
    { end: 71, start: -46, tau: 180, seconds: 900 },
    { end: 88, start: -60, tau: 1200, seconds: 5400 },
    { end: 60, start: 22, tau: 400, seconds: 1500 },
    { end: 70, start: -40, tau: 600, seconds: 700 },
  ].map((c) => {
    const t = Array.from({ length: c.seconds / 5 }, (_, i) => 5 * i);
    return { ...c, t, y: t.map((s) => c.end + c.start * Math.exp(-s / c.tau) + 0.3 * normal()) };
  });
  const truth = ask<[number, number, number][]>(
    `
import json, sys, numpy as np
from scipy.optimize import curve_fit
out = []
for c in json.load(sys.stdin):
    t, y = np.array(c["t"]), np.array(c["y"])
    f = lambda t, a, b, tau: a + b * np.exp(-t / tau)
    p, cov = curve_fit(f, t, y, p0=[c["end"], c["start"], c["tau"]])
    out.append([float(p[0]), float(p[2]), float(np.sqrt(cov[0, 0]))])
json.dump(out, sys.stdout)`,
    curves,
  );
  curves.forEach((c, i) => {
    const fit = fitSettling(c.t, c.y);
    const [end, tau, error] = truth[i] ?? [NaN, NaN, NaN];
    // Readings beyond 400 are put together first, which moves the fit by much less than its error.
    expect(Math.abs((fit?.final ?? NaN) - end)).toBeLessThan(0.1 * error);
    expect(near(fit?.tau ?? NaN, tau, 2e-3)).toBe(true);
    // The range is that of a profile: about two standard errors either way, wider above where the curve is still open.
    expect((fit?.high ?? NaN) - end).toBeGreaterThan(1.6 * error);
    expect((fit?.high ?? NaN) - end).toBeLessThan(4 * error);
    expect(end - (fit?.low ?? NaN)).toBeGreaterThan(1.3 * error);
    expect(end - (fit?.low ?? NaN)).toBeLessThan(3 * error);
  });
});
