import { openFat } from '../formats/fat/read';
import { openIso } from '../formats/iso9660/read';
import { slice, type ByteSource } from '../formats/source';
import type { TreeEntry } from '../formats/tree';
import type { ImageReading } from '../model/inspection';

/** What differs between two trees of files. */
export interface TreeDifference {
  /** The part both trees are of; null for the optical volume. */
  part: { index: number; label: string | null } | null;
  onlyInFirst: string[];
  onlyInSecond: string[];
  /** Files of other sizes; bytes. */
  sizes: { path: string; first: number; second: number }[];
  /** Files in both trees that are there by the same path and size. */
  same: number;
}

/** A tree by path; FAT and plain optical names do not tell upper from lower case. */
async function treeAt(
  source: ByteSource,
  start: number,
  bytes: number,
): Promise<Map<string, TreeEntry> | undefined> {
  const window = slice(source, start, bytes);
  const volume = (await openFat(window)) ?? (await openIso(window));
  if (!volume) return undefined;
  return new Map((await volume.walk()).map((e) => [e.path.toLowerCase(), e]));
}

function differ(
  part: TreeDifference['part'],
  first: Map<string, TreeEntry>,
  second: Map<string, TreeEntry>,
): TreeDifference {
  const out: TreeDifference = { part, onlyInFirst: [], onlyInSecond: [], sizes: [], same: 0 };
  for (const [key, a] of first) {
    const b = second.get(key);
    if (!b) out.onlyInFirst.push(a.path);
    else if (a.bytes !== b.bytes) out.sizes.push({ path: a.path, first: a.bytes, second: b.bytes });
    else if (!a.directory) out.same += 1;
  }
  for (const [key, b] of second) if (!first.has(key)) out.onlyInSecond.push(b.path);
  return out;
}

/** The parts of two images whose trees can be read and that belong together: the same number, or both the whole. */
export async function compareTrees(
  a: { source: ByteSource; reading: ImageReading },
  b: { source: ByteSource; reading: ImageReading },
): Promise<TreeDifference[]> {
  const out: TreeDifference[] = [];
  const pairs = a.reading.parts.map((p) => ({ p, q: b.reading.parts.find((x) => x.index === p.index) }));
  for (const { p, q } of pairs) {
    const first = await treeAt(a.source, p.start, p.bytes);
    const second = q && (await treeAt(b.source, q.start, q.bytes));
    if (first && second) out.push(differ({ index: p.index, label: p.label }, first, second));
  }
  // An optical volume that a table maps as well is read by its own descriptors.
  const optical = [a, b].every(({ reading }) => reading.layout.startsWith('iso9660'));
  if (optical && !out.some((d) => d.same > 0)) {
    const first = await treeAt(a.source, 0, a.source.size);
    const second = await treeAt(b.source, 0, b.source.size);
    if (first && second) out.push(differ(null, first, second));
  }
  return out;
}
