import { randomFrom } from '../units/random';
import { leastEnd, topological, Turns, ways } from './bound';
import { mostWanted } from './wanted';
import { better, Laid, middles, place, worth, type Lengths, type Plan, type Problem } from './problem';

/** A plan with what is known of how good it is. Seconds. */
export interface Solved extends Plan {
  /** No plan is done before this, and none misses less of what is wanted. */
  least: number;
  leastMissed: number;
  /** It is the best there is, not only the best that was found. */
  proven: boolean;
  /** Doing one box after the other, in the best order tried. */
  oneByOne: Pick<Plan, 'late' | 'end' | 'missed'>;
}

/** What watches a search: told the share that is done (0 to 1), asked whether to stop. */
export interface Watch {
  progress?: (share: number) => void;
  stopped?: () => boolean;
}

/** Up to so many tasks every order that could be better is looked at. */
const EXACT = 8;
/** So many plans are tried for larger ones: about two seconds for 240 tasks. */
const TRIES = 30_000;
const ASK_EVERY = 256;

/** Boxes one after the other, in this order of theirs. */
function oneByOne(problem: Problem, boxes: readonly number[]): number[] {
  const sorted = topological(problem);
  return boxes.flatMap((b) => sorted.filter((i) => problem.tasks[i]?.box === b));
}

/** Hands always to what can be begun first; among such to what has the longest way behind it, times how much it is wanted. */
function greedy(problem: Problem, lengths: Lengths, urge: (task: number) => number): Plan {
  const turns = new Turns(problem);
  const laid = new Laid(problem, lengths);
  const out: number[] = [];
  for (let [best] = turns.ready; best !== undefined; [best] = turns.ready) {
    let from = laid.startOf(best);
    for (const i of turns.ready) {
      const s = laid.startOf(i);
      if (s < from - 1e-9 || (s < from + 1e-9 && urge(i) > urge(best))) {
        best = i;
        from = s;
      }
    }
    turns.take(best);
    laid.put(best);
    out.push(best);
  }
  return place(problem, out, lengths);
}

/** Every order that could be better, one after the other; cut off where what is done already and the least that is left are no better. */
function exhaust(problem: Problem, lengths: Lengths, first: Plan): Plan {
  const { tasks } = problem;
  const { tails } = ways(problem, lengths);
  let best = first;
  const order: number[] = [];
  const inOrder = new Set<number>();
  const go = (): void => {
    if (order.length === tasks.length) {
      const plan = place(problem, [...order], lengths);
      if (better(plan, best)) best = plan;
      return;
    }
    const now = place(problem, order, lengths);
    const left = tasks.flatMap((_, i) => (inOrder.has(i) ? [] : [i]));
    const hands = Math.max(0, ...now.placed.filter((p) => p.free > p.from).map((p) => p.free));
    const most = Math.min(...left.map((i) => tails[i] ?? 0));
    const least = Math.max(now.end, hands + left.reduce((n, i) => n + (lengths.hands[i] ?? 0), 0) + most);
    // What is laid already is late and missed whatever comes; and all of it ends no sooner than this.
    if (worth({ ...now, end: least }, best) >= 0) return;
    for (const i of left) {
      if (!(tasks[i]?.after ?? []).every((a) => inOrder.has(a))) continue;
      order.push(i);
      inOrder.add(i);
      go();
      order.pop();
      inOrder.delete(i);
    }
  };
  go();
  return best;
}

/** Takes one task out of an order and puts it in elsewhere, between what it comes after and what comes after it. */
function moved(order: readonly number[], { tasks }: Problem, random: () => number): number[] {
  const out = [...order];
  const from = Math.floor(random() * out.length);
  const [task = 0] = out.splice(from, 1);
  const place = new Map(out.map((t, i) => [t, i]));
  const first = Math.max(0, ...(tasks[task]?.after ?? []).map((a) => (place.get(a) ?? -1) + 1));
  let last = out.findIndex((t) => tasks[t]?.after.includes(task));
  if (last < 0) last = out.length;
  out.splice(first + Math.floor(random() * (last - first + 1)), 0, task);
  return out;
}

/** Tries plans near the best one; a plan as good is taken as well, so that it does not stay where it began. */
function improve(
  problem: Problem,
  lengths: Lengths,
  first: Plan,
  least: number,
  leastMissed: number,
  watch: Watch,
): Plan {
  const random = randomFrom(problem.tasks.length);
  let best = first;
  let here = first;
  for (let n = 0; n < TRIES; n += 1) {
    if (best.late <= 0 && best.missed <= leastMissed && best.end <= least + 1e-6) return best;
    if (n % ASK_EVERY === 0) {
      watch.progress?.(n / TRIES);
      if (watch.stopped?.()) return best;
    }
    const plan = place(problem, moved(here.order, problem, random), lengths);
    if (!better(here, plan)) here = plan;
    if (better(here, best)) best = here;
  }
  return best;
}

/**
 * The best plan for several boxes and one pair of hands: as much as can be of what is wanted done in time, then all of it as
 * early as can be. Small ones are solved exactly; larger ones are searched, and the gap to what no plan can beat is told.
 * Never worse than doing one box after the other.
 */
export function solve(problem: Problem, watch: Watch = {}): Solved {
  const lengths = middles(problem);
  const least = leastEnd(problem, lengths);
  const { tails } = ways(problem, lengths);
  const all = problem.boxes.map((_, i) => i);
  const size = (b: number): number =>
    problem.tasks.reduce(
      (n, t, i) => (t.box === b ? n + (lengths.hands[i] ?? 0) + (lengths.alone[i] ?? 0) : n),
      0,
    );
  const weight = (b: number): number => problem.boxes[b]?.weight ?? 1;
  const rows = [
    all,
    [...all].sort((a, b) => size(a) - size(b)),
    [...all].sort((a, b) => weight(b) - weight(a)),
    [...all].sort((a, b) => size(a) / weight(a) - size(b) / weight(b)),
  ].map((boxes) => place(problem, oneByOne(problem, boxes), lengths));
  const bestOf = (plans: readonly Plan[]): Plan => plans.reduce((a, b) => (better(b, a) ? b : a));
  const single = bestOf(rows);
  const tail = (i: number): number => (lengths.hands[i] ?? 0) + (tails[i] ?? 0);
  const wanted = (i: number): number => weight(problem.tasks[i]?.box ?? 0);
  const most = mostWanted(problem, lengths);
  const chosen = new Set(most.boxes);
  const tried = [
    single,
    greedy(problem, lengths, tail),
    greedy(problem, lengths, (i) => 1e6 * wanted(i) + tail(i)),
    greedy(problem, lengths, (i) => -size(problem.tasks[i]?.box ?? 0)),
    greedy(problem, lengths, (i) => (chosen.has(problem.tasks[i]?.box ?? -1) ? 1e6 : 0) + tail(i)),
  ];
  const first = bestOf(tried);
  const exact = problem.tasks.length <= EXACT;
  const found = exact
    ? exhaust(problem, lengths, first)
    : improve(problem, lengths, first, least, most.leastMissed, watch);
  return {
    ...found,
    least: exact ? found.end : least,
    leastMissed: exact ? found.missed : most.leastMissed,
    proven: exact || (found.late <= 0 && found.missed <= most.leastMissed && found.end <= least + 1e-6),
    oneByOne: { late: single.late, end: single.end, missed: single.missed },
  };
}
