import {
  tunePlanSchema,
  type Experiment,
  type QuantityCode,
  type TunePlan,
  type TuneRun,
} from '../model/tune';
import { orderOf } from '../tune/order';
import { moment } from './make';
import { GAMES } from './tuneRuns';

const BOX = 'games-corner';
const LIMITS = ['31 W', '24 W', '18 W', '13 W', '9 W'];

const experiment = (
  e: Pick<Experiment, 'id' | 'question' | 'changes' | 'arms' | 'matters' | 'seed' | 'at'> & {
    runs: number;
    once?: boolean;
    kept?: Experiment['kept'];
    because?: string;
  },
): Experiment => {
  const { runs, once = false, kept = null, because = '', ...rest } = e;
  return {
    ...rest,
    order: orderOf(e.arms.length, runs, e.seed, once),
    settleSeconds: 740,
    measureSeconds: 60,
    coolSeconds: 0,
    kept,
    because,
  };
};

/** What the games corner measured on the handheld: boost, new paste, and the ladder of its power limit. All of it is made up. */
export const gamesTune = (): TunePlan =>
  tunePlanSchema.parse({
    panel: { hz: 60 },
    batteryWattHours: 41,
    settings: [
      {
        id: 'boost',
        kind: 'boost',
        name: 'Boost',
        place: 'firmware',
        came: 'on',
        now: 'off',
        why: 'Three degrees cooler, and nobody in the hall saw a difference.',
        back: 'Switch it on again on the setup’s page for power.',
      },
      {
        id: 'paste',
        kind: 'paste and pads',
        name: 'Paste',
        place: 'machine',
        came: 'as it came',
        now: 'fresh',
        back: 'It cannot be taken back.',
      },
      {
        id: 'limit',
        kind: 'power limit',
        name: 'Power limit',
        place: 'firmware',
        came: '31 W',
        now: '31 W',
        back: 'Set 31 W, or load the setup’s defaults.',
      },
    ],
    experiments: [
      experiment({
        id: 'tune-boost',
        question: 'cooler',
        changes: ['boost'],
        arms: [
          { arm: 'A', sets: { boost: 'on' } },
          { arm: 'B', sets: { boost: 'off' } },
        ],
        matters: 3,
        seed: 11,
        runs: 4,
        at: moment(11),
        kept: 'B',
        because: 'It starts quieter, and costs no frames.',
      }),
      experiment({
        id: 'tune-paste',
        question: 'cooler',
        changes: ['paste'],
        arms: [
          { arm: 'A', sets: { paste: 'as it came' } },
          { arm: 'B', sets: { paste: 'fresh' } },
        ],
        matters: 2,
        seed: 12,
        runs: 3,
        once: true,
        at: moment(12),
        kept: 'B',
        because: 'It cannot be taken back.',
      }),
      experiment({
        id: 'tune-limit',
        question: 'more even',
        changes: ['limit'],
        arms: LIMITS.map((w, i) => ({ arm: 'ABCDE'[i], sets: { limit: w } })) as Experiment['arms'],
        matters: 2.5,
        seed: 13,
        runs: 4,
        at: moment(13),
      }),
    ],
  });

/** Figures of a run in the order in which they are written down. */
const FIGURES = [
  'hottest',
  'fan',
  'wall',
  'rate',
  'low percentile',
  'low average',
  'stutters',
] as const satisfies readonly QuantityCode[];

/** Readings of heat are this far apart, seconds; the first one comes early. */
const READING = { every: 16, first: 2 };

/** Seed of a run: of the experiment’s place in the plan, and the run’s in its order. */
export const gamesSeed = (experiment: number, place: number): number => 700 * (experiment + 1) + place;

/** How warm the room of the stand-in was in a run, to a tenth of a degree. */
const roomOf = (place: number): number => Math.round((21 + 0.05 * place) * 10) / 10;

/** Runs of it, as the stand-in machine made them by these seeds; written down, because playing them takes its time. */
export const gamesRuns = (): TuneRun[] =>
  gamesTune().experiments.flatMap((e, k) =>
    [...e.order].map((letter, place): TuneRun => {
      const run = GAMES[k]?.[place];
      if (!run) throw new RangeError(`no run ${place} of ${e.id} is written down`);
      const { figures, tau, frames, heat } = run;
      return {
        id: `${e.id}-${place}`,
        boxId: BOX,
        experimentId: e.id,
        arm: e.arms.find((a) => a.arm === letter)?.arm ?? 'A',
        place,
        at: moment(11 + k, 16 * place),
        room: roomOf(place),
        steady: true,
        tau,
        leftOut: '',
        values: Object.fromEntries(FIGURES.map((c, i) => [c, figures[i] ?? 0])),
        within: {},
        source: 'stand-in',
        from: `seed ${gamesSeed(k, place)}`,
        traces: [
          {
            what: 'processor package',
            unit: '°C',
            t: heat.map((_, i) => READING.first + READING.every * i),
            v: [...heat],
          },
        ],
        frames: [],
        frameCount: frames,
      };
    }),
  );
