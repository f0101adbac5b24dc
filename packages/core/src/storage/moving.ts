import { addDays, formatISO, parseISO } from 'date-fns';
import { moveSteps, type MoveFault, type MoveStep, type Moving } from '../model/moving';

/** What stands against going on, with its grade. */
export interface MoveFinding {
  grade: 'stop' | 'check' | 'note';
  fault: MoveFault;
}

/** Where a move stands. */
export interface MoveState {
  /** The step that is next; null where all are done. */
  next: MoveStep | null;
  /**
   * `free`: the old one is as it was, and nothing is lost by going back. `with loss`: the new one has taken over, and what
   * was written to it since is not on the old one. `none`: the old one need not be there any more.
   */
  back: 'free' | 'with loss' | 'none';
  /** The day until which the old one stays whole; null before the new one has taken over. */
  keepUntil: string | null;
  findings: MoveFinding[];
}

/** How a move stands on a calendar day. Common practice, no source: back up, bring back, count, and only then switch. */
export function moveState(m: Moving, today: string): MoveState {
  const findings: MoveFinding[] = [];
  const add = (grade: MoveFinding['grade'], fault: MoveFault): void => void findings.push({ grade, fault });
  const { what, done, sums, counts } = m;
  const next = moveSteps.find((s) => done[s] === undefined) ?? null;
  const last = [...moveSteps].reverse().find((s) => done[s] !== undefined);
  if (last !== undefined && next !== null && moveSteps.indexOf(next) < moveSteps.indexOf(last))
    add('check', { code: 'out of order', what, step: last, before: next });
  if (done['back up'] !== undefined && done.freeze === undefined)
    add('stop', { code: 'still written to', what });
  if (done.copy !== undefined) {
    if (sums.made === '' || sums.arrived === '') add('check', { code: 'sum not known', what });
    else if (sums.made.toLowerCase() !== sums.arrived.toLowerCase())
      add('stop', { code: 'sums differ', what });
  }
  const differ = counts.filter((c) => c.before !== c.after && done.count !== undefined);
  if (differ.length > 0) add('stop', { code: 'counts differ', what, of: differ.map((c) => c.of) });
  if (done.count !== undefined && counts.length === 0) add('stop', { code: 'nothing counted', what });
  const keepUntil =
    done.switch === undefined
      ? null
      : formatISO(addDays(parseISO(done.switch.slice(0, 10)), m.keepDays), { representation: 'date' });
  const over = keepUntil !== null && today > keepUntil;
  if (over && done.keep === undefined && keepUntil !== null)
    add('note', { code: 'old one may go', what, day: keepUntil });
  return {
    next,
    back: done.keep !== undefined && over ? 'none' : done.switch === undefined ? 'free' : 'with loss',
    keepUntil,
    findings,
  };
}
