import type { LayoutFilesystem } from '../../model/layout';
import { btrfsSpace } from './btrfs';
import { exfatSpace } from './exfat';
import { ext4Space } from './ext4';
import { f2fsSpace } from './f2fs';
import { fatSpace } from './fat';
import { ntfsSpace } from './ntfs';
import type { Space } from './types';
import { xfsSpace } from './xfs';

/** File systems whose room is known before they are made. */
export type MadeFilesystem = Exclude<LayoutFilesystem, 'none'>;

const PAGE = 4096;
/** Ten pages are the least that is taken as swap (mkswap(8)). */
const LEAST_SWAP = 10 * PAGE;

/** Room of swap: all but its first page, which says what it is (mkswap(8)). */
const swapSpace = (bytes: number): Space | undefined => {
  if (bytes < LEAST_SWAP) return undefined;
  const free = Math.floor(bytes / PAGE) * PAGE - PAGE;
  return { total: free, free, toUsers: free, takes: [{ what: 'its own files', bytes: bytes - free }] };
};

const KINDS: Readonly<Record<MadeFilesystem, (bytes: number, sector: number) => Space | undefined>> = {
  ext4: ext4Space,
  xfs: xfsSpace,
  btrfs: btrfsSpace,
  f2fs: f2fsSpace,
  vfat: fatSpace,
  exfat: exfatSpace,
  ntfs: ntfsSpace,
  swap: swapSpace,
};

/**
 * Room in a part of so many bytes right after this file system was made on it with its maker's defaults; undefined where
 * the part is too small for one. `sector`: the bytes of a sector as the drive answers them, 512 or 4096.
 */
export const spaceIn = (kind: MadeFilesystem, bytes: number, sector = 512): Space | undefined =>
  KINDS[kind](bytes, sector);
