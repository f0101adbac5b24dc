import type { Bench, Box } from '../model/bench';
import { findBox } from '../model/bench';
import { stops } from '../model/stops';

/** All its stops are signed off. */
export const isFinished = ({ signoffs }: Pick<Box, 'signoffs'>): boolean => signoffs.length >= stops.length;

/** Something is left to do on it: neither finished nor retired. */
export const isInWork = (box: Pick<Box, 'signoffs' | 'kept'>): boolean =>
  !isFinished(box) && !box.kept?.retired;

/** It is finished, or retired, and nobody opened it again: what was decided of it stays as it is. */
export const isClosed = (box: Pick<Box, 'signoffs' | 'kept'>): boolean =>
  box.kept?.retired != null || (isFinished(box) && (box.kept?.opened ?? null) === null);

/** The closed box that an act would change; undefined where it may be done. What keeps a box going may always be done. */
export function closedAgainst(
  bench: Bench,
  act: { changes: readonly { in: string; id?: string }[]; keeping?: boolean },
): Box | undefined {
  if (act.keeping) return undefined;
  for (const c of act.changes) {
    const box = c.in === 'boxes' ? findBox(bench, c.id) : undefined;
    if (box && isClosed(box)) return box;
  }
  return undefined;
}
