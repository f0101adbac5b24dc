import { differenceInCalendarDays, parseISO } from 'date-fns';
import type { CopyFault, KeptThing } from '../model/storage';

/** What is wanting in the copies of something, with its grade. */
export interface CopyFinding {
  grade: 'stop' | 'check' | 'note';
  fault: CopyFault;
}

/** Bringing something back is tried again after so long. Common practice, no source. */
const TRY_AGAIN_DAYS = 365;

/** Three copies, on two kinds of thing, one of them in another house: 3-2-1. Common practice, no source. */
const COPIES = 3;

/**
 * What is wanting in the copies of each thing that matters. What a pool keeps twice is one copy: whoever deletes, a bad
 * supply or a fire takes both. `today` is a calendar day. Common practice, no source.
 */
export function checkCopies(things: readonly KeptThing[], today: string): CopyFinding[] {
  if (things.length === 0) return [{ grade: 'check', fault: { code: 'nothing named' } }];
  const since = (day: string): number => differenceInCalendarDays(parseISO(today), parseISO(day));
  return things.flatMap(({ what, copies, everyDays, restored }): CopyFinding[] => {
    const apart = copies.filter((c) => c.where !== 'this pool');
    if (apart.length === 0)
      return [
        {
          grade: 'stop',
          fault: copies.length > 0 ? { code: 'pool is no copy', what } : { code: 'no other copy', what },
        },
      ];
    const out: CopyFinding[] = [];
    if (!apart.some((c) => c.where === 'another house'))
      out.push({ grade: 'check', fault: { code: 'all in one house', what } });
    if (copies.length < COPIES)
      out.push({ grade: 'note', fault: { code: 'fewer than three', what, copies: copies.length } });
    for (const c of apart) {
      const where = c.name || c.where;
      if (c.at === null) out.push({ grade: 'note', fault: { code: 'copy of no day', what, where } });
      else if (since(c.at) > everyDays)
        out.push({ grade: 'check', fault: { code: 'copy old', what, days: since(c.at), where } });
    }
    if (restored === null) out.push({ grade: 'check', fault: { code: 'never brought back', what } });
    else if (since(restored) > TRY_AGAIN_DAYS)
      out.push({ grade: 'note', fault: { code: 'brought back long ago', what, days: since(restored) } });
    return out;
  });
}
