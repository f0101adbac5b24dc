import { above, folderOf, nameOf } from '../units/paths';
import type { Rounding } from './target';

/** What files take on a target: their bytes, and the whole clusters they and their folders take. */
export interface Taken {
  files: number;
  folders: number;
  bytes: number;
  /** With every file and folder rounded up to whole clusters. */
  rounded: number;
}

/**
 * Room that files take on a target. A folder takes a cluster, and more where it has many entries; its own two entries “.” and
 * “..” are counted. Folders that are on the target already cost nothing new: `there` names them.
 */
export function takes(
  files: readonly { path: string; bytes: number }[],
  rounding: Rounding,
  there: ReadonlySet<string> = new Set(),
): Taken {
  const up = (n: number): number => Math.ceil(n / rounding.cluster) * rounding.cluster;
  const entries = new Map<string, number>();
  const seen = new Set<string>();
  const enter = (path: string): void => {
    const folder = folderOf(path);
    entries.set(folder, (entries.get(folder) ?? 0) + rounding.entry(nameOf(path).length));
  };
  let bytes = 0;
  let rounded = 0;
  for (const f of files) {
    bytes += f.bytes;
    rounded += up(f.bytes);
    enter(f.path);
    for (const folder of above(f.path)) {
      if (seen.has(folder)) break;
      seen.add(folder);
      if (!there.has(folder)) enter(folder);
    }
  }
  const made = [...seen].filter((f) => !there.has(f));
  for (const folder of made) rounded += up((entries.get(folder) ?? 0) + 64);
  return { files: files.length, folders: made.length, bytes, rounded };
}
