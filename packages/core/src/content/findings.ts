import type {
  ContentCode,
  ContentEntry,
  ContentFault,
  ContentFinding,
  ContentKind,
  ContentRules,
  ContentTarget,
  Remedy,
} from '../model/contentRules';
import { grouped } from '../units/group';
import { findDiscs, namedIn } from './discs';
import { findQuality, findTracks, subtitlesAlone } from './sets';
import { lookUpName } from './lookUp';
import { above, endingOf, folderOf, free, joined, nameOf } from '../units/paths';
import { findTags, type Tags } from './tags';
import { caseKey, formKey, keyFor, lengthIn, mendedPath, refusal, targetRules, type Refused } from './target';

/** What is asked of a folder. */
export interface ContentAsk {
  entries: readonly ContentEntry[];
  rules: ContentRules;
  target: ContentTarget;
  /** Files that end before their time, by path, where that was looked at. */
  cut?: ReadonlySet<string>;
  /** What music files say of themselves, by path; null of those that cannot be read. Without it nothing is said of tags. */
  tags?: ReadonlyMap<string, Tags | null>;
}

const leave = (path: string): Remedy => ({ act: 'leave', path, to: null });

const ARCHIVES = new Set('zip 7z rar tar gz tgz bz2 xz zst lz4 lzma cab'.split(' '));
const UNFINISHED = new Set('part crdownload download partial opdownload tmp aria2 filepart'.split(' '));
/** What other systems leave in folders for themselves. */
const LEFT = /^(thumbs\.db|ehthumbs\.db|desktop\.ini|\.directory|\.ds_store|\._.*|\.trash.*|~\$.*)$/i;

/** A lot of files with their remedies, put together as one finding; none where it is empty. */
class Lot {
  private readonly files: string[] = [];
  private readonly remedies: Remedy[] = [];
  private bytes = 0;
  add(entry: ContentEntry, remedy: Remedy | null): void {
    this.files.push(entry.path);
    this.bytes += entry.bytes;
    if (remedy) this.remedies.push(remedy);
  }
  end(grade: ContentFinding['grade'], fault: (files: string[]) => ContentFault, out: ContentFinding[]): void {
    if (this.files.length > 0)
      out.push({ fault: fault(this.files), grade, bytes: this.bytes, remedies: this.remedies });
  }
}

/** Lots by what they are about, in the order in which they were begun. */
class Lots<K> {
  private readonly by = new Map<K, Lot>();
  of(key: K): Lot {
    const there = this.by.get(key);
    if (there) return there;
    const made = new Lot();
    this.by.set(key, made);
    return made;
  }
  each(use: (lot: Lot, key: K) => void): void {
    for (const [key, lot] of this.by) use(lot, key);
  }
}

/** Names that are taken in the plan so far: a remedy never goes where something is. */
class Names {
  private readonly key: (path: string) => string;
  private readonly taken: Set<string>;
  constructor({ entries, target }: ContentAsk) {
    this.key = keyFor(target);
    this.taken = new Set(entries.map((e) => this.key(e.path)));
  }
  /** A path near the one that is wanted, which nothing has, kept for whoever asked. Its own place is free to it. */
  claim(path: string, own: string): string {
    const mine = this.key(own);
    const to = free(path, (p) => this.key(p) !== mine && this.taken.has(this.key(p)));
    this.taken.add(this.key(to));
    return to;
  }
}

/** The kinds of thing a file of an ending may be. */
const kindsByEnding = (rules: ContentRules): Map<string, ContentKind[]> =>
  new Map(
    [
      ...grouped(
        rules.kinds.flatMap((kind) => kind.endings.map((ending) => ({ kind, ending }))),
        (k) => k.ending,
      ),
    ].map(([ending, of]) => [ending, of.map((k) => k.kind)]),
  );

/** In a folder or below it, whatever its case. */
const within = (path: string, folder: string): boolean =>
  folder === '' || `${folderOf(path).toLowerCase()}/`.startsWith(`${folder.toLowerCase()}/`);

/** Why a target refuses a folder that a file lies in, the outermost first; undefined where it takes them all. */
function folderRefusal(path: string, target: ContentTarget): Refused | undefined {
  for (const folder of [...above(path)].reverse()) {
    const odd = refusal(nameOf(folder), target);
    if (odd !== undefined) return odd;
  }
  return undefined;
}

/** What is told of every file by itself. */
function oneByOne(
  ask: ContentAsk,
  names: Names,
  named: ReadonlySet<string>,
  out: ContentFinding[],
  tell: (share: number) => void,
): void {
  const { entries, rules, target } = ask;
  const limits = targetRules[target];
  const kinds = kindsByEnding(rules);
  const wrong = new Lots<ContentKind>();
  const refused = new Lots<Exclude<Refused, 'too long'>>();
  const lots = {
    empty: new Lot(),
    notWhole: new Lot(),
    packed: new Lot(),
    long: new Lot(),
    path: new Lot(),
    large: new Lot(),
    looks: new Lot(),
    left: new Lot(),
    unwanted: new Lot(),
    unread: new Lot(),
  };
  entries.forEach((e, i) => {
    if (i % 4096 === 0) tell(i / entries.length);
    const name = nameOf(e.path);
    const ending = endingOf(e.path);
    if (e.odd !== null) return lots.unread.add(e, leave(e.path));
    if (LEFT.test(name)) return lots.left.add(e, leave(e.path));
    if (e.bytes === 0) lots.empty.add(e, leave(e.path));
    else if (UNFINISHED.has(ending) || ask.cut?.has(e.path)) lots.notWhole.add(e, leave(e.path));
    const mine = kinds.get(ending);
    if (ARCHIVES.has(ending) && !mine) lots.packed.add(e, { act: 'unpack', path: e.path, to: null });
    else if (!mine && ending !== '' && rules.kinds.length > 0) lots.unwanted.add(e, null);
    if (e.bytes > limits.most) lots.large.add(e, { act: 'wire', path: e.path, to: null });
    const home = mine?.[0];
    if (mine && home && !mine.some((k) => within(e.path, k.folder))) {
      // What lies in a folder of its own takes that folder along.
      const parent = nameOf(folderOf(e.path));
      const keeps = home.together === 'none' || parent === '' || within(`${folderOf(e.path)}x/`, home.folder);
      const to = names.claim(joined(keeps ? home.folder : joined(home.folder, parent), name), e.path);
      wrong.of(home).add(e, { act: 'move', path: e.path, to });
    }
    const odd = refusal(name, target) ?? folderRefusal(e.path, target);
    if (odd !== undefined) {
      // What is no text cannot be named by anything that renames it.
      const remedy: Remedy | null =
        odd === 'not text'
          ? null
          : { act: 'rename', path: e.path, to: names.claim(mendedPath(e.path, target), e.path) };
      if (odd === 'too long') lots.long.add(e, remedy);
      else refused.of(odd).add(e, remedy);
    } else if (mine && (rules.brackets || rules.apostrophes) && !named.has(e.path.toLowerCase())) {
      const plain = lookUpName(name, rules);
      if (plain !== name)
        lots.looks.add(e, {
          act: 'rename',
          path: e.path,
          to: names.claim(joined(folderOf(e.path), plain), e.path),
        });
    }
    if (lengthIn(e.path, limits.name.in) > limits.path) lots.path.add(e, null);
  });
  const by = limits.title;
  wrong.each((lot, { title, folder }) =>
    lot.end('check', (files) => ({ code: 'wrong folder', files, kind: title, belongs: folder }), out),
  );
  refused.each((lot, why) => lot.end('stop', (files) => ({ code: 'name refused', files, by, why }), out));
  lots.long.end('stop', (files) => ({ code: 'name too long', files, by, most: limits.name.most }), out);
  lots.path.end('stop', (files) => ({ code: 'path too long', files, by, most: limits.path }), out);
  lots.large.end('stop', (files) => ({ code: 'too large', files, by, most: limits.most }), out);
  lots.notWhole.end('check', (files) => ({ code: 'not whole', files }), out);
  lots.empty.end('check', (files) => ({ code: 'empty', files }), out);
  lots.packed.end('check', (files) => ({ code: 'packed', files }), out);
  lots.looks.end('note', (files) => ({ code: 'stops look-ups', files }), out);
  lots.unread.end('check', (files) => ({ code: 'not read', files }), out);
  lots.left.end('note', (files) => ({ code: 'left behind', files }), out);
  lots.unwanted.end('note', (files) => ({ code: 'not wanted', files }), out);
}

/** Every path once, folders as well: two folders that differ by case hide each other like files. */
function clashes(ask: ContentAsk, names: Names, out: ContentFinding[]): void {
  if (!targetRules[ask.target].oneCase) return;
  const byKey = grouped(ask.entries, (e) => caseKey(formKey(e.path)));
  const [byCase, byForm] = [new Lot(), new Lot()];
  for (const same of byKey.values()) {
    if (same.length < 2) continue;
    const first = same[0];
    if (!first) continue;
    const form = same.every((e) => formKey(e.path) === formKey(first.path));
    same.forEach((e, i) =>
      (form ? byForm : byCase).add(
        e,
        i === 0 ? null : { act: 'rename', path: e.path, to: names.claim(e.path, '') },
      ),
    );
  }
  byCase.end('stop', (files) => ({ code: 'differ by case', files }), out);
  byForm.end('stop', (files) => ({ code: 'differ by form', files }), out);
}

/** Files of one sum. By size alone nothing is said: those are the ones to digest. */
function twice(ask: ContentAsk, out: ContentFinding[]): void {
  const lots = grouped(ask.entries, (e) =>
    e.odd !== null || e.bytes === 0 ? undefined : (e.sha256 ?? undefined),
  );
  const files: string[] = [];
  const remedies: Remedy[] = [];
  let bytes = 0;
  for (const same of lots.values()) {
    if (same.length < 2) continue;
    // The one whose path is the shortest stays; the others are the same as it.
    const sorted = [...same].sort((a, b) => a.path.length - b.path.length || (a.path < b.path ? -1 : 1));
    const kept = sorted[0];
    if (!kept) continue;
    for (const e of sorted) files.push(e.path);
    for (const e of sorted.slice(1)) {
      bytes += e.bytes;
      // Where one copy can stand in two places, a link does; elsewhere the others stay behind.
      remedies.push({ act: ask.target === 'ext4' ? 'link' : 'leave', path: e.path, to: kept.path });
    }
  }
  if (files.length > 0) out.push({ fault: { code: 'same bytes', files }, grade: 'note', bytes, remedies });
}

/** Files whose sum tells whether they are there twice: those that another one has the size of. */
export function toDigest(entries: readonly ContentEntry[]): ContentEntry[] {
  const count = new Map<number, number>();
  for (const e of entries) if (e.odd === null) count.set(e.bytes, (count.get(e.bytes) ?? 0) + 1);
  return entries.filter((e) => e.odd === null && e.bytes > 0 && (count.get(e.bytes) ?? 0) > 1);
}

/** Findings whose remedies nobody would miss not taking; the others are for a person to decide. */
export const usuallyTaken: readonly ContentCode[] = [
  'wrong folder',
  'differ by case',
  'differ by form',
  'name refused',
  'name too long',
  'too large',
  'empty',
  'not whole',
  'stops look-ups',
  'subtitle alone',
  'left behind',
  'not read',
];

const ORDER = { stop: 0, check: 1, note: 2 } as const;

/** Everything that is found in a folder by its names, sizes and sums; what stops comes first. `texts`: sheets and lists that were read, by path. */
export function lookThrough(
  ask: ContentAsk,
  texts: ReadonlyMap<string, string> = new Map(),
  tell: (share: number) => void = () => undefined,
): ContentFinding[] {
  const out: ContentFinding[] = [];
  const names = new Names(ask);
  clashes(ask, names, out);
  // What a sheet or a list calls by its name keeps it: the sheet would no longer find it.
  oneByOne(ask, names, namedIn(texts), out, (share) => tell(share * 0.7));
  twice(ask, out);
  tell(0.8);
  findDiscs(ask.entries, texts, out);
  findTracks(ask.entries, ask.rules, out);
  subtitlesAlone(ask.entries, ask.rules, out);
  if (ask.tags) findTags(ask.entries, ask.tags, out);
  tell(0.9);
  findQuality(ask.entries, ask.rules, out);
  tell(1);
  return out.sort((a, b) => ORDER[a.grade] - ORDER[b.grade] || b.fault.files.length - a.fault.files.length);
}
