import type { LaidPart } from './laid';

/** The first number of a logical part. */
const FIRST_LOGICAL = 5;

/**
 * Numbers of parts: those that stay keep theirs, new ones take the lowest that are free, in their order on the drive.
 * Logical parts are numbered by their chain, from five on, so that they have no numbers of their own to keep.
 */
export function numbered(parts: readonly LaidPart[]): LaidPart[] {
  const taken = new Set(parts.filter((p) => p.number > 0 && p.kind !== 'logical').map((p) => p.number));
  let next = 1;
  let logical = FIRST_LOGICAL;
  return parts.map((p) => {
    if (p.kind === 'logical') return { ...p, number: logical++ };
    if (p.number > 0) return p;
    while (taken.has(next)) next += 1;
    taken.add(next);
    return { ...p, number: next };
  });
}
