import type { Box } from '../model/bench';
import type { Act } from '../model/changes';
import { changedLayout } from '../layout/forBox';
import type { BoxLayout } from '../model/layout';
import { noOpening, type OpeningRecord, type Screws } from '../model/opening';
import { updateBox } from './box';

const opening = (box: Box): OpeningRecord => box.opening ?? noOpening();

/** Keeps the tray of screws as it is now. */
export const keepTray = (box: Box, tray: readonly Screws[]): Act =>
  updateBox(box, { opening: { ...opening(box), tray: [...tray] } }, 'Screws on the tray');

/** Takes exactly these precautions for a box. */
export const takePrecautions = (box: Box, ids: readonly string[], label: string): Act =>
  updateBox(box, { precautions: [...ids] }, label);

/** Says of a precaution whether it is out of the question; one that is is not taken either. */
export const refusePrecaution = (box: Box, id: string, refuse: boolean, label: string): Act =>
  updateBox(
    box,
    {
      refused: refuse ? [...new Set([...box.refused, id])] : box.refused.filter((r) => r !== id),
      precautions: box.precautions.filter((p) => p !== id),
    },
    label,
  );

/** Decides something about the drive of a box's system; another drive or another school begins its sizes anew. */
export const decideLayout = (box: Box, changed: Partial<BoxLayout>, label: string): Act =>
  updateBox(box, { layout: changedLayout(box.layout, changed) }, label);
