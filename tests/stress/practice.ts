import {
  attemptSchema,
  practiceActsSchema,
  practiceSeedSchema,
  type PracticeAct,
} from '@zb/core/model/practice';
import { exercises } from '@zb/core/practice/exercises';
import { ownExercise, ownSetup } from '@zb/core/practice/own';
import { play, Playing, PracticeError, type Exercise } from '@zb/core/practice/play';
import { fullBench, hostileBench } from '../../packages/core/test/hostileBench';
import type { Bench } from './part';

const SEEDS = [0, 1, 2 ** 31 - 1, 2 ** 31, 2 ** 32 - 1];
/** None of these is a seed. */
const NO_SEEDS: unknown[] = [-1, 0.5, 2 ** 32, Number.NaN, Infinity, '1', null, -0.5, 2 ** 53];
const MOST = 60;

/** Exercises by odd seeds and acts: acts that are not on offer are refused, the same acts stand the same, none goes on for ever. */
export function practiceKinds({ random, wrong }: Bench): Record<string, () => unknown> {
  // Made once: a bench of hostile texts takes longer to make than an exercise to play.
  const { hostile } = hostileBench(fullBench(), random.int(0, 100));
  const own = hostile.boxes.flatMap((b): Exercise[] => {
    const setup = ownSetup(hostile, b);
    return 'code' in setup ? [] : [ownExercise(setup)];
  });
  return {
    'practice seeds': () => {
      const odd = random.pick(NO_SEEDS);
      if (practiceSeedSchema.safeParse(odd).success) wrong(`${String(odd)} is taken for a seed`);
      const exercise = random.pick(random.chance(0.1) && own.length > 0 ? own : exercises);
      const seed = random.chance(0.4) ? random.pick(SEEDS) : random.int(0, 2 ** 31);
      const playing = new Playing(exercise, seed);
      const acts: PracticeAct[] = [];
      for (let i = random.int(0, MOST); i > 0; i -= 1) {
        const { offers, end } = playing.stands();
        const junk = random.chance(0.05);
        const act: PracticeAct = junk
          ? {
              do: random.pick(['', 'constructor', '__proto__', 'hint', 'toString', 'x']),
              on: random.pick(['a', '__proto__']),
            }
          : end === null && offers.length > 0
            ? random.pick(offers).act
            : { do: 'wait' };
        try {
          playing.take(act);
          acts.push(act);
        } catch (error) {
          if (!(error instanceof PracticeError)) throw error;
          if (end === null && !junk && offers.length > 0)
            wrong(`${exercise.id}, ${seed}: what is on offer is refused`);
        }
      }
      const stands = JSON.stringify(playing.stands());
      if (JSON.stringify(play(exercise, seed, acts)) !== stands)
        wrong(`${exercise.id}, ${seed}: the same acts stand otherwise`);
      const { score } = playing.stands();
      if (score < 0 || score > 100) wrong(`${exercise.id}, ${seed}: a score of ${score}`);
    },
    'attempts of somebody else': () => {
      const exercise = random.pick(exercises);
      const acts = Array.from({ length: random.int(0, 400) }, () => ({
        do: random.pick(['wait', 'hint', 'x']),
        times: random.pick([1, 9999, 50]),
      }));
      const read = practiceActsSchema.safeParse(acts);
      if (!read.success) return;
      if (!attemptSchema.shape.acts.safeParse(acts).success)
        wrong('acts are taken alone, and not in an attempt');
      try {
        play(exercise, 1, read.data);
      } catch (error) {
        if (!(error instanceof PracticeError)) throw error;
      }
    },
  };
}
