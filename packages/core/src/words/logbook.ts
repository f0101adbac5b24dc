import { logOf, type Bench, type Box, type LogEntry } from '../model/bench';

/** The finding at the head of the keep sheet. */
export function keepHeadline(bench: Bench, box: Box): string {
  const lines = logOf(bench, box.id).length;
  const left = 12 - box.signoffs.length;
  const record =
    lines === 0 ? 'Nothing is on record yet' : `${lines} ${lines === 1 ? 'line is' : 'lines are'} on record`;
  return left === 0
    ? `${record}; the box is finished`
    : `${record}; ${left} ${left === 1 ? 'stop is' : 'stops are'} left`;
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
