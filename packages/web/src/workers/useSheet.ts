import { wrap, type Remote } from 'comlink';
import { useEffect, useState } from 'react';
import type { BriefSheet } from '@zb/core/system/sheet';
import type { Bench } from '@zb/core/model/bench';
import type { SheetWorker } from './sheetWorker';

let remote: Remote<SheetWorker> | undefined;
const worker = (): Remote<SheetWorker> =>
  (remote ??= wrap<SheetWorker>(
    new Worker(new URL('./sheetWorker.ts', import.meta.url), { type: 'module' }),
  ));

/** Every machine judged against every wish or system, off the page's thread; the last sheet stays until the next is there. */
export function useSheet(bench: Bench, by: BriefSheet['by']): BriefSheet | null {
  const [sheet, setSheet] = useState<BriefSheet | null>(null);
  useEffect(() => {
    let live = true;
    worker()
      .sheet(bench, by)
      .then(
        (next) => {
          if (live) setSheet(next);
        },
        (error: unknown) => {
          // A judge that fails is a fault of ours: it must be seen, not swallowed.
          if (live)
            setSheet(() => {
              throw error;
            });
        },
      );
    return () => {
      live = false;
    };
  }, [bench, by]);
  return sheet?.by === by ? sheet : null;
}
