import type { Bench } from '../model/bench';
import { middleOf } from '../units/duration';
import { runSheetOf, type RunStep } from './runSheet';

/** A step that goes on by itself, and when it should be done (ISO 8601, UTC). */
export interface Wait {
  /** Of one run of it: the box, the step, and when it was begun. */
  key: string;
  boxId: string;
  box: string;
  step: RunStep;
  ends: string;
}

/** What goes on alone for less is not left for another machine, seconds. Common practice, no source. */
const WORTH_SECONDS = 90;

/** Whether a step goes on by itself long enough to turn to something else. */
export const isLeftAlone = (step: RunStep): boolean => middleOf(step.alone) >= WORTH_SECONDS;

/** Steps that go on by themselves now, the first to end first; of steps whose clock runs. */
export const waitsOf = (bench: Bench): Wait[] =>
  bench.boxes
    .flatMap((box): Wait[] => {
      const clock = box.run?.clock;
      if (!clock || box.kept?.retired) return [];
      const step = runSheetOf(bench, box).steps.find((s) => s.key === clock.key);
      if (!step || !isLeftAlone(step)) return [];
      const seconds = step.foretold?.median ?? middleOf(step.hands) + middleOf(step.alone);
      return [
        {
          key: `${box.id} ${clock.key} ${clock.since}`,
          boxId: box.id,
          box: box.name,
          step,
          ends: new Date(Date.parse(clock.since) + seconds * 1000).toISOString(),
        },
      ];
    })
    .sort((a, b) => (a.ends < b.ends ? -1 : 1));
