import { absent, field } from '../image/evidence';
import { no, unknown, type StartVerdict } from '../image/verdict';
import type { BootVolume } from '../image/loaders';
import type { ImageFacts } from '../image/read';

/** What loaders of small boards look for on the first FAT part: common practice, no source. */
const SCRIPTS = /^(boot\.scr|extlinux|uenv\.txt|boot\.ini|config\.txt)$/i;

/**
 * A board's loader sits on the board and looks on the first part, which must be FAT, for device trees and a kernel or a
 * script. Whose board they are for only the board's maker can tell, so the best answer is "made for boards".
 */
export async function boardDisk(facts: ImageFacts, volumes: BootVolume[]): Promise<StartVerdict> {
  const parts = facts.candidates.filter((c) => c.from !== 'whole').sort((a, b) => a.start - b.start);
  const first = parts[0] ?? facts.candidates[0];
  const volume = volumes.find((v) => v.candidate !== undefined && v.candidate === first);
  if (!first || !volume) return no('no FAT part first', absent('FAT part at the front', 'common practice'));
  const root = await volume.fat.list('/');
  const inFolders = root.some((e) => e.directory && /^(dtbs?|overlays|dtb-.*)$/i.test(e.name));
  const trees = root.filter((e) => /\.dtb$/i.test(e.name));
  const script = root.find((e) => SCRIPTS.test(e.name));
  const where = await field(facts.source, first.start, 16, 'first FAT part of the image', 'common practice');
  if (trees.length === 0 && !inFolders && !script) return no('nothing for boards', where);
  const verdict = unknown(
    {
      code: 'made for boards',
      trees: trees.length,
      firstTree: trees[0]?.name ?? null,
      treeFolder: inFolders,
      script: script?.name ?? null,
    },
    where,
  );
  return { ...verdict, begins: { by: 'board', volume } };
}
