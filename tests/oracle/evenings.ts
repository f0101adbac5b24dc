/**
 * Evenings on the stand-in machine by the thousand, in a process of their own: under the test runner the same reckoning takes ten
 * times as long. Arguments: what is played, how often, and for “coverage” how long an endless run is; prints JSON.
 */
import { kneeChance, kneeOf, type TradePoint } from '@zb/core/tune/knee';
import { quantile, sorted } from '@zb/core/tune/numbers/describe';
import { asItComes, runStandIn, settledTruth, standInTruth } from '@zb/core/tune/standin/machine';
import { CODES, evening, oneRun } from './standin';

const [kind = '', count = '0', long = '20000'] = process.argv.slice(2);
const times = Number(count);
const m = standInTruth();

/** The 99th percentile of frame times of an endless run with nothing that differs from run to run, as a rate. */
function endlessLow(set: ReturnType<typeof asItComes>): number {
  const { frames } = runStandIn({ ...m, runShare: 0 }, set, {
    seed: 12345,
    settle: 0,
    measure: Number(long),
  });
  return 1000 / quantile(sorted(frames), 0.99);
}

/** In how many evenings the interval of each quantity held the truth. */
function coverage(): Record<string, number> {
  const [before, after] = [asItComes(), { ...asItComes(), limit: 22, boost: false }];
  const [a, b] = [settledTruth(m, before), settledTruth(m, after)];
  const truth = {
    hottest: b.die - a.die,
    wall: b.wallWatts - a.wallWatts,
    rate: b.rate - a.rate,
    'low percentile': endlessLow(after) - endlessLow(before),
  };
  const held: Record<string, number> = Object.fromEntries(CODES.map((c) => [c, 0]));
  for (let i = 0; i < times; i += 1) {
    const judged = evening(m, before, after, 5, i + 1);
    for (const code of CODES) {
      const { low, high } = judged[code];
      if (low !== null && high !== null && low <= truth[code] && truth[code] <= high)
        held[code] = (held[code] ?? 0) + 1;
    }
  }
  return held;
}

/** In how many evenings without any change something was called better or worse. */
function alarms(): { alarms: number } {
  let out = 0;
  for (let i = 0; i < times; i += 1) {
    const judged = evening(m, asItComes(), asItComes(), 5, 50_000 + i);
    if (CODES.some((c) => judged[c].outcome === 'better' || judged[c].outcome === 'worse')) out += 1;
  }
  return { alarms: out };
}

/** How often the knee of a ladder was found within one step of the true one. */
function knees(): { truth: string | undefined; near: number } {
  const sets = [6, 9, 13, 18, 24, 31].map((limit) => ({ ...asItComes(), limit, boost: false }));
  const ends = sets.map((s) => settledTruth(m, s));
  const truth = kneeOf(ends.map((e, i) => ({ key: String(i), cost: e.wallWatts, gain: e.rate })));
  let near = 0;
  for (let k = 0; k < times; k += 1) {
    const points = sets.map((s, i): TradePoint => {
      const runs = [0, 1, 2, 3].map((r) =>
        oneRun(m, s, 9_000_000 + k * 100 + i * 10 + r, r * sets.length + i),
      );
      const mean = (code: string): number => runs.reduce((sum, r) => sum + (r[code] ?? 0), 0) / runs.length;
      return { key: String(i), cost: mean('wall'), gain: mean('rate'), runs: runs.map((r) => r.rate ?? 0) };
    });
    const { knee } = kneeChance(points, k, 200);
    if (knee !== undefined && Math.abs(Number(knee) - Number(truth)) <= 1) near += 1;
  }
  return { truth, near };
}

const WAYS: Record<string, () => object> = { coverage, alarms, knees };
process.stdout.write(JSON.stringify(WAYS[kind]?.() ?? {}));
