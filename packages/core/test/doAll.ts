/** A build’s steps done one after the other, by the act that a person’s mark is. */
import { doneStep } from '@zb/core/acts/run';
import { runSheetOf } from '@zb/core/box/runSheet';
import { findBox, type Bench, type Box } from '@zb/core/model/bench';
import { applyChanges, type Act } from '@zb/core/model/changes';
import type { Stamp } from '@zb/core/acts/stamp';

let ids = 0;
let clock = Date.parse('2026-06-01T09:00:00.000Z');
/** The next minute, with ids of its own. */
export const stamp = (): Stamp => {
  clock += 60_000;
  return { now: new Date(clock).toISOString(), id: () => `made-${(ids += 1)}` };
};
export const done = (bench: Bench, act: Act): Bench => applyChanges(bench, act.changes);
export const boxIn = (bench: Bench, id: string): Box => {
  const found = findBox(bench, id);
  if (!found) throw new Error(`no box ${id}`);
  return found;
};

/** Every step that can be done, and the keys in that order; `before` is asked of the bench as each step finds it. */
export function doAll(
  bench: Bench,
  id: string,
  before?: (now: Bench, key: string) => void,
): { bench: Bench; keys: string[] } {
  let now = bench;
  const keys: string[] = [];
  for (let i = 0; i < 500; i += 1) {
    const { next } = runSheetOf(now, boxIn(now, id));
    if (!next) return { bench: now, keys };
    before?.(now, next.key);
    keys.push(next.key);
    now = done(now, doneStep(now, boxIn(now, id), next, 'x', stamp()));
  }
  throw new Error('it never ends');
}
