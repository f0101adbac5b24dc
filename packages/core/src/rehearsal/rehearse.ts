import type { RehearsalPlan } from '../model/rehearsal';
import { gradeOf, type Aim } from './ending';
import type { Precaution } from './precautions';
import { smallestSets, type SafeSets } from './sets';
import { Stage } from './stage';
import { shortestOfEach, takenOf, tallyOf, type Tally, type Told, type Watch } from './tally';
import type { Varies } from './varies';

/** A precaution with what it does by itself, beside those that are taken. */
export interface Tried {
  precaution: Precaution;
  on: boolean;
  /** How the worlds end when it is switched the other way. */
  switched: Pick<Tally, 'lost' | 'again' | 'right'>;
}

/** How a plan goes under the precautions that are taken. */
export interface Rehearsal {
  varies: Varies[];
  tally: Tally;
  /** Of every ending the shortest world. */
  told: Told[];
  precautions: Tried[];
}

/** Rehearses a plan with these precautions: all worlds, and what each precaution would change. Throws RehearsalError. */
export function rehearse(plan: RehearsalPlan, ids: readonly string[], watch: Watch = {}): Rehearsal {
  const stage = new Stage(plan);
  const taken = takenOf(stage, ids);
  const steps = stage.precautions.length + 2;
  const part = (i: number): Watch => ({
    stopped: watch.stopped,
    progress: (share) => watch.progress?.((i + share) / steps),
  });
  const tally = tallyOf(stage, taken, part(0));
  const told = shortestOfEach(stage, taken, part(1));
  const precautions = stage.precautions.map((precaution, i): Tried => {
    const on = ids.includes(precaution.id);
    const other = on ? ids.filter((id) => id !== precaution.id) : [...ids, precaution.id];
    const { lost, again, right } = tallyOf(stage, takenOf(stage, other), part(i + 2));
    return { precaution, on, switched: { lost, again, right } };
  });
  return { varies: stage.world.varies, tally, told, precautions };
}

/** The world to be told first: the shortest that loses something, else the shortest that does not end right; null where all do. */
export function wrongWorld({ told }: Pick<Rehearsal, 'told'>): Told | null {
  const of = (grade: 'lost' | 'again'): Told | undefined =>
    told
      .filter((t) => gradeOf(t.ending) === grade)
      .sort((a, b) => a.departures - b.departures || a.trail.length - b.trail.length)[0];
  return of('lost') ?? of('again') ?? null;
}

/** The smallest sets of precautions for a plan. Throws RehearsalError. */
export const setsFor = (plan: RehearsalPlan, aim: Aim, watch?: Watch): SafeSets =>
  smallestSets(new Stage(plan), aim, watch);
