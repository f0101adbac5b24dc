import type { Bench } from '../model/bench';
import type { Assignment, Solution } from './solve';

/** What accepting a plan would do: boxes to open or decide, and decided boxes that get parts put aside. */
export function toAccept(bench: Bench, plan: Solution): { boxes: number; parts: number } {
  const decided = (a: Assignment): boolean =>
    bench.boxes.some((b) => b.wishId === a.wishId && b.profileId !== null);
  return {
    boxes: plan.assignments.filter((a) => !decided(a)).length,
    parts: plan.assignments.filter((a) => decided(a) && a.parts.length > 0).length,
  };
}
