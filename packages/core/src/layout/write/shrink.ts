import { sh, type Shell } from '../../formats/writer/shell';
import type { LaidPart, Layout } from '../laid';
import { partPath } from './partPath';

const KIB = 1024;

/** What makes one file system smaller before its part is: it is checked first, and ends where the part will. */
function shrinkOf(p: LaidPart, path: string): Shell[] {
  switch (p.stays?.toLowerCase()) {
    case 'ext2':
    case 'ext3':
    case 'ext4':
      // e2fsck(8) answers 1 where it mended something, which is no fault here.
      return [
        sh`e2fsck -f -p ${path} || test $? -le 1`,
        sh`resize2fs ${path} ${`${Math.floor(p.bytes / KIB)}K`}`,
      ];
    case 'ntfs':
      return [
        sh`ntfsresize --no-action --size ${p.bytes} ${path}`,
        sh`ntfsresize --force --size ${p.bytes} ${path}`,
      ];
    case 'btrfs':
      // It is made smaller while it is mounted (btrfs-filesystem(8)).
      return [
        sh`btrfs check --readonly ${path}`,
        sh`at=$(mktemp -d)`,
        sh`mount ${path} "$at"`,
        sh`btrfs filesystem resize ${p.bytes} "$at" || { umount "$at"; exit 1; }`,
        sh`umount "$at"`,
        sh`rmdir "$at"`,
      ];
    default:
      return [];
  }
}

/** Commands that make the file systems smaller whose parts become smaller, to be done before the table is written: resize2fs(8), ntfsresize(8), btrfs-filesystem(8). */
export const shrinkCommands = (layout: Layout, device: string): Shell[] =>
  layout.parts.flatMap((p) => (p.fate === 'made smaller' ? shrinkOf(p, partPath(device, p.number)) : []));

/** Does a file system have to become smaller first? Then the table alone is not given: it would cut off its end. */
export const shrinksFirst = (layout: Layout): boolean => layout.parts.some((p) => p.fate === 'made smaller');
