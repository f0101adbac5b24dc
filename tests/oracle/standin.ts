import { judgeTogether, type Judged } from '@zb/core/tune/compare';
import { orderOf } from '@zb/core/tune/order';
import { mattersOf, quantities, usualSpread } from '@zb/core/tune/quantities';
import { runStandIn, type StandInSet, type StandInTruth } from '@zb/core/tune/standin/machine';
import { mean, quantile, sorted } from '@zb/core/tune/numbers/describe';
import type { QuantityCode } from '@zb/core/model/tune';

export const CODES = ['hottest', 'wall', 'rate', 'low percentile'] as const satisfies readonly QuantityCode[];

const SETTLE = 1400;
const MEASURE = 60;

/** The figures of one run; its reading from a log is tested by itself, and costs a fit each time. */
export function oneRun(
  m: StandInTruth,
  set: StandInSet,
  seed: number,
  place: number,
): Record<string, number> {
  const run = runStandIn(m, set, { seed, place, settle: SETTLE, measure: MEASURE, from: 60 });
  const late = (v: Float64Array): number => mean(v.subarray(v.length - MEASURE));
  const frames = sorted(run.frames);
  const time = run.frames.reduce((s, f) => s + f, 0);
  return {
    hottest: late(run.die),
    wall: late(run.wallWatts),
    rate: (1000 * run.frames.length) / time,
    'low percentile': 1000 / quantile(frames, 0.99),
  };
}

/** A whole evening on the stand-in: both states in a counterbalanced order, judged together. */
export function evening(
  m: StandInTruth,
  before: StandInSet,
  after: StandInSet,
  runs: number,
  seed: number,
): Record<(typeof CODES)[number], Judged> {
  const order = orderOf(2, runs, seed);
  const made = [...order].map((arm, place) => ({
    arm,
    place,
    values: oneRun(m, arm === 'A' ? before : after, seed * 1000 + place, place),
  }));
  const judged = judgeTogether(
    made.map((r) => ({ arm: r.arm, at: r.place, values: CODES.map((c) => r.values[c]) })),
    'A',
    CODES.map((code) => {
      const was = made.find((r) => r.arm === 'A')?.values[code] ?? 1;
      return {
        better: quantities[code].better,
        matters: mattersOf(code, was),
        usual: usualSpread(code, was),
      };
    }),
  );
  return Object.fromEntries(CODES.map((c, i) => [c, judged.find((j) => j.column === i)?.judged])) as Record<
    (typeof CODES)[number],
    Judged
  >;
}
