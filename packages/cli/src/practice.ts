import { practiceActsSchema, practiceSeedSchema } from '@zb/core/model/practice';
import { exercises, findExercise } from '@zb/core/practice/exercises';
import { ownExercise, ownSetup } from '@zb/core/practice/own';
import { play, PracticeError, type Exercise, type Played } from '@zb/core/practice/play';
import { goals, ownGoal, type ExerciseWords } from '@zb/core/words/practice/goals';
import { noExerciseWords } from '@zb/core/words/practice/own';
import { hintWords, lossWords, offerWords, practiceWhy, practiceWords } from '@zb/core/words/practice/say';
import { boxOf, readBench } from './benchOutput';
import { InputError } from './inputFile';
import { readPlan } from './planFile';

/** What `zb practice` prints without an exercise: all that ship. */
export const exerciseList = () => exercises.map(({ id, stop }) => ({ id, stop, ...goals[id] }));

function made(
  id: string | undefined,
  own: { bench: string; box: string } | undefined,
): [Exercise, ExerciseWords] {
  if (own) {
    const bench = readBench(own.bench);
    const box = boxOf(bench, own.box);
    const setup = ownSetup(bench, box);
    if ('code' in setup) throw new InputError(noExerciseWords(setup));
    return [ownExercise(setup), ownGoal(box.name)];
  }
  const found = findExercise(id ?? '');
  if (!found)
    throw new InputError(
      `no exercise is called “${id ?? ''}”; there are ${exercises.map((e) => e.id).join(', ')}`,
    );
  return [found, goals[found.id] ?? ownGoal(found.id)];
}

/**
 * What `zb practice EXERCISE` prints: how it stands after some acts, what can be done, and what happened with its reasons.
 * `acts`: a JSON list of acts; none begins it. Throws InputError.
 */
export function practiceOutput(
  id: string | undefined,
  {
    seed,
    acts,
    own,
  }: { seed: string; acts: string | undefined; own: { bench: string; box: string } | undefined },
) {
  const number = practiceSeedSchema.safeParse(Number(seed)).data;
  if (number === undefined) throw new InputError('--seed takes a whole number from 0');
  const [exercise, words] = made(id, own);
  const done = acts === undefined ? [] : readPlan(acts, practiceActsSchema);
  let played: Played;
  try {
    played = play(exercise, number, done);
  } catch (error) {
    if (error instanceof PracticeError) throw new InputError(error.message);
    throw error;
  }
  const { happened, offers, hints, ...stands } = played;
  return {
    exercise: exercise.id,
    seed: number,
    ...words,
    ...stands,
    offers: offers.map((o) => ({ ...o.act, says: offerWords(exercise.id, o) })),
    happened: happened.map((h) => ({
      ...h,
      says: practiceWords(exercise.id, h),
      why: practiceWhy(exercise.id, h),
      lost: h.lost && { ...h.lost, says: lossWords(exercise.id, h.lost.what) },
    })),
    hints: hints.map((h) => hintWords(exercise.id, h)),
  };
}
