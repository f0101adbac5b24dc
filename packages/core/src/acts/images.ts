import type { ListRow } from '../checksum/against';
import { verdictWords } from '../words/comparison';
import { edited, type Act } from '../model/changes';
import { benchNote } from './note';
import type { Stamp } from './stamp';

/**
 * Keeps what a list said of several images, in one act. An image that the list does not name keeps what another list
 * said of it before.
 */
export function recordComparisons(rows: readonly ListRow[], from: string, stamp: Stamp): Act {
  const told = rows.flatMap(({ image, comparison }) =>
    comparison && (comparison.verdict !== 'not-listed' || image.comparison === null)
      ? [{ image, comparison }]
      : [],
  );
  const counted = told.map((t) => `${t.image.name} ${verdictWords[t.comparison.verdict]}`).join(', ');
  return {
    label: `${told.length} ${told.length === 1 ? 'image' : 'images'} held against ${from}`,
    changes: [
      ...told.map((t) => edited('items', t.image, { ...t.image, comparison: t.comparison })),
      benchNote('verify', `Held against ${from}: ${counted || 'no image of this bench'}.`, stamp),
    ],
  };
}
