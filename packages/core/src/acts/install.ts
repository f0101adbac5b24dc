import type { Box } from '../model/bench';
import type { Act } from '../model/changes';
import { changedLayout } from '../layout/forBox';
import type { BoxLayout } from '../model/layout';
import { updateBox } from './box';

/** Decides something about the drive of a box's system; another drive or another school begins its sizes anew. */
export const decideLayout = (box: Box, changed: Partial<BoxLayout>, label: string): Act =>
  updateBox(box, { layout: changedLayout(box.layout, changed) }, label);
