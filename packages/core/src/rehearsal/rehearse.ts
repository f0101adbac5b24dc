import type { RehearsalPlan } from '../model/rehearsal';
import { gradeOf, type Aim, type Ending } from './ending';
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
  /** What it does beside those that are taken: always with it against without it. */
  effect: Effect;
}

/** What a precaution changes. */
export interface Effect {
  /** Bad endings that can happen without it, and cannot with it. */
  rulesOut: Ending[];
  /** Scenarios in which something is lost, and those that do not end right, with it against without it. */
  lost: 'fewer' | 'as many' | 'more';
  notRight: 'fewer' | 'as many' | 'more';
}

const against = (including: number, without: number): Effect['lost'] =>
  including < without ? 'fewer' : including > without ? 'more' : 'as many';

/**
 * A precaution held against its absence. More scenarios may go wrong with it where an installation gets further with it: what could
 * not go wrong before, since nothing came to it, now can.
 */
export const effectOf = (without: Tally, including: Tally): Effect => ({
  rulesOut: without.endings.flatMap(({ ending, grade }) =>
    grade === 'right' || including.endings.some((e) => e.ending === ending) ? [] : [ending],
  ),
  lost: against(including.lost, without.lost),
  notRight: against(including.lost + including.again, without.lost + without.again),
});

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
    const then = tallyOf(stage, takenOf(stage, other), part(i + 2));
    const { lost, again, right } = then;
    const effect = on ? effectOf(then, tally) : effectOf(tally, then);
    return { precaution, on, switched: { lost, again, right }, effect };
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
