import type { FirstFault } from './line';

/** Something that comes after other things. */
export interface Waiting {
  key: string;
  after: readonly string[];
}

/**
 * Lines in an order in which none comes before what it needs; what was named first comes first where it may. Lines that wait for
 * each other stay out, and are named, as is what a line waits for and is not there.
 */
export function inOrder<T extends Waiting>(lines: readonly T[]): { order: T[]; faults: FirstFault[] } {
  const keys = new Set(lines.map((l) => l.key));
  const faults: FirstFault[] = [];
  for (const l of lines)
    for (const wants of l.after) if (!keys.has(wants)) faults.push({ code: 'missing', key: l.key, wants });
  const done = new Set<string>();
  const order: T[] = [];
  let left = [...lines];
  for (;;) {
    const next = left.find((l) => l.after.every((a) => done.has(a) || !keys.has(a)));
    if (!next) break;
    done.add(next.key);
    order.push(next);
    left = left.filter((l) => l !== next);
  }
  if (left.length > 0) faults.push({ code: 'circle', keys: circleIn(left) });
  return { order, faults };
}

/** One circle among lines that none of can begin: each waits for the next, the last for the first. */
function circleIn(left: readonly Waiting[]): string[] {
  const byKey = new Map(left.map((l) => [l.key, l]));
  const trail: string[] = [];
  let at = left[0];
  while (at && !trail.includes(at.key)) {
    trail.push(at.key);
    at = at.after.flatMap((a) => byKey.get(a) ?? [])[0];
  }
  return at ? trail.slice(trail.indexOf(at.key)) : trail;
}
