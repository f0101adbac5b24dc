import type { Attempt } from '../model/practice';
import { exercises } from './exercises';

/** How somebody gets on with an exercise. */
export interface ExerciseRecord {
  tries: number;
  best: number | null;
  last: Attempt | null;
  /** Ended without a fault, and without a hint. */
  clean: number;
}

const UNTRIED: ExerciseRecord = { tries: 0, best: null, last: null, clean: 0 };

/** How somebody gets on with each exercise that ships, and with those made from boxes. Attempts in the order of their dates. */
export function recordOf(attempts: readonly Attempt[]): Map<string, ExerciseRecord> {
  const out = new Map<string, ExerciseRecord>(exercises.map((e) => [e.id, UNTRIED]));
  for (const a of attempts) {
    const before = out.get(a.exercise) ?? UNTRIED;
    const done = a.end === 'done';
    out.set(a.exercise, {
      tries: before.tries + 1,
      best: done ? Math.max(before.best ?? 0, a.score) : before.best,
      last: a,
      clean: before.clean + (done && a.score === 100 ? 1 : 0),
    });
  }
  return out;
}

/** How far somebody is with all that ships. */
export interface Progress {
  /** Exercises that ended without a fault at least once. */
  clean: number;
  tried: number;
  all: number;
  /** Mean score of the last ten that were brought to an end, and of the ten before; null where there are none. */
  lately: number | null;
  before: number | null;
  /** What to take next: untried in the order of the stops, else the one with the worst end. */
  next: string | null;
}

const meanScore = (of: readonly Attempt[]): number | null =>
  of.length === 0 ? null : Math.round(of.reduce((s, a) => s + a.score, 0) / of.length);

/** So many attempts are looked at together. */
const LATELY = 10;

/** How far somebody is. Attempts in the order of their dates, and their record. */
export function progressOf(attempts: readonly Attempt[], record = recordOf(attempts)): Progress {
  const of = exercises.map((e) => ({ id: e.id, ...(record.get(e.id) ?? UNTRIED) }));
  const ended = attempts.filter((a) => a.end !== 'left');
  const open = of.filter((e) => e.clean === 0);
  const untried = open.find((e) => e.tries === 0);
  const worst = [...open].sort((a, b) => (a.last?.score ?? 0) - (b.last?.score ?? 0))[0];
  return {
    clean: of.filter((e) => e.clean > 0).length,
    tried: of.filter((e) => e.tries > 0).length,
    all: of.length,
    lately: meanScore(ended.slice(-LATELY)),
    before: meanScore(ended.slice(-2 * LATELY, -LATELY)),
    next: (untried ?? worst)?.id ?? null,
  };
}
