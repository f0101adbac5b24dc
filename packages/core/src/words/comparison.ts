import type { ListRow } from '../checksum/against';
import type { Comparison } from '../model/shelf';

/** The plain words for a verdict. */
export const verdictWords: Record<Comparison['verdict'], string> = {
  same: 'matches',
  differs: 'differs',
  'not-listed': 'not listed',
  'other-size': 'list names another size',
};

/** What a list says of one image. */
export const rowWords = ({ comparison, wanted }: ListRow): string =>
  comparison
    ? verdictWords[comparison.verdict]
    : `listed in ${wanted.join(', ').toUpperCase()}, which was not computed; open the file again`;
