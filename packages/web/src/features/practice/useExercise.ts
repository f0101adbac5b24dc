import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { attemptOf, keepAttempt } from '@zb/core/acts/practice';
import type { PracticeAct } from '@zb/core/model/practice';
import type { OwnSetup } from '@zb/core/practice/own';
import { WAIT, withAct, type Played } from '@zb/core/practice/play';
import { stamp, useAct } from '../../storage/hooks';
import { useElsewhere } from '../../workers/elsewhere';
import type { PracticeJob, PracticeStands } from '../../workers/practiceWorker';
import { keepOpen, openOf, type OpenExercise } from './open';

const thread = (): Worker =>
  new Worker(new URL('../../workers/practiceWorker.ts', import.meta.url), { type: 'module' });

/** How a game of acts stands, off the page's thread; `kept`: of so many acts, the rest were not on offer. */
export function usePlayed(
  exercise: string | OwnSetup,
  seed: number,
  acts: PracticeAct[],
): { played: Played | null; kept: number | null; settled: boolean } {
  const job = useMemo<PracticeJob>(() => ({ exercise, seed, acts }), [exercise, seed, acts]);
  const { found, share, stale } = useElsewhere<PracticeStands, 'stopped'>(thread, 'stopped', job);
  const settled = share === null && !stale;
  return { played: found?.played ?? null, kept: settled ? (found?.kept ?? null) : null, settled };
}

/** A seed that nobody chose. */
const anySeed = (): number => Math.floor(Math.random() * 10_000);

/** Ways in which time goes by at a simulated machine: milliseconds to a beat; null: only by hand. */
export const PACES = { 'as it is': 500, slow: 1500, 'by hand': null } as const;
/** One of them. */
export type Pace = keyof typeof PACES;

/** An exercise that is worked through: what was done, how it stands, and its record once it ends. */
export function useExercise({
  id,
  title,
  of,
  boxId,
  seedWanted,
  pace,
}: {
  id: string;
  title: string;
  of: string | OwnSetup;
  boxId: string | null;
  seedWanted: number | null;
  pace: Pace;
}) {
  const keep = useAct();
  const fresh = useCallback(
    (seed: number): OpenExercise => ({ exercise: id, seed, acts: [], begun: new Date().toISOString() }),
    [id],
  );
  const [open, setOpen] = useState<OpenExercise>(() => {
    const before = openOf(id);
    return before && (seedWanted === null || before.seed === seedWanted)
      ? before
      : fresh(seedWanted ?? anySeed());
  });
  const { played, kept, settled } = usePlayed(of, open.seed, open.acts);
  const ended = played?.end ?? null;

  const take = useCallback(
    (act: PracticeAct): void =>
      setOpen((o) => {
        const next = { ...o, acts: withAct(o.acts, act) };
        keepOpen(next);
        return next;
      }),
    [],
  );

  const record = useCallback(
    (stands: Played): void => {
      const { now, id: newId } = stamp();
      const attempt = attemptOf(stands, { ...open, id: newId(), exercise: id, boxId, now });
      void keep(keepAttempt(attempt, title));
    },
    [keep, open, id, boxId, title],
  );
  // Once, when it ends; not again after a reload, for nothing is open then.
  const recorded = useRef('');
  useEffect(() => {
    if (!played || !settled || ended === null || recorded.current === open.begun) return;
    recorded.current = open.begun;
    keepOpen(null);
    record(played);
  }, [played, settled, ended, open.begun, record]);

  // Two acts at once, of which the first took the second's place away: the second was never done.
  if (kept !== null && kept < open.acts.length) setOpen({ ...open, acts: open.acts.slice(0, kept) });

  // Time goes by whatever is pressed meanwhile; a beat too many is dropped like any act that is not on offer.
  const beats = played?.beats === true;
  const millis = PACES[pace];
  useEffect(() => {
    if (!beats || millis === null) return;
    const timer = setInterval(() => {
      if (!document.hidden) take(WAIT);
    }, millis);
    return () => clearInterval(timer);
  }, [beats, millis, take]);

  /** Begins anew, with another seed or the same; what was under way is kept as left. */
  const again = (seed: number = anySeed()): void => {
    if (played && ended === null && open.acts.length > 0) record(played);
    keepOpen(null);
    setOpen(fresh(seed));
  };
  return { played, seed: open.seed, acts: open.acts, take, again };
}
