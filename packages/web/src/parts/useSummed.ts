import { useEffect, useState } from 'react';
import { summaryOf } from '@zb/core/box/summary';
import type { Bench } from '@zb/core/model/bench';
import { inTurns } from './inTurns';

/** So many boxes are summed up at once; more of them in turns, so that the page stays quick. */
const AT_ONCE = 40;

/**
 * The bench once all its boxes are summed up: the one given, or while very many boxes are being worked on the one before.
 * Undefined where none is ready yet. Summaries are kept with their boxes, so whoever asks for them then waits no more.
 */
export function useSummed(bench: Bench): Bench | undefined {
  const [ready, setReady] = useState<Bench>();
  const few = bench.boxes.length <= AT_ONCE;
  useEffect(() => {
    if (few) return undefined;
    let live = true;
    void inTurns(
      bench.boxes,
      (box) => summaryOf(bench, box),
      () => live,
    ).then(() => {
      if (live) setReady(bench);
    });
    return () => {
      live = false;
    };
  }, [bench, few]);
  return few ? bench : ready;
}
