import { theBench, type Bench } from '../model/bench';
import type { Conflict } from '../model/change';

/** A value as it can be shown in a sentence. */
function valueWords(value: unknown): string {
  if (value === undefined || value === null) return 'nothing';
  if (typeof value === 'string') return value === '' ? 'nothing' : `“${value}”`;
  if (typeof value === 'number') return String(value);
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value)) return value.length === 1 ? '1 entry' : `${value.length} entries`;
  return 'other values';
}

/** Names of fields where their own would not be understood. */
const FIELDS: Record<string, string> = {
  signoffs: 'the sign-offs',
  targetSerial: 'the stick that is picked',
  machineId: 'the machine',
  profileId: 'the system',
  imageId: 'the image',
  startBy: 'the way of starting',
  gathered: 'what lies on the bench',
  parts: 'the parts put aside',
  decisions: 'the decisions',
  facts: 'the fact',
};

/** What stood in the way of an act: another tab had changed the same value, or taken the record away. */
export function conflictWords(bench: Bench | null | undefined, c: Conflict): string {
  if (c.in === 'name')
    return `The name of the bench was changed to ${valueWords(c.found)} meanwhile. Your ${valueWords(c.wanted)} was not kept.`;
  const record = (c.record ?? (bench && theBench.records(bench, c.in).find((x) => x.id === c.id))) as
    { name?: unknown } | undefined;
  const what = theBench.table[c.in]?.title.one ?? 'the settings';
  const named = typeof record?.name === 'string' ? `${what} “${record.name}”` : what;
  if (!c.record) return `The ${named} was taken away meanwhile. Your change was not kept.`;
  const [field = '', key] = c.path;
  const fieldName = `${FIELDS[field] ?? field}${key === undefined ? '' : ` ${key}`}`;
  return `Of the ${named}, ${fieldName} was changed to ${valueWords(c.found)} meanwhile. Your ${valueWords(c.wanted)} was not kept.`;
}
