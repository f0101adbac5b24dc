import { endings, gradeOf, missesAim, type Aim, type Ending, type EndingGrade } from './ending';
import type { Frame } from './frames';
import { run } from './run';
import type { Stage } from './stage';
import { Asker, Taken } from './walk';

/** More runs than these are refused: the plan has more that is open than can be told. */
const MOST_RUNS = 2e7;
/** More worlds than these cannot be counted exactly in the numbers that are used. */
const MOST_WORLDS = 1e14;

/** Why a plan is not rehearsed. */
export type RehearsalFault =
  | { code: 'too many worlds'; worlds: number; most: number }
  | { code: 'too many runs'; runs: number; worlds: number; walked: number }
  | { code: 'stopped' };

/** A plan that cannot be rehearsed, or whose rehearsal was stopped; nothing was changed by it. */
export class RehearsalError extends Error {
  constructor(readonly fault: RehearsalFault) {
    super(fault.code);
  }
}

/** What a rehearsal is watched by: it is told what share is done (0 to 1), and asked whether to stop. */
export interface Watch {
  progress?: (share: number) => void;
  stopped?: () => boolean;
}

/** How the worlds of a plan end under some precautions. */
export interface Tally {
  /** Worlds by their ending; endings that none has are left out. */
  endings: { ending: Ending; grade: EndingGrade; worlds: number }[];
  worlds: number;
  right: number;
  again: number;
  lost: number;
  /** Runs that it took: worlds that no run can tell apart are run once. */
  walked: number;
}

/** So often (in runs) is asked whether to stop. */
const LOOK_UP = 4096;

/** Runs all worlds; `visit` sees every run and can end it all by answering true. Answers the runs. Throws RehearsalError. */
export function everyRun(
  stage: Stage,
  taken: Taken,
  visit: (ending: Ending, asker: Asker) => boolean,
  watch: Watch = {},
): number {
  const { count } = stage.world;
  if (count > MOST_WORLDS)
    throw new RehearsalError({ code: 'too many worlds', worlds: count, most: MOST_WORLDS });
  const asker = new Asker(stage.world);
  let walked = 0;
  let done = 0;
  do {
    taken.begin();
    const ending = run(stage, asker, taken, null);
    walked += 1;
    done += asker.weight;
    if (visit(ending, asker)) return walked;
    if (walked % LOOK_UP === 0) {
      watch.progress?.(done / count);
      if (watch.stopped?.()) throw new RehearsalError({ code: 'stopped' });
      if (walked >= MOST_RUNS)
        throw new RehearsalError({ code: 'too many runs', runs: MOST_RUNS, worlds: count, walked: done });
    }
  } while (asker.next());
  return walked;
}

/** The precautions of a plan, of which those with these ids are taken. Unknown ids are left out. */
export function takenOf(stage: Stage, ids: readonly string[]): Taken {
  const taken = new Taken(stage.precautions.map((p) => p.id));
  taken.set(ids.map((id) => taken.placeOf(id)).filter((i) => i >= 0));
  return taken;
}

/** Counts how the worlds end. */
export function tallyOf(stage: Stage, taken: Taken, watch?: Watch): Tally {
  const counts = new Map<Ending, number>();
  const walked = everyRun(
    stage,
    taken,
    (ending, asker) => {
      counts.set(ending, (counts.get(ending) ?? 0) + asker.weight);
      return false;
    },
    watch,
  );
  const list = endings
    .map((ending) => ({ ending, grade: gradeOf(ending), worlds: counts.get(ending) ?? 0 }))
    .filter((e) => e.worlds > 0);
  const of = (grade: EndingGrade): number =>
    list.filter((e) => e.grade === grade).reduce((n, e) => n + e.worlds, 0);
  return {
    endings: list,
    worlds: stage.world.count,
    right: of('right'),
    again: of('again'),
    lost: of('lost'),
    walked,
  };
}

/** One world, told from its beginning to its end. */
export interface Told {
  ending: Ending;
  frames: Frame[];
  /** The answers by which it can be told once more. */
  trail: number[];
  /** How many of them are not the usual ones. */
  departures: number;
}

/** Tells a world again by its answers. */
export function tell(stage: Stage, taken: Taken, trail: readonly number[]): Told {
  const frames: Frame[] = [];
  const ending = run(stage, new Asker(stage.world, trail), taken, frames);
  return { ending, frames, trail: [...trail], departures: trail.filter((n) => n !== 0).length };
}

/**
 * Of every ending the shortest world: the one in which the fewest things go otherwise than is usual, among those the one
 * with the fewest questions, among those the first.
 */
export function shortestOfEach(stage: Stage, taken: Taken, watch?: Watch): Told[] {
  const best = new Map<Ending, { trail: number[]; departures: number }>();
  everyRun(
    stage,
    taken,
    (ending, asker) => {
      const before = best.get(ending);
      const departures = asker.departures();
      if (
        !before ||
        departures < before.departures ||
        (departures === before.departures && asker.questions < before.trail.length)
      )
        best.set(ending, { trail: asker.trail(), departures });
      return false;
    },
    watch,
  );
  return endings.flatMap((e) => {
    const found = best.get(e);
    return found ? [tell(stage, taken, found.trail)] : [];
  });
}

/** A world that misses an aim, and the precautions that its run looked at; null where none does. */
export function firstMiss(
  stage: Stage,
  taken: Taken,
  aim: Aim,
  watch?: Watch,
): { trail: number[]; lookedAt: number[]; ending: Ending } | null {
  let miss: { trail: number[]; lookedAt: number[]; ending: Ending } | null = null;
  everyRun(
    stage,
    taken,
    (ending, asker) => {
      if (!missesAim(ending, aim)) return false;
      miss = { trail: asker.trail(), lookedAt: taken.lookedAt(), ending };
      return true;
    },
    watch,
  );
  return miss;
}
