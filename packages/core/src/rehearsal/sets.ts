import type { Aim } from './ending';
import type { Precaution } from './precautions';
import type { Stage } from './stage';
import { firstMiss, takenOf, tell, type Told, type Watch } from './tally';

/** Precautions that together let no world miss the aim. Minutes of a person. */
export interface SafeSet {
  ids: string[];
  minutes: number;
  screws: number;
}

/** The smallest sets of precautions, or the world that remains whatever is done. */
export interface SafeSets {
  aim: Aim;
  /** Every set that reaches the aim and from which nothing can be left out; the cheapest in minutes first. */
  sets: SafeSet[];
  /** Where no set reaches it: a world that ends badly whatever is added to the precautions named. */
  remains: { ids: string[]; world: Told } | null;
  /** How many sets were tried. */
  tried: number;
}

/** What a bad world teaches: every set that agrees on these precautions ends badly as well. */
interface Lesson {
  on: Set<number>;
  off: number[];
}

const setOf = (list: readonly number[], precautions: readonly Precaution[]): SafeSet => {
  const taken = list.flatMap((i) => precautions[i] ?? []);
  return {
    ids: taken.map((p) => p.id),
    minutes: taken.reduce((n, p) => n + p.minutes, 0),
    screws: taken.reduce((n, p) => n + p.screws, 0),
  };
};

/**
 * All smallest sets, exactly. A run looks at some precautions only; a set that agrees with a bad one on those runs the same
 * way, so a larger set that is good must hold one that was looked at and not taken. From the empty set on, each bad set is
 * made larger by each of these in turn, sets of one size before those of the next, and what holds a good set already is
 * left. This is a hitting-set tree (R. Reiter, A Theory of Diagnosis from First Principles, 1987, §4) whose conflicts are
 * found while it grows; it asks nothing of precautions but that their effect is a function of the set. Throws RehearsalError.
 */
export function smallestSets(stage: Stage, aim: Aim, watch: Watch = {}): SafeSets {
  const { precautions } = stage;
  const lessons: Lesson[] = [];
  const good: number[][] = [];
  let remains: SafeSets['remains'] = null;
  let tried = 0;
  const taken = takenOf(stage, []);

  /** Precautions by which a bad set may become good; undefined where it is good. */
  const wayOut = (set: readonly number[]): readonly number[] | undefined => {
    const has = new Set(set);
    const known = lessons.find((l) => [...l.on].every((i) => has.has(i)) && l.off.every((i) => !has.has(i)));
    if (known) return known.off;
    tried += 1;
    taken.set(set);
    const miss = firstMiss(stage, taken, aim, { stopped: watch.stopped });
    if (!miss) return undefined;
    const lesson = {
      on: new Set(miss.lookedAt.filter((i) => has.has(i))),
      off: miss.lookedAt.filter((i) => !has.has(i)),
    };
    lessons.push(lesson);
    if (lesson.off.length === 0)
      remains ??= { ids: setOf(set, precautions).ids, world: tell(stage, taken, miss.trail) };
    return lesson.off;
  };

  let level: number[][] = [[]];
  for (let size = 0; level.length > 0; size += 1) {
    const larger = new Map<string, number[]>();
    for (const [i, set] of level.entries()) {
      watch.progress?.((size + i / level.length) / (precautions.length + 1));
      const ways = wayOut(set);
      if (!ways) {
        good.push(set);
        continue;
      }
      for (const p of ways) {
        const next = [...set, p].sort((a, b) => a - b);
        larger.set(next.join(), next);
      }
    }
    level = [...larger.values()].filter((set) => !good.some((g) => g.every((i) => set.includes(i))));
  }
  const sets = good
    .map((g) => setOf(g, precautions))
    .sort((a, b) => a.minutes - b.minutes || a.ids.length - b.ids.length || a.screws - b.screws);
  return { aim, sets, remains: sets.length > 0 ? null : remains, tried };
}
