import { storesOf, type Bench, type Box, type Store } from '../model/bench';
import type { Written } from '../model/stopRecords';

/** What became of a box’s own write since: it counts, or something else was done to that medium. */
export type WriteStands =
  | { code: 'counts'; written: Written }
  /** `image` null: what lies there now is not known. `boxName` null: it was written for no box. */
  | { code: 'replaced'; written: Written; store: Store; image: string | null; boxName: string | null };

/**
 * Whether a write of a box still says what lies on its medium: a later image over the whole of it, or a system installed on
 * it, ends that. Null where the box has written nothing. A medium that the shelf does not have, or on which nothing was
 * recorded since, is taken at the write's word.
 */
export function writeStands(bench: Bench, box: Pick<Box, 'written'>): WriteStands | null {
  const { written } = box;
  if (!written) return null;
  const store = storesOf(bench).find((s) => s.serial === written.serial);
  if (!store || store.revision === 0) return { code: 'counts', written };
  const now = store.wholeImage;
  // Of two images that the bench does not have nobody knows whether they are the same: the one that was written then counts.
  const same = written.imageId === null ? now?.at === written.at : now?.imageId === written.imageId;
  if (written.result === 'failed' ? store.content?.learnt.at === written.at : same)
    return { code: 'counts', written };
  const other = bench.boxes.find((b) => b.id === now?.boxId);
  return {
    code: 'replaced',
    written,
    store,
    image: now?.imageName ?? null,
    boxName: other?.name ?? null,
  };
}

/** The write of a box as far as it still counts; null where there is none, or something else lies there now. */
export function standingWrite(bench: Bench, box: Pick<Box, 'written'>): Written | null {
  const stands = writeStands(bench, box);
  return stands?.code === 'counts' ? stands.written : null;
}
