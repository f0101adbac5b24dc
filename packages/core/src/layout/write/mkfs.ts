import type { LayoutFilesystem } from '../../model/layout';
import type { LaidPart, Layout } from '../laid';
import { partPath, shellWord } from './shell';

/** So many characters of a label each file system takes (manuals of their makers). */
const LABEL: Record<Exclude<LayoutFilesystem, 'none'>, number> = {
  ext4: 16,
  xfs: 12,
  btrfs: 255,
  f2fs: 511,
  vfat: 11,
  exfat: 11,
  ntfs: 127,
  swap: 16,
};

/** The label a part gets: without what shells, tables and FAT do not take, as long as its file system allows. */
export function labelOf({ filesystem, name }: Pick<LaidPart, 'filesystem' | 'name'>): string {
  if (filesystem === null || filesystem === 'none') return '';
  const plain = name
    .normalize('NFKD')
    .replace(/[^\w .-]+/g, '')
    .trim()
    .replace(/\s+/g, '-')
    .slice(0, LABEL[filesystem]);
  return filesystem === 'vfat' ? plain.toUpperCase() : plain;
}

const COMMAND: Record<Exclude<LayoutFilesystem, 'none'>, readonly [string, string]> = {
  ext4: ['mkfs.ext4', '-L'],
  xfs: ['mkfs.xfs', '-L'],
  btrfs: ['mkfs.btrfs', '-L'],
  f2fs: ['mkfs.f2fs', '-l'],
  vfat: ['mkfs.vfat -F 32', '-n'],
  exfat: ['mkfs.exfat', '-L'],
  ntfs: ['mkfs.ntfs --fast', '-L'],
  swap: ['mkswap', '-L'],
};
/** FAT32 wants more clusters than a part as small as this has (FAT specification 1.03, “FAT Type Determination”). */
const LEAST_FAT32 = 33 * 1024 * 1024;

/** Commands that make the file systems of new parts. `device` is the path of the drive. */
export const mkfsCommands = (layout: Layout, device: string): string[] =>
  layout.parts.flatMap((p) => {
    if (p.fate !== 'new' || p.filesystem === null || p.filesystem === 'none') return [];
    const [command, option] = COMMAND[p.filesystem];
    const label = labelOf(p);
    const path = layout.table === 'none' ? device : partPath(device, p.number);
    return [
      [
        p.filesystem === 'vfat' && p.bytes < LEAST_FAT32 ? 'mkfs.vfat' : command,
        ...(label === '' ? [] : [option, shellWord(label)]),
        shellWord(path),
      ].join(' '),
    ];
  });
