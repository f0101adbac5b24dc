import { gamesSeed, gamesTune } from '@zb/core/demo/tune';
import type { QuantityCode } from '@zb/core/model/tune';
import { stuttersOf } from '@zb/core/tune/frames';
import { mean, quantile, sorted } from '@zb/core/tune/numbers/describe';
import { traceOf } from '@zb/core/tune/runValues';
import { asItComes, runStandIn, settledTruth, standInTruth } from '@zb/core/tune/standin/machine';
import { standInSet } from '@zb/core/tune/standin/sets';

/** What the stand-in machine gives for every run of the demo’s experiments, in their order. */
export function playedGames(): {
  experimentId: string;
  place: number;
  tau: number;
  frameCount: number;
  values: Partial<Record<QuantityCode, number>>;
  heat: { t: number[]; v: number[] };
}[] {
  const plan = gamesTune();
  const m = { ...standInTruth(), room: 19.5 };
  const warm = settledTruth(m, asItComes()).die;
  return plan.experiments.flatMap((e, k) =>
    [...e.order].map((letter, place) => {
      const sets = e.arms.find((a) => a.arm === letter)?.sets ?? {};
      const before: Record<string, string> =
        k === 0 ? { paste: 'as it came' } : { boost: 'off', paste: 'fresh' };
      const set = standInSet(plan.settings, { ...before, ...sets });
      const run = runStandIn(m, set, {
        seed: gamesSeed(k, place),
        place,
        settle: e.settleSeconds,
        measure: e.measureSeconds,
        // After the first run of an evening it is still warm.
        from: place === 0 ? 22 : 0.6 * warm,
      });
      const round = (v: number): number => Math.round(v * 100) / 100;
      const late = (v: Float64Array): number => round(mean(v.subarray(v.length - e.measureSeconds)));
      const frames = sorted(run.frames);
      const course = traceOf('processor package', '°C', run.t, run.die);
      return {
        experimentId: e.id,
        place,
        tau: Math.round(settledTruth(m, set).tau),
        frameCount: frames.length,
        values: {
          hottest: late(run.die),
          fan: late(run.fan),
          wall: late(run.wallWatts),
          rate: round((1000 * frames.length) / run.frames.reduce((s, f) => s + f, 0)),
          'low percentile': round(1000 / quantile(frames, 0.99)),
          'low average': round(1000 / mean(frames.subarray(Math.floor(frames.length * 0.99)))),
          stutters: round(stuttersOf(run.frames, plan.panel).perMinute),
        },
        // Every fourth point: enough for a picture of the demo.
        heat: {
          t: course.t.filter((_, i) => i % 4 === 0).map(Math.round),
          v: course.v.filter((_, i) => i % 4 === 0).map((v) => Math.round(v * 10) / 10),
        },
      };
    }),
  );
}
