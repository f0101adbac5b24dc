import { isInWork } from '../keeping/closed';
import type { Bench, Box } from '../model/bench';
import type { Plan, Problem, Task } from '../schedule/problem';
import { isOpen, runSheetOf, type RunStep } from './runSheet';
import { correlationsOf } from './timed';

/** Things of which there is one; a wire and tools are had for each machine. */
const SHARED = ['monitor', 'keyboard', 'writer', 'stick'] as const;
/** Of these a step keeps its hold while it goes on alone. */
const KEPT = ['writer', 'stick'];

/** A stretch of a box’s evening, hands first. Seconds from now. */
export interface Stretch {
  key: string;
  step: RunStep;
  from: number;
  free: number;
  end: number;
}

/** What is to be planned, and which step each task is. */
export interface Evening {
  problem: Problem;
  steps: RunStep[];
}

/** How much a box is wanted: as much as its wish says, else middling. */
const wanted = (bench: Bench, box: Box): number =>
  bench.wishes.find((w) => w.id === box.wishId)?.importance ?? 3;

/** The boxes that hands are wanted at: those in work, once each has a machine. */
export const boxesOfEvening = (bench: Bench): Box[] =>
  bench.boxes.filter((box) => isInWork(box) && box.machineId !== null);

/** What a step of a box is called among those of an evening. */
export const eveningKey = (boxId: string, step: string): string => `${boxId} ${step}`;

/**
 * The open steps of boxes as one problem; `until` in seconds from now, null where the end does not matter; `pins`: when steps
 * are to begin, in seconds from now, by eveningKey.
 */
export function eveningOf(
  bench: Bench,
  boxes: readonly Box[],
  until: number | null,
  pins: ReadonlyMap<string, number> = new Map(),
): Evening {
  const steps: RunStep[] = [];
  const tasks: Task[] = [];
  boxes.forEach((box, b) => {
    const { steps: all } = runSheetOf(bench, box);
    const open = all.filter(isOpen);
    const placeOf = new Map(open.map((s, i) => [s.key, tasks.length + i]));
    // Two boxes that are written on one stick take turns; where none is chosen yet, each has its own.
    const named = (r: string): string => (r === 'stick' ? `stick ${box.targetSerial ?? box.id}` : r);
    for (const s of open) {
      const needs = SHARED.filter((r) => s.needs.includes(r));
      tasks.push({
        key: eveningKey(box.id, s.key),
        box: b,
        hands: s.hands,
        alone: s.alone,
        after: s.after.flatMap((k) => placeOf.get(k) ?? []),
        needs: needs.map(named),
        keeps: needs.filter((r) => KEPT.includes(r)).map(named),
        pinned: pins.get(eveningKey(box.id, s.key)) ?? null,
      });
      steps.push(s);
    }
  });
  return {
    problem: {
      boxes: boxes.map((b) => ({ id: b.id, name: b.name, weight: wanted(bench, b) })),
      tasks,
      until,
      correlations: correlationsOf(
        bench,
        steps.map((s) => s.work),
      ),
    },
    steps,
  };
}

/** The stretches of each box in a plan, in the order of their beginning. */
export function stretchesOf({ problem, steps }: Evening, { placed }: Pick<Plan, 'placed'>): Stretch[][] {
  const out: Stretch[][] = problem.boxes.map(() => []);
  for (const p of placed) {
    const task = problem.tasks[p.task];
    const step = steps[p.task];
    if (task && step) out[task.box]?.push({ key: task.key, step, from: p.from, free: p.free, end: p.end });
  }
  return out.map((row) => row.sort((a, b) => a.from - b.from));
}
