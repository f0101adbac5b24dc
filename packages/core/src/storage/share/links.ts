import type { FolderLink, Sharing } from '../../model/sharing';
import { liesIn } from './rights';
import { shareFinding, type ShareFinding } from './finding';

/** Deeper than this no path is followed: Linux gives up after forty links (path_resolution(7)). */
const MOST = 40;

/** Where a path leads in the end, null where it goes in a circle, and the links on the way. */
function trail(path: string, links: readonly FolderLink[]): { end: string | null; through: string[] } {
  let at = path;
  const through: string[] = [];
  for (let n = 0; n <= MOST; n += 1) {
    // The first link on the way counts: of two that lie within each other, the outer one.
    const link = links
      .filter((l) => liesIn(at, l.at))
      .reduce<FolderLink | undefined>((a, b) => (a && a.at.length <= b.at.length ? a : b), undefined);
    if (!link) return { end: at, through };
    through.push(link.at);
    at = link.to + at.slice(link.at.length);
  }
  return { end: null, through };
}

/** A path with every link on the way followed; undefined where it goes in a circle. */
export function follow(path: string, links: readonly FolderLink[]): { path: string } | undefined {
  const { end } = trail(path, links);
  return end === null ? undefined : { path: end };
}

/**
 * What is wrong with links: circles, ends that nothing stands at, one that lies where something is, and one that leads into
 * itself so that a program that walks it never comes back. Whatever lies in a shared folder is taken for there.
 */
export function checkLinks({ folders, links }: Sharing): ShareFinding[] {
  const out: ShareFinding[] = [];
  const seen = new Set<string>();
  for (const link of links) {
    const { at, to } = link;
    if (seen.has(at)) out.push(shareFinding('stop', { code: 'link twice', at }));
    seen.add(at);
    if (folders.some((f) => liesIn(f.path, at)))
      out.push(shareFinding('stop', { code: 'link over a folder', at }));
    const under = links.find((l) => l !== link && l.at !== at && liesIn(at, l.at));
    if (under) out.push(shareFinding('stop', { code: 'link within a link', at, under: under.at }));
    const { end, through } = trail(to, links);
    if (end === null) {
      out.push(shareFinding('stop', { code: 'link in a circle', at, to, through: [...new Set(through)] }));
      continue;
    }
    // A walk that goes through it finds it again below its own end.
    if (liesIn(at, end)) {
      out.push(shareFinding('stop', { code: 'link into itself', at, to }));
      continue;
    }
    if (!folders.some((f) => liesIn(end, f.path)))
      out.push(shareFinding('stop', { code: 'link dangles', at, to }));
  }
  return out;
}

/** From one place to another, upwards where it has to be: a link that keeps its sense when the pool is mounted elsewhere. */
export function relative(at: string, to: string): string {
  const from = at.split('/').slice(1, -1);
  const towards = to.split('/').slice(1);
  let same = 0;
  while (same < from.length && same < towards.length - 1 && from[same] === towards[same]) same += 1;
  return [...from.slice(same).map(() => '..'), ...towards.slice(same)].join('/');
}

/** A folder of the tree: folders that are shared, links, and those on the way to them. */
export interface TreeNode {
  name: string;
  path: string;
  /** What stands there; null of a folder that is only on the way. */
  share: string | null;
  link: FolderLink | null;
  below: TreeNode[];
}

/** Shared folders and links as a tree. */
export function treeOf({ folders, links }: Sharing): TreeNode[] {
  const roots: TreeNode[] = [];
  const put = (path: string): TreeNode => {
    const parts = path.split('/').slice(1);
    let level = roots;
    let node: TreeNode | undefined;
    parts.forEach((name, i) => {
      const here = `/${parts.slice(0, i + 1).join('/')}`;
      node = level.find((n) => n.name === name);
      if (!node) {
        node = { name, path: here, share: null, link: null, below: [] };
        level.push(node);
      }
      level = node.below;
    });
    return node as TreeNode;
  };
  for (const f of folders) put(f.path).share = f.name;
  for (const l of links) put(l.at).link = l;
  const sort = (nodes: TreeNode[]): TreeNode[] =>
    nodes.sort((a, b) => a.name.localeCompare(b.name)).map((n) => ({ ...n, below: sort(n.below) }));
  return sort(roots);
}
