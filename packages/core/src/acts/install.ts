import type { Box } from '../model/bench';
import type { Act } from '../model/changes';
import { noBoxLayout, type BoxLayout } from '../model/layout';
import { updateBox } from './box';

/** Decides something about the drive of a box's system; another drive or another school begins its sizes anew. */
export function decideLayout(box: Box, changed: Partial<BoxLayout>, label: string): Act {
  const before = box.layout ?? noBoxLayout();
  const anew = 'driveId' in changed || 'parts' in changed ? { sizes: {}, reserve: 0 } : {};
  return updateBox(box, { layout: { ...before, ...anew, ...changed } }, label);
}
