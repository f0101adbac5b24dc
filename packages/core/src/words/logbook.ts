import { plural } from './text';
import { logOf, type Bench, type Box, type LogEntry } from '../model/bench';

/** The finding at the head of the keep sheet. `due`: how much of what comes round is due; null where no day is known. */
export function keepHeadline(bench: Bench, box: Box, due: number | null): string {
  const lines = logOf(bench, box.id).length;
  const left = 12 - box.signoffs.length;
  const record = lines === 0 ? 'Nothing is on record yet' : `${plural(lines, 'line')} on record`;
  if (box.kept?.retired) return `${record}; the box is retired`;
  if (left > 0) return `${record}; ${plural(left, 'stop is', 'stops are')} left`;
  return due === null || due === 0
    ? `${record}; nothing is due`
    : `${plural(due, 'thing is', 'things are')} due; ${record}`;
}

/** What each kind of line of the log is called. */
export const logKindWords: Record<LogEntry['kind'], string> = {
  note: 'notes',
  photo: 'photographs',
  setting: 'settings changed',
  survey: 'surveys',
  decision: 'decisions',
  hash: 'images checked',
  write: 'writes',
  signoff: 'sign-offs',
};
