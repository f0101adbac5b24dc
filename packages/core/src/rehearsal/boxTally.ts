import type { Bench, Box } from '../model/bench';
import { gradeOf } from './ending';
import { boxPlan, type BoxPlan, type NoRehearsal } from './forBox';
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
  /** The precautions that are taken. */
  taken: Precaution[];
}

/** Runs that a page may wait for. */
const PAGE_RUNS = 20_000;

/** Rehearses a box as far as every page asks for it; undefined parts are named in the answer. */
export function boxTally(bench: Bench, box: Box): BoxTally | NoRehearsal {
  const made = boxPlan(bench, box);
  if ('code' in made) return made;
  const stage = new Stage(made.plan);
  const ids = [...made.always, ...box.precautions];
  const taken = takenOf(stage, ids);
  let looks = 0;
  // Asked once every 4096 runs.
  const watch: Watch = { stopped: () => (looks += 4096) > PAGE_RUNS };
  const precautions = stage.precautions.filter(
    (p) => box.precautions.includes(p.id) && !made.always.includes(p.id),
  );
  try {
    const tally = tallyOf(stage, taken, watch);
    const world = tally.lost > 0 ? wrongWorld({ told: shortestOfEach(stage, taken) }) : null;
    const last = world && gradeOf(world.ending) === 'lost' ? world.frames.at(-1)?.looks : undefined;
    const hit = last?.find((l) => {
      const drive = made.plan.drives.find((d) => d.id === l.drive);
      return drive?.matters === true && l.look !== 'there' && l.look !== 'away';
    });
    return { ...made, tally, loses: hit?.drive ?? null, taken: precautions };
  } catch (error) {
    if (error instanceof RehearsalError) return { ...made, tally: null, loses: null, taken: precautions };
    throw error;
  }
}
