import { gradeOf, type Ending } from './ending';
import type { FrameSaid, StartedHow, TakenBy } from './frames';
import type { Told } from './tally';

type CutWhen = Extract<FrameSaid, { code: 'cut' }>['when'];

/** How a scenario comes to end badly: the one thing in it that decides. */
export type Cause =
  | `taken ${TakenBy}`
  | `cut ${CutWhen}`
  | 'stick out too early'
  | 'loader goes elsewhere'
  | 'loader overwritten'
  | `started ${StartedHow}`;

/** Endings in which a drive was taken that should not have been. */
const WRONGLY_TAKEN: readonly Ending[] = ['kept drive erased', 'other drive erased'];

/** What decides a scenario; null where it ends right. */
export function causeOf({ ending, frames }: Pick<Told, 'ending' | 'frames'>): Cause | null {
  if (gradeOf(ending) === 'right') return null;
  const said = frames.map((f) => f.said);
  const last = <C extends FrameSaid['code']>(code: C): Extract<FrameSaid, { code: C }> | undefined =>
    said.filter((s): s is Extract<FrameSaid, { code: C }> => s.code === code).at(-1);
  if (WRONGLY_TAKEN.includes(ending)) {
    const taken = last('taken');
    return taken ? `taken ${taken.by}` : null;
  }
  if (ending === 'kept start altered')
    return last('loader')?.drive === last('taken')?.drive ? 'loader overwritten' : 'loader goes elsewhere';
  const cut = last('cut');
  if (cut) return `cut ${cut.when}`;
  if (last('stick out too early')) return 'stick out too early';
  const started = said.filter((s) => s.code === 'starts' || s.code === 'nothing starts').at(-1);
  return started ? `started ${started.how}` : null;
}
