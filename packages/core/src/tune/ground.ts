import { findMachine, runsOfBox, type Bench, type Box, type TuneRun } from '../model/bench';
import { knownFlag } from '../model/known';
import type { QuantityCode, QuestionCode } from '../model/tune';
import { USUAL_TAU, type DesignGround } from './design';
import { nowAt, tuneOf } from './forBox';
import { median } from './numbers/describe';
import { questions } from './questions';
import type { ExperimentState } from './results';

/** Boxes whose machines are of the same form as this one’s, itself left out: what was measured on them is where a new one begins. */
function likeBoxes(bench: Bench, box: Box): Box[] {
  const form = findMachine(bench, box.machineId)?.form;
  return form === undefined
    ? []
    : bench.boxes.filter(
        (b) => b.id !== box.id && b.tune !== null && findMachine(bench, b.machineId)?.form === form,
      );
}

/** What a new experiment goes by: measured on this box, else on boxes of its kind, else what is usual. */
export function groundOf(bench: Bench, box: Box, question: QuestionCode): DesignGround {
  const { first } = questions[question];
  const mine = tuneOf(bench, box).results;
  const others = likeBoxes(bench, box);
  const like = others.flatMap((b) => tuneOf(bench, b).results);
  const machine = findMachine(bench, box.machineId);
  const spread = spreadIn(mine, first);
  const spreadLike = spread ?? spreadIn(like, first);
  const tau = tauIn(runsOfBox(bench, box.id));
  const tauLike = tau ?? tauIn(others.flatMap((b) => runsOfBox(bench, b.id)));
  const was = nowAt(mine, first);
  const wasLike = was ?? nowAt(like, first);
  const fan = knownFlag(machine, 'body.fan');
  return {
    ...(wasLike === null
      ? {}
      : { was: { value: wasLike, ground: was === null ? 'measured on its like' : 'measured here' } }),
    ...(spreadLike === undefined
      ? {}
      : {
          spread: {
            value: spreadLike,
            ground: spread === undefined ? 'measured on its like' : 'measured here',
          },
        }),
    tau:
      tauLike === undefined
        ? { value: fan === false ? USUAL_TAU.fanless : USUAL_TAU.fan, ground: 'usual' }
        : { value: tauLike, ground: tau === undefined ? 'measured on its like' : 'measured here' },
  };
}

/** One standard deviation of runs about their state’s mean, over all states of all experiments. */
function spreadIn(results: readonly ExperimentState[], code: QuantityCode): number | undefined {
  const states = results.flatMap((r) => r.arms.flatMap((a) => a.values[code] ?? []));
  const told = states.filter((s) => s.n > 1);
  const [a, b] = [told[0], told[1]];
  if (!a) return undefined;
  if (!b) return a.n > 2 && a.spread > 0 ? a.spread : undefined;
  const dof = told.reduce((s, x) => s + x.n - 1, 0);
  const squares = told.reduce((s, x) => s + x.spread ** 2 * (x.n - 1), 0);
  return squares > 0 ? Math.sqrt(squares / dof) : undefined;
}

function tauIn(runs: readonly TuneRun[]): number | undefined {
  const taus = runs.flatMap((r) => r.tau ?? []);
  return taus.length === 0 ? undefined : median(taus);
}
