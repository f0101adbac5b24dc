import type { Bench, Box } from '../model/bench';
import { causeOf, type Cause } from './cause';
import { gradeOf } from './ending';
import { boxPlan, withAlways, type BoxPlan, type NoRehearsal } from './forBox';
import type { Precaution } from './precautions';
import { wrongWorld } from './rehearse';
import { Stage } from './stage';
import { RehearsalError, shortestOfEach, takenOf, tallyOf, type Tally, type Watch } from './tally';

/** A box’s plan with how its worlds end under the precautions that it has taken. */
export interface BoxTally extends BoxPlan {
  /** Null where that takes longer than a page may wait: the sheet of the rehearsal has it. */
  tally: Tally | null;
  /** Id of a drive that loses what matters, in the shortest world in which one does; null where none does. */
  loses: string | null;
  /** What decides that world, or the shortest that has to be done again; null where all end right. */
  cause: Cause | null;
  /** The precautions that are taken. */
  taken: Precaution[];
}

/** Plans that were counted lately, by themselves and the precautions taken: most changes of a bench leave them as they are. */
const counted = new Map<string, Counted>();
const MOST_KEPT = 200;

interface Counted {
  tally: Tally | null;
  loses: string | null;
  cause: Cause | null;
}

/** Counts as long as a page may wait, some thousand runs; null where that does not do. */
function countOf(stage: Stage, ids: readonly string[]): Counted {
  const key = JSON.stringify([stage.plan, ids]);
  const before = counted.get(key);
  if (before) return before;
  const found = count(stage, ids);
  const [oldest] = counted.keys();
  if (counted.size >= MOST_KEPT && oldest !== undefined) counted.delete(oldest);
  counted.set(key, found);
  return found;
}

function count(stage: Stage, ids: readonly string[]): Counted {
  const taken = takenOf(stage, ids);
  // Whoever watches is asked for the first time after some thousand runs.
  const watch: Watch = { stopped: () => true };
  try {
    const tally = tallyOf(stage, taken, watch);
    const world = tally.lost + tally.again > 0 ? wrongWorld({ told: shortestOfEach(stage, taken) }) : null;
    const last = world && gradeOf(world.ending) === 'lost' ? world.frames.at(-1)?.looks : undefined;
    const hit = last?.find((l) => {
      const drive = stage.drives.find((d) => d.id === l.drive);
      return drive?.matters === true && l.look !== 'there' && l.look !== 'away';
    });
    return { tally, loses: hit?.drive ?? null, cause: world && causeOf(world) };
  } catch (error) {
    if (error instanceof RehearsalError) return { tally: null, loses: null, cause: null };
    throw error;
  }
}

/** Rehearses a box as far as every page asks for it; undefined parts are named in the answer. */
export function boxTally(bench: Bench, box: Box): BoxTally | NoRehearsal {
  const made = boxPlan(bench, box);
  if ('code' in made) return made;
  const stage = new Stage(made.plan);
  const taken = stage.precautions.filter(
    (p) => box.precautions.includes(p.id) && !made.always.includes(p.id),
  );
  return { ...made, ...countOf(stage, withAlways(made, box.precautions)), taken };
}
