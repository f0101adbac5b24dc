import { tuneOf } from '../../tune/forBox';
import { hazard } from '../hazard';
import { plainStop, type StopModule } from '../stopModule';

const plain = plainStop('tune', [10, 20], [10, 20]);

/** Of a run, what a person does: set, start, note. Seconds; common practice, no source. */
const HANDS = { low: 40, high: 150 };

export const tune: StopModule = {
  ...plain,
  hazards: ({ bench, box }) =>
    box.tune === null
      ? []
      : tuneOf(bench, box).findings.map((f) =>
          hazard('tuning', f.grade, 'tune', {}, { from: { tuning: f.fault } }),
        ),
  questions: ({ bench, box }) => {
    const open = box.tune === null ? [] : tuneOf(bench, box).results.filter((r) => r.next !== null);
    return open.map((r) => `${box.name}: ${r.planned - r.made} runs of an experiment are still to be made`);
  },
  // What is left of the experiments that are planned; without one, what a first is likely to take.
  hands: (scene) => {
    const left = runsLeft(scene);
    return left.runs === 0
      ? plain.hands(scene)
      : { low: left.runs * HANDS.low, high: left.runs * HANDS.high };
  },
  waiting: (scene) => {
    const left = runsLeft(scene);
    return left.runs === 0 ? plain.waiting(scene) : { low: left.seconds, high: left.seconds * 1.1 };
  },
};

/** Runs that are planned and not made, and the seconds they run by themselves. */
function runsLeft({ bench, box }: Parameters<StopModule['hands']>[0]): { runs: number; seconds: number } {
  if (box.tune === null) return { runs: 0, seconds: 0 };
  return tuneOf(bench, box).results.reduce(
    (sum, r) => {
      const left = r.next === null ? 0 : r.planned - r.made;
      const { settleSeconds, measureSeconds, coolSeconds } = r.experiment;
      return {
        runs: sum.runs + left,
        seconds: sum.seconds + left * (settleSeconds + measureSeconds + coolSeconds),
      };
    },
    { runs: 0, seconds: 0 },
  );
}
