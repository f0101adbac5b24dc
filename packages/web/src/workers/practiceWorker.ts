import type { PracticeAct } from '@zb/core/model/practice';
import { findExercise } from '@zb/core/practice/exercises';
import { ownExercise, type OwnSetup } from '@zb/core/practice/own';
import { PracticeError, Playing, type Played } from '@zb/core/practice/play';
import type { Told } from './elsewhere';

/** An exercise with a seed and what was done so far. */
export interface PracticeJob {
  /** One that ships, by its id, or one made from a box. */
  exercise: string | OwnSetup;
  seed: number;
  acts: PracticeAct[];
}

/** How an exercise stands, and after how many of the acts: fewer than were asked where one was not on offer any more. */
export interface PracticeStands {
  played: Played;
  kept: number;
}

const tell = (told: Told<PracticeStands, 'stopped'>): void => self.postMessage(told);

/** What was played last: most often the next question has one act more. */
let last: { key: string; acts: PracticeAct[]; playing: Playing } | null = null;

const begun = ({ exercise, seed }: PracticeJob): Playing => {
  const found = typeof exercise === 'string' ? findExercise(exercise) : ownExercise(exercise);
  if (!found) throw new RangeError(`no exercise is called ${JSON.stringify(exercise)}`);
  return new Playing(found, seed);
};

function standing(job: PracticeJob): PracticeStands {
  const key = JSON.stringify([job.exercise, job.seed]);
  const before = last;
  const goesOn =
    before?.key === key &&
    JSON.stringify(before.acts) === JSON.stringify(job.acts.slice(0, before.acts.length));
  const playing = before && goesOn ? before.playing : begun(job);
  const acts = before && goesOn ? [...before.acts] : [];
  // Should an act throw, nothing half-done is gone on from.
  last = null;
  for (const act of job.acts.slice(acts.length)) {
    try {
      playing.take(act);
    } catch (error) {
      if (!(error instanceof PracticeError)) throw error;
      break;
    }
    acts.push(act);
  }
  // An act of many beats that broke off half-way cannot be gone on from.
  if (acts.length === job.acts.length) last = { key, acts, playing };
  return { played: playing.stands(), kept: acts.length };
}

self.onmessage = ({ data }: MessageEvent<PracticeJob>): void => {
  try {
    tell({ found: standing(data) });
  } catch (error) {
    tell({ failed: error instanceof Error ? error.message : String(error) });
  }
};
