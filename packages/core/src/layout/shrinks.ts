import type { PartThere } from '../model/layout';

/** File systems that common tools make smaller without losing them; XFS and FAT cannot be. Common practice, no source. */
const SHRINKS = /^(ext[234]|ntfs|btrfs)$/i;

/** Could what lies in this part be made smaller? */
export const canShrink = ({ filesystem }: Pick<PartThere, 'filesystem'>): boolean =>
  filesystem !== null && SHRINKS.test(filesystem);
