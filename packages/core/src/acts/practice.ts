import type { Act } from '../model/changes';
import type { Attempt, PracticeAct } from '../model/practice';
import type { Played } from '../practice/play';

/** An attempt that ended, or was left, as it is kept. */
export const attemptOf = (
  played: Played,
  of: {
    id: string;
    exercise: string;
    boxId: string | null;
    seed: number;
    acts: PracticeAct[];
    begun: string;
    now: string;
  },
): Attempt => ({
  id: of.id,
  exercise: of.exercise,
  boxId: of.boxId,
  seed: of.seed,
  acts: of.acts,
  at: of.now,
  seconds: Math.max(0, (Date.parse(of.now) - Date.parse(of.begun)) / 1000),
  end: played.end ?? 'left',
  score: played.score,
  hints: played.hints.length,
  faults: played.faults,
});

/** Puts an attempt on record; `title` is what its exercise is called. */
export const keepAttempt = (attempt: Attempt, title: string): Act => ({
  label: `“${title}”, ${attempt.end === 'left' ? 'left' : `score ${attempt.score}`}`,
  changes: [{ in: 'attempts', id: attempt.id, to: attempt }],
});

/** Strikes all attempts out. */
export const forgetAttempts = (attempts: readonly Attempt[]): Act => ({
  label: 'Practice begun anew',
  changes: attempts.map((a) => ({ in: 'attempts' as const, id: a.id, to: null })),
});
