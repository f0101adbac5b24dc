import type { Lengths, Problem } from './problem';

/** The longest way to each task, and from the end of its hands to the end of all. Seconds. */
export function ways(problem: Problem, { hands, alone }: Lengths): { heads: number[]; tails: number[] } {
  const { tasks } = problem;
  const heads = tasks.map((t) => t.pinned ?? 0);
  const tails = tasks.map((_, i) => alone[i] ?? 0);
  const sorted = topological(problem);
  for (const i of sorted)
    for (const a of tasks[i]?.after ?? [])
      heads[i] = Math.max(heads[i] ?? 0, (heads[a] ?? 0) + (hands[a] ?? 0) + (alone[a] ?? 0));
  for (const i of [...sorted].reverse())
    for (const a of tasks[i]?.after ?? [])
      tails[a] = Math.max(tails[a] ?? 0, (alone[a] ?? 0) + (hands[i] ?? 0) + (tails[i] ?? 0));
  return { heads, tails };
}

/** Tasks whose turn it can be: those that come after nothing, then more with each that is done. */
export class Turns {
  /** Tasks that can come next, in the order in which they could. */
  readonly ready: number[];
  private readonly open: number[];
  private readonly next: number[][];

  constructor({ tasks }: Pick<Problem, 'tasks'>) {
    this.open = tasks.map((t) => t.after.length);
    this.next = tasks.map(() => []);
    tasks.forEach((t, i) => t.after.forEach((a) => this.next[a]?.push(i)));
    this.ready = tasks.flatMap((_, i) => (this.open[i] === 0 ? [i] : []));
  }

  /** Takes one that is ready. */
  take(task: number): void {
    this.ready.splice(this.ready.indexOf(task), 1);
    for (const n of this.next[task] ?? []) {
      this.open[n] = (this.open[n] ?? 0) - 1;
      if (this.open[n] === 0) this.ready.push(n);
    }
  }
}

/** Tasks in an order in which none comes before one that it comes after, in the order they are named where that may be. */
export function topological(problem: Pick<Problem, 'tasks'>): number[] {
  const turns = new Turns(problem);
  const out: number[] = [];
  for (let [i] = turns.ready; i !== undefined; [i] = turns.ready) {
    turns.take(i);
    out.push(i);
  }
  return out;
}

interface Job {
  head: number;
  length: number;
  tail: number;
}

/**
 * The least end of jobs that one thing works on, where each may be put down and taken up again: always the one with the
 * longest way behind it (Jackson’s preemptive schedule, Carlier 1982). No plan that puts nothing down ends earlier.
 */
export function preemptive(jobs: readonly Job[]): number {
  const waiting = [...jobs].sort((a, b) => a.head - b.head);
  const open: { left: number; tail: number }[] = [];
  let now = 0;
  let end = 0;
  let i = 0;
  while (i < waiting.length || open.length > 0) {
    if (open.length === 0) now = Math.max(now, waiting[i]?.head ?? now);
    for (let job = waiting[i]; job && job.head <= now; job = waiting[(i += 1)])
      open.push({ left: job.length, tail: job.tail });
    const first = open.reduce((a, b) => (b.tail > a.tail ? b : a));
    const until = waiting[i]?.head ?? Infinity;
    const run = Math.min(first.left, until - now);
    now += run;
    first.left -= run;
    if (first.left <= 1e-9) {
      end = Math.max(end, now + first.tail);
      open.splice(open.indexOf(first), 1);
    }
  }
  return end;
}

/** No plan is done before this, seconds: the longest way, and for hands and for each thing what it has to do. */
export function leastEnd(problem: Problem, lengths: Lengths): number {
  const { tasks } = problem;
  const { hands, alone } = lengths;
  const { heads, tails } = ways(problem, lengths);
  const longest = Math.max(0, ...tasks.map((_, i) => (heads[i] ?? 0) + (hands[i] ?? 0) + (tails[i] ?? 0)));
  const job = (i: number, kept: boolean): Job => {
    const length = (hands[i] ?? 0) + (kept ? (alone[i] ?? 0) : 0);
    return { head: heads[i] ?? 0, length, tail: (tails[i] ?? 0) - (kept ? (alone[i] ?? 0) : 0) };
  };
  const all = tasks.map((_, i) => i);
  const things = [...new Set(tasks.flatMap((t) => t.needs))];
  return Math.max(
    longest,
    preemptive(all.filter((i) => (hands[i] ?? 0) > 0).map((i) => job(i, false))),
    ...things.map((r) =>
      preemptive(
        all.flatMap((i) => (tasks[i]?.needs.includes(r) ? [job(i, tasks[i].keeps.includes(r))] : [])),
      ),
    ),
  );
}
