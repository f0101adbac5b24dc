import { fixedShell, sh, type Shell } from '../../formats/writer/shell';
import type { LayoutFilesystem } from '../../model/layout';
import type { LaidPart, Layout } from '../laid';
import { fatBitsOf } from '../space/fat';
import { partPath } from './partPath';

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
    .replace(/^-+/, '')
    .slice(0, LABEL[filesystem]);
  return filesystem === 'vfat' ? plain.toUpperCase() : plain;
}

const COMMAND: Record<
  Exclude<LayoutFilesystem, 'none' | 'vfat'>,
  readonly [command: string, label: string, overOld: string]
> = {
  ext4: ['mkfs.ext4', '-L', '-F'],
  xfs: ['mkfs.xfs', '-L', '-f'],
  btrfs: ['mkfs.btrfs', '-L', '-f'],
  f2fs: ['mkfs.f2fs', '-l', '-f'],
  exfat: ['mkfs.exfat', '-L', ''],
  ntfs: ['mkfs.ntfs --fast', '-L', ''],
  swap: ['mkswap', '-L', '-f'],
};

/** One file system that is made: its command, and where. */
export interface MadePart {
  number: number;
  path: string;
  command: Shell;
}

/**
 * Commands that make the file systems of new parts, one each. `device` is the path of the drive; `overOld`: each goes ahead
 * where an old file system is found, for a script that has asked.
 */
export const madeParts = (layout: Layout, device: string, overOld = false): MadePart[] =>
  layout.parts.flatMap((p) => {
    if (p.fate !== 'new' || p.filesystem === null || p.filesystem === 'none') return [];
    const path = layout.table === 'none' ? device : partPath(device, p.number);
    const label = labelOf(p);
    const [tool, option, force]: readonly [string, string, string] =
      p.filesystem === 'vfat'
        ? [`mkfs.vfat -F ${fatBitsOf(p.bytes, layout.sectorSize)}`, '-n', '']
        : COMMAND[p.filesystem];
    const words = [
      fixedShell(tool),
      ...(overOld && force !== '' ? [force] : []),
      ...(label === '' ? [] : [option, label]),
      path,
    ];
    return [{ number: p.number, path, command: sh`${words}` }];
  });

/** The same as lines of a shell. */
export const mkfsCommands = (layout: Layout, device: string): string[] =>
  madeParts(layout, device).map((m) => m.command.text);
