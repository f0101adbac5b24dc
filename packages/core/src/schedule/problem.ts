import { middleOf, type Span } from '../units/duration';

/** One piece of work: a person’s own time first, then the time it goes on by itself. Seconds. */
export interface Task {
  key: string;
  /** Its box, by place. */
  box: number;
  hands: Span;
  alone: Span;
  /** Tasks that have to have ended, by place. */
  after: readonly number[];
  /** What it takes up while hands are on it, and what of that it keeps while it goes on alone; of each there is one. */
  needs: readonly string[];
  keeps: readonly string[];
  /** Somebody wants it to begin then, seconds from now: never before, and later only where nothing else can be; null: whenever. */
  pinned: number | null;
}

/** Several boxes and one pair of hands. */
export interface Problem {
  /** How much each box is wanted, 1 to 10. */
  boxes: readonly { id: string; name: string; weight: number }[];
  tasks: readonly Task[];
  /** Seconds from now by which to be done; null where it does not matter. */
  until: number | null;
  /** How far the times of tasks go together, the correlation of each with each; null where each is by itself. */
  correlations: readonly (readonly number[])[] | null;
}

/** How long each task takes in one evening: hands, and alone. Seconds. */
export interface Lengths {
  hands: readonly number[];
  alone: readonly number[];
}

/** A task in its place. Seconds from now. */
export interface PlacedTask {
  task: number;
  from: number;
  /** Hands are off again. */
  free: number;
  end: number;
}

/** A plan: every task in the order in which hands come to it. */
export interface Plan {
  order: readonly number[];
  placed: PlacedTask[];
  /** When each box is done. */
  done: number[];
  end: number;
  /** How much of what is wanted is not done in time. */
  missed: number;
  /** Seconds by which pinned tasks begin later than they were to, all together. */
  late: number;
}

/** Every task at the middle of its span. */
export const middles = ({ tasks }: Problem): Lengths => ({
  hands: tasks.map((t) => middleOf(t.hands)),
  alone: tasks.map((t) => middleOf(t.alone)),
});

/** How much of what is wanted is not done by the end, of boxes that are done at these times. */
const missedBy = ({ boxes, until }: Problem, done: readonly number[]): number =>
  until === null ? 0 : boxes.reduce((n, b, i) => ((done[i] ?? 0) > until ? n + b.weight : n), 0);

/** An evening as far as it is laid out: what was placed, and from when hands and things are free. Seconds. */
export class Laid {
  readonly placed: PlacedTask[] = [];
  readonly done: number[];
  end = 0;
  /** From when on hands are free. */
  hands = 0;
  late = 0;
  private readonly ends: Float64Array;
  private readonly taken = new Map<string, number>();

  constructor(
    private readonly problem: Problem,
    private readonly lengths: Lengths,
  ) {
    this.ends = new Float64Array(problem.tasks.length);
    this.done = problem.boxes.map(() => 0);
  }

  /** The earliest a task can begin: hands free where it wants them, all before it ended, what it takes up free. */
  startOf(task: number): number {
    const t = this.problem.tasks[task];
    let from = (this.lengths.hands[task] ?? 0) > 0 ? this.hands : 0;
    for (const a of t?.after ?? []) from = Math.max(from, this.ends[a] ?? 0);
    for (const r of t?.needs ?? []) from = Math.max(from, this.taken.get(r) ?? 0);
    return Math.max(from, t?.pinned ?? 0);
  }

  /** Places a task as early as it can be. */
  put(task: number): void {
    const t = this.problem.tasks[task];
    if (!t) return;
    const mine = this.lengths.hands[task] ?? 0;
    const from = this.startOf(task);
    const free = from + mine;
    const end = free + (this.lengths.alone[task] ?? 0);
    this.late += t.pinned === null ? 0 : from - t.pinned;
    if (mine > 0) this.hands = free;
    for (const r of t.needs) this.taken.set(r, t.keeps.includes(r) ? end : free);
    this.ends[task] = end;
    this.done[t.box] = Math.max(this.done[t.box] ?? 0, end);
    this.end = Math.max(this.end, end);
    this.placed.push({ task, from, free, end });
  }
}

/**
 * Places tasks in an order of hands, each as early as it can be. The order must have no task before one that it comes after.
 * Of all plans one of these is best, for nothing is gained by beginning later than one can.
 */
export function place(problem: Problem, order: readonly number[], lengths: Lengths): Plan {
  const laid = new Laid(problem, lengths);
  for (const task of order) laid.put(task);
  const { placed, done, end, late } = laid;
  return { order, placed, done, end, missed: missedBy(problem, done), late };
}

/** Below 0 where the first is less, above where it is more, 0 where they are as good as the same. */
const by = (a: number, b: number): number => (Math.abs(a - b) <= 1e-9 ? 0 : a - b);

/** Below 0 where one plan is better: what is pinned kept, then more of what is wanted done in time, then all of it earlier. */
export const worth = (
  a: Pick<Plan, 'late' | 'missed' | 'end'>,
  b: Pick<Plan, 'late' | 'missed' | 'end'>,
): number => by(a.late, b.late) || by(a.missed, b.missed) || by(a.end, b.end);

/** Is one plan better than the other? */
export const better = (a: Plan, b: Plan): boolean => worth(a, b) < 0;
