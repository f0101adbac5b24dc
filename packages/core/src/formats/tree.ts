/** One file or folder of a volume, by its whole path with slashes. Bytes; offset in the volume, undefined for an empty file. */
export interface TreeEntry {
  path: string;
  directory: boolean;
  bytes: number;
  offset: number | undefined;
}

interface Node {
  name: string;
  directory: boolean;
  bytes: number;
  offset: number | undefined;
}

/** More than any image has in the parts that are read; bounds what a damaged volume can ask for. */
export const MAX_TREE = 20_000;
const MAX_DEPTH = 40;

/** Every file and folder below a root, folders before what is in them. `placeOf` tells a folder from any other, so that a loop ends. */
export async function walkTree<N extends Node>(
  root: N,
  children: (of: N) => Promise<N[]>,
  placeOf: (of: N) => number | undefined,
): Promise<TreeEntry[]> {
  const out: TreeEntry[] = [];
  const seen = new Set<number | undefined>([placeOf(root)]);
  const waiting: { node: N; path: string; depth: number }[] = [{ node: root, path: '', depth: 0 }];
  for (let next = waiting.shift(); next && out.length < MAX_TREE; next = waiting.shift()) {
    for (const child of await children(next.node)) {
      const path = `${next.path}/${child.name}`;
      out.push({
        path,
        directory: child.directory,
        bytes: child.directory ? 0 : child.bytes,
        offset: child.offset,
      });
      const place = placeOf(child);
      if (!child.directory || next.depth >= MAX_DEPTH || seen.has(place)) continue;
      seen.add(place);
      waiting.push({ node: child, path, depth: next.depth + 1 });
    }
  }
  return out.slice(0, MAX_TREE);
}
