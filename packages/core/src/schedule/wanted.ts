import { ways } from './bound';
import type { Lengths, Problem } from './problem';

/** Boxes that could be done in time by their hands alone, so that as much as can be of what is wanted is among them. */
export interface Wanted {
  boxes: number[];
  /** No plan misses less than this. */
  leastMissed: number;
}

/**
 * The most that is wanted for no more hands than there is time, of boxes whose own longest way ends in time: exactly, by how
 * few hands each sum of weights can be had for (0–1 knapsack by weights). A plan can do no more than that. Weights are whole.
 */
export function mostWanted(problem: Problem, lengths: Lengths): Wanted {
  const { boxes, tasks, until } = problem;
  if (until === null) return { boxes: boxes.map((_, i) => i), leastMissed: 0 };
  const { heads, tails } = ways(problem, lengths);
  const hands = boxes.map((_, b) =>
    tasks.reduce((n, t, i) => (t.box === b ? n + (lengths.hands[i] ?? 0) : n), 0),
  );
  const way = boxes.map((_, b) =>
    Math.max(
      0,
      ...tasks.map((t, i) => (t.box === b ? (heads[i] ?? 0) + (lengths.hands[i] ?? 0) + (tails[i] ?? 0) : 0)),
    ),
  );
  let least = new Map<number, { hands: number; boxes: number[] }>([[0, { hands: 0, boxes: [] }]]);
  boxes.forEach(({ weight }, b) => {
    if ((way[b] ?? 0) > until) return;
    const next = new Map(least);
    for (const [w, had] of least) {
      const more = had.hands + (hands[b] ?? 0);
      if (more <= until && more < (next.get(w + weight)?.hands ?? Infinity))
        next.set(w + weight, { hands: more, boxes: [...had.boxes, b] });
    }
    least = next;
  });
  const most = Math.max(...least.keys());
  const all = boxes.reduce((n, b) => n + b.weight, 0);
  return { boxes: least.get(most)?.boxes ?? [], leastMissed: all - most };
}
