import { benchSchema } from './bench';
import type { Act } from './changes';

/**
 * What is wrong with the first record of an act that could not be read back, in words; undefined where all are sound.
 * What is kept is validated on the way in, so that a bench that was saved can always be opened.
 */
export function faultOf(act: Act): string | undefined {
  for (const change of act.changes) {
    if (change.in === 'name') {
      if (change.to.trim() === '' || !benchSchema.shape.name.safeParse(change.to).success)
        return 'the bench’s name must have 1 to 120 characters';
      continue;
    }
    if (change.to === null) continue;
    const schema =
      change.in === 'settings' ? benchSchema.shape.settings : benchSchema.shape[change.in].element;
    const parsed = schema.safeParse(change.to);
    const issue = parsed.error?.issues[0];
    if (issue) return `${issue.path.join('.') || change.in}: ${issue.message.toLowerCase()}`;
  }
  return undefined;
}
