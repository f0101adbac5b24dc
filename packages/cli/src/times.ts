import { beginFrom } from '@zb/core/acts/secondBox';
import { runSheetOf } from '@zb/core/box/runSheet';
import { credibleSteps, timedSteps } from '@zb/core/box/timed';
import { calibrationOf, CLAIMED } from '@zb/core/learning/calibration';
import { findMachine } from '@zb/core/model/bench';
import { applyChanges } from '@zb/core/model/changes';
import { benchToText } from '@zb/core/model/file';
import { runStepWords } from '@zb/core/words/runsheet/step';
import { askedWords, carriedWords } from '@zb/core/words/secondBox';
import { boxOf, readBench } from './benchOutput';
import { InputError } from './inputFile';

/** What `zb times` prints: every step that was timed with what was foretold of it, how often that held, and what is foretold of the steps of a box. Seconds. */
export function timesOutput(text: string, id: string | undefined) {
  const bench = readBench(text);
  const box = id === undefined ? undefined : boxOf(bench, id);
  return {
    claimed: CLAIMED,
    calibration: calibrationOf(credibleSteps(bench)),
    timed: timedSteps(bench),
    ...(box
      ? {
          foretold: runSheetOf(bench, box).steps.flatMap(({ key, what, work, table, foretold }) =>
            foretold ? [{ key, title: runStepWords(what).title, ...work, table, ...foretold }] : [],
          ),
        }
      : {}),
  };
}

/** What `zb second` prints: what a box made after another takes over and asks again, how long it should take, and the bench with it. */
export function secondOutput(
  text: string,
  id: string,
  { name, machine, as }: { name?: string; machine?: string; as: string },
  now: string,
): object | string {
  const bench = readBench(text);
  const first = boxOf(bench, id);
  const taken = findMachine(bench, machine ?? null);
  if (machine !== undefined && !taken) throw new InputError(`there is no machine ${machine} on this bench`);
  let n = 0;
  const known = new Set([...bench.boxes, ...bench.log, ...bench.items].map((x) => x.id));
  const free = (): string => {
    do n += 1;
    while (known.has(`second-${n}`));
    return `second-${n}`;
  };
  const made = beginFrom(bench, first, name ?? `${first.name} 2`, taken, { now, id: free });
  if (as === 'bench') return benchToText(applyChanges(bench, made.changes));
  if (as !== 'json') throw new InputError('--as is one of: json, bench');
  return {
    box: made.box,
    carries: made.after.carries.map((code) => ({ code, words: carriedWords(code) })),
    asks: made.after.asks.map((code) => ({ code, words: askedWords(code) })),
    takes: made.takes,
  };
}
