import type { ContentCode, ContentEntry, ContentFinding, ContentTarget, Remedy } from '../model/contentRules';
import { grouped } from '../units/group';
import { above, folderOf, free, joined, nameOf } from '../units/paths';
import { isText, keyFor, mendedPath } from './target';

/** What becomes of one file: where it goes, or that it stays behind. */
export interface PlannedFile {
  from: string;
  /** Its path on the target; null where it is left behind. */
  to: string | null;
  bytes: number;
  /** Over the wire, because the carrying stick does not take it. */
  wire: boolean;
  /** On the target it is the same as this one: a link to it is made there. */
  same: string | null;
  sha256: string | null;
}

/** Everything that is copied, by the remedies that were taken. */
export interface CopyPlan {
  files: PlannedFile[];
  /** Renames and moves that the plan makes, in the order in which they can be done. */
  moves: { from: string; to: string }[];
  left: number;
  unpack: string[];
  /** Files whose names are no text: no script can name them, so that they stay behind. */
  unnamed: string[];
}

/** Places of a target: a file stands at one, folders lead to it, and neither can be where the other is. */
class Places {
  private readonly files = new Set<string>();
  private readonly folders = new Set<string>();
  constructor(private readonly key: (path: string) => string) {}
  lead(path: string): void {
    for (const folder of [...above(path)].map(this.key)) {
      // What is known is known with all above it.
      if (this.folders.has(folder)) return;
      this.folders.add(folder);
    }
  }
  put(path: string): void {
    this.files.add(this.key(path));
    this.lead(path);
  }
  isFile(path: string): boolean {
    return this.files.has(this.key(path));
  }
  has(path: string): boolean {
    const key = this.key(path);
    return this.files.has(key) || this.folders.has(key);
  }
}

/**
 * The remedies of the findings that were taken, put together file by file: a file that belongs in another folder and has an
 * odd name goes there under a good one. No two files end at one path: the later one gets a number.
 */
export function planCopy(
  entries: readonly ContentEntry[],
  findings: readonly ContentFinding[],
  taken: ReadonlySet<ContentCode>,
  target: ContentTarget,
): CopyPlan {
  const of = grouped(
    findings.filter((f) => taken.has(f.fault.code)).flatMap((f) => f.remedies),
    (r) => r.path,
  );
  const places = new Places(keyFor(target));
  // Folders that are there stay there, empty or not, where files are renamed in place.
  for (const e of entries) places.lead(e.path);
  const files: PlannedFile[] = [];
  const unpack: string[] = [];
  // What stays as it is keeps its place before anything that was moved gets one.
  const later: { entry: ContentEntry; remedies: Remedy[] }[] = [];
  const put = (entry: ContentEntry, to: string | null, more: Partial<PlannedFile> = {}): void => {
    if (to !== null) places.put(to);
    files.push({
      from: entry.path,
      to,
      bytes: entry.bytes,
      wire: false,
      same: null,
      sha256: entry.sha256,
      ...more,
    });
  };
  for (const entry of entries) {
    const remedies = of.get(entry.path);
    if (entry.odd !== null || !isText(entry.path)) put(entry, null);
    else if (!remedies) put(entry, entry.path);
    else later.push({ entry, remedies });
  }
  for (const { entry, remedies } of later) {
    const acts = new Set(remedies.map((r) => r.act));
    const leave = remedies.find((r) => r.act === 'leave');
    const link = remedies.find((r) => r.act === 'link')?.to ?? null;
    if (acts.has('unpack')) unpack.push(entry.path);
    if (leave || acts.has('unpack')) {
      put(entry, null, { same: leave?.to ?? null });
      continue;
    }
    let to = entry.path;
    const move = remedies.find((r) => r.act === 'move')?.to;
    const rename = remedies.find((r) => r.act === 'rename')?.to;
    if (move != null) to = move;
    if (rename != null) to = joined(folderOf(to), nameOf(rename));
    if (acts.has('rename')) to = mendedPath(to, target);
    put(entry, place(to, places), {
      wire: acts.has('wire'),
      ...(link === null ? {} : { same: link, bytes: 0 }),
    });
  }
  return {
    files,
    moves: inOrder(
      files.flatMap((f) => (f.to !== null && f.to !== f.from ? [{ from: f.from, to: f.to }] : [])),
    ),
    left: files.filter((f) => f.to === null).length,
    unpack: unpack.filter(isText),
    unnamed: entries.filter((e) => e.odd === null && !isText(e.path)).map((e) => e.path),
  };
}

/** Does a file stand where one of its folders would have to be? */
const blocked = (path: string, places: Places): boolean =>
  [...above(path)].some((folder) => places.isFile(folder));

/** A free place near the one that is wanted; where a file stands in the way of its folder, at the top. */
const place = (path: string, places: Places): string =>
  free(blocked(path, places) ? nameOf(path) : path, (p) => places.has(p));

/** A name beside a path that nothing has, for a file that has to step aside. */
const aside = (path: string, n: number): string => `${path}.zb-aside-${n}`;

/**
 * Renames in an order in which none runs over another: what stands where another one goes is moved first; of a circle one
 * steps aside for the others.
 */
export function inOrder(moves: readonly { from: string; to: string }[]): { from: string; to: string }[] {
  const waiting = new Map(moves.map((m) => [m.from, m.to]));
  const out: { from: string; to: string }[] = [];
  let n = 0;
  for (const first of moves) {
    const chain: string[] = [];
    let at: string | undefined = first.from;
    while (at !== undefined && waiting.has(at) && !chain.includes(at)) {
      chain.push(at);
      at = waiting.get(at);
    }
    // They end where nothing waits, or in a circle: then its first one steps aside and comes last.
    const circle = at !== undefined && chain.includes(at) ? at : undefined;
    if (circle !== undefined) {
      const beside = aside(circle, (n += 1));
      const to = waiting.get(circle) as string;
      out.push({ from: circle, to: beside });
      waiting.delete(circle);
      for (const from of [...chain].reverse().filter((c) => c !== circle)) {
        out.push({ from, to: waiting.get(from) as string });
        waiting.delete(from);
      }
      out.push({ from: beside, to });
    } else
      for (const from of chain.reverse()) {
        out.push({ from, to: waiting.get(from) as string });
        waiting.delete(from);
      }
  }
  return out;
}

/** The way back: every rename the other way round, the last one first. */
export const undone = (moves: readonly { from: string; to: string }[]): { from: string; to: string }[] =>
  [...moves].reverse().map((m) => ({ from: m.to, to: m.from }));
