import { rehearsalPlanSchema, type RehearsalPlan } from '@zb/core/model/rehearsal';
import { aims } from '@zb/core/rehearsal/ending';
import { boxPlan, rehearsedParts, withAlways } from '@zb/core/rehearsal/forBox';
import { causeOf } from '@zb/core/rehearsal/cause';
import { rehearse, setsFor, wrongWorld } from '@zb/core/rehearsal/rehearse';
import type { SafeSets } from '@zb/core/rehearsal/sets';
import { RehearsalError, type Told } from '@zb/core/rehearsal/tally';
import {
  endingWords,
  frameWords,
  namesIn,
  noRehearsalWords,
  precautionWords,
  rehearsalAssumptionWords,
  rehearsalFaultWords,
  unknownWords,
  type NameOf,
} from '@zb/core/words/rehearsal';
import { boxOf, readBench } from './benchOutput';
import { InputError } from './inputFile';
import { readPlan } from './planFile';

/** What is rehearsed, and under which precautions. */
export interface Rehearsed {
  plan: RehearsalPlan;
  taken: string[];
  assumed: string[];
}

/** A plan as JSON, or the plan of a box of a bench file. Throws InputError. */
export function rehearsedFrom(
  text: string,
  box: string | undefined,
  taken: string[] | undefined,
  part = 'the install',
): Rehearsed {
  if (box !== undefined) {
    const bench = readBench(text);
    const found = boxOf(bench, box);
    const of = rehearsedParts.find((p) => p === part);
    if (!of) throw new InputError(`--part is one of: ${rehearsedParts.join(', ')}`);
    const made = boxPlan(bench, found, of);
    if ('code' in made) throw new InputError(noRehearsalWords(made));
    return {
      plan: made.plan,
      taken: withAlways(made, taken ?? found.precautions),
      assumed: made.assumed.map(rehearsalAssumptionWords),
    };
  }
  return { plan: readPlan(text, rehearsalPlanSchema), taken: taken ?? [], assumed: [] };
}

const told = (world: Told | null, nameOf: NameOf): object | null =>
  world && {
    ending: world.ending,
    cause: causeOf(world),
    frames: world.frames.map((f) => ({ ...f, words: frameWords(f, nameOf) })),
  };

/** What `zb rehearse` prints: worlds, endings, the shortest wrong world, precautions, the smallest sets. Minutes. */
export function rehearseOutput({ plan, taken, assumed }: Rehearsed): object {
  const nameOf = namesIn(plan);
  try {
    const found = rehearse(plan, taken);
    const { varies, tally, precautions } = found;
    const known = new Set(precautions.map((t) => t.precaution.id));
    const unknown = taken.filter((id) => !known.has(id));
    if (unknown.length > 0)
      throw new InputError(
        `this plan offers no precaution ${unknown.join(', ')}; it offers ${[...known].join(', ')}`,
      );
    const sets = (s: SafeSets): object => ({
      sets: s.sets,
      cheapest: s.sets[0] ?? null,
      remains: s.remains && { ids: s.remains.ids, world: told(s.remains.world, nameOf) },
      tried: s.tried,
    });
    return {
      worlds: tally.worlds,
      walked: tally.walked,
      varies: varies.map((v) => ({ ...v, words: unknownWords[v.unknown] })),
      taken,
      endings: tally.endings.map((e) => ({ ...e, words: endingWords[e.ending] })),
      right: tally.right,
      again: tally.again,
      lost: tally.lost,
      wrong: told(wrongWorld(found), nameOf),
      told: found.told.map((t) => told(t, nameOf)),
      precautions: precautions.map(({ precaution, ...rest }) => ({
        ...precaution,
        words: precautionWords(precaution, nameOf),
        ...rest,
      })),
      safe: Object.fromEntries(aims.map((aim) => [aim, sets(setsFor(plan, aim))])),
      assumed,
    };
  } catch (error) {
    if (error instanceof RehearsalError) throw new InputError(rehearsalFaultWords(error.fault));
    throw error;
  }
}
