import type { Comparison, ImageItem } from '../model/shelf';
import { compareDigests, verdictWords } from './compare';
import { sumsFor, type ChecksumList } from '../formats/checksumList';

/** One image held against a list. */
export interface ListRow {
  image: ImageItem;
  /** Undefined where the list's algorithms were not computed for it. */
  comparison: Comparison | undefined;
  words: string;
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
    const wanted = [...new Set(sumsFor(list, image.name).map((s) => s.algorithm.toUpperCase()))].join(', ');
    return {
      image,
      comparison,
      words: comparison
        ? verdictWords[comparison.verdict]
        : `listed in ${wanted}, which was not computed; open the file again`,
    };
  });
}
