import type { Comparison, ImageItem } from '../model/shelf';
import { compareDigests } from './compare';
import { sumsFor, type ChecksumList, type DigestAlgorithm } from '../formats/checksumList';

/** One image held against a list. */
export interface ListRow {
  image: ImageItem;
  /** Undefined where the list's algorithms were not computed for it. */
  comparison: Comparison | undefined;
  /** What the list names for it and nobody computed, where it cannot be compared yet. */
  wanted: DigestAlgorithm[];
}

/** Holds several images against one list, in the order they are given. */
export function againstList(
  images: readonly ImageItem[],
  list: ChecksumList,
  from: string,
  at: string,
): ListRow[] {
  return images.map((image) => {
    const comparison = compareDigests({ ...image, container: image.inspection?.container }, list, from, at);
    const wanted = [...new Set(sumsFor(list, image.name).map((x) => x.algorithm))];
    return { image, comparison, wanted };
  });
}
