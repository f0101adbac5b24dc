import { theBench, type Bench } from './bench';
import { settingsSchema } from './settings';
import type { Act } from './changes';

/**
 * What is wrong with the first record of an act that could not be read back, in words; undefined where all are sound.
 * What is kept is validated on the way in, so that a bench that was saved can always be opened.
 */
export function faultOf(act: Pick<Act, 'changes'>, bench: Bench): string | undefined {
  const after = theBench.apply(theBench.named(bench, act.changes), act.changes);
  for (const change of act.changes) {
    if (change.in === 'name') {
      if (after.name.trim() === '' || after.name.length > 120)
        return 'the bench’s name must have 1 to 120 characters';
      continue;
    }
    if ('to' in change && change.to === null) continue;
    const record =
      change.in === 'settings'
        ? after.settings
        : 'to' in change
          ? change.to
          : theBench.records(after, change.in).find((x) => x.id === change.id);
    // What is gone is told as a conflict, where it is kept.
    if (record === undefined) continue;
    const schema = change.in === 'settings' ? settingsSchema : theBench.table[change.in]?.schema;
    const issue = schema?.safeParse(record).error?.issues[0];
    if (issue) return `${issue.path.join('.') || change.in}: ${issue.message.toLowerCase()}`;
  }
  return undefined;
}
