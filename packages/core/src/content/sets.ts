import type { ContentEntry, ContentFinding, ContentKind, ContentRules } from '../model/contentRules';
import { series } from './discs';
import { lookUpName } from './lookUp';
import { endingOf, folderOf, nameOf, stemOf } from './paths';

const endingsOf = (rules: ContentRules, together: ContentKind['together']): Set<string> =>
  new Set(rules.kinds.filter((k) => k.together === together).flatMap((k) => k.endings));

/** Endings of music: what ranks higher is nearer to what was recorded. Common practice, no source. */
const RANK = 'wav aiff flac ape m4a opus ogg aac mp3 wma'.split(' ');
const MUSIC = new Set(RANK);
const FILMS = new Set('mkv mp4 m4v avi mov webm mpg mpeg ts m2ts wmv ogv'.split(' '));
const SUBTITLES = new Set('srt ass ssa sub vtt sup'.split(' '));

/** Albums with a gap in their tracks: names that begin with a number, in one folder. */
export function findTracks(
  entries: readonly ContentEntry[],
  rules: ContentRules,
  out: ContentFinding[],
): void {
  const endings = endingsOf(rules, 'album');
  const found = series(
    entries.filter((e) => e.odd === null && endings.has(endingOf(e.path)) && MUSIC.has(endingOf(e.path))),
    (e) => {
      const n = /^(?:(\d)[-.])?0*(\d{1,2})[\s._-]/.exec(stemOf(e.path));
      // A disc of several has its own count.
      return n
        ? { key: `${folderOf(e.path)}${n[1] === undefined ? '' : `, disc ${n[1]}`}`, n: Number(n[2]) }
        : undefined;
    },
  );
  if (found.length === 0) return;
  out.push({
    fault: {
      code: 'track missing',
      files: found.flatMap((f) => f.files),
      missing: found.map((f) => `${nameOf(f.key)}: ${f.gone.join(', ')}`),
    },
    grade: 'note',
    bytes: 0,
    remedies: [],
  });
}

/** Subtitles without their film: in a folder with films, none of which begins as they do. */
export function subtitlesAlone(
  entries: readonly ContentEntry[],
  rules: ContentRules,
  out: ContentFinding[],
): void {
  const endings = endingsOf(rules, 'film');
  if (endings.size === 0) return;
  const films = new Map<string, ContentEntry[]>();
  for (const e of entries)
    if (FILMS.has(endingOf(e.path))) {
      const beside = films.get(folderOf(e.path));
      if (beside) beside.push(e);
      else films.set(folderOf(e.path), [e]);
    }
  const paths = new Set(entries.map((e) => e.path));
  const alone = entries.filter((e) => {
    if (e.odd !== null || !SUBTITLES.has(endingOf(e.path)) || !endings.has(endingOf(e.path))) return false;
    const stem = stemOf(e.path).toLowerCase();
    const beside = films.get(folderOf(e.path)) ?? [];
    return !beside.some((f) => {
      const film = stemOf(f.path).toLowerCase();
      return stem === film || stem.startsWith(`${film}.`);
    });
  });
  if (alone.length === 0) return;
  out.push({
    fault: { code: 'subtitle alone', files: alone.map((e) => e.path) },
    grade: 'note',
    bytes: alone.reduce((n, e) => n + e.bytes, 0),
    // One film in its folder is its film.
    remedies: alone.flatMap((e) => {
      const beside = films.get(folderOf(e.path)) ?? [];
      const film = beside.length === 1 ? beside[0] : undefined;
      if (!film) return [];
      const language = /\.([a-z]{2,3})$/i.exec(stemOf(e.path))?.[0] ?? '';
      const to = `${film.path.slice(0, -endingOf(film.path).length - 1)}${language}.${endingOf(e.path)}`;
      return paths.has(to) ? [] : [{ act: 'rename' as const, path: e.path, to }];
    }),
  });
}

/** What a name is without its quality and version: what two of one thing have in common. */
const VERSION =
  /[\s._-]*(?:\bv?\d+\.\d+(?:\.\d+)?\b|\b(?:2160|1440|1080|720|576|480)[pi]\b|\b(?:remaster(?:ed)?|final|new|copy|kopie)\b)/gi;
const titleOf = (path: string): string =>
  lookUpName(stemOf(path), { brackets: true, apostrophes: true })
    .replace(VERSION, '')
    .replace(/\s+/g, ' ')
    .trim()
    .toLowerCase();

/** The lines of a picture that a name tells; 0 where none. */
const linesOf = (path: string): number =>
  Number(/\b(2160|1440|1080|720|576|480)[pi]\b/i.exec(path)?.[1] ?? 0);
const versionOf = (path: string): number[] =>
  (/\bv?(\d+)\.(\d+)(?:\.(\d+))?\b/.exec(stemOf(path)) ?? []).slice(1).map((n) => Number(n ?? 0));

/** The better of two of one thing: more lines, the higher version, the ending nearer to what was recorded, the later day. */
function better(a: ContentEntry, b: ContentEntry): number {
  const lines = linesOf(b.path) - linesOf(a.path);
  if (lines !== 0) return lines;
  const [x, y] = [versionOf(a.path), versionOf(b.path)];
  for (let i = 0; i < Math.max(x.length, y.length); i += 1) {
    const by = (y[i] ?? 0) - (x[i] ?? 0);
    if (by !== 0) return by;
  }
  const rank = RANK.indexOf(endingOf(a.path)) - RANK.indexOf(endingOf(b.path));
  if (rank !== 0) return rank;
  return (b.modified ?? 0) - (a.modified ?? 0);
}

/** Several of one thing in one folder: a track in two qualities, a film in two sizes, an older and a newer version. */
export function findQuality(
  entries: readonly ContentEntry[],
  rules: ContentRules,
  out: ContentFinding[],
): void {
  const of = (e: ContentEntry): string | undefined => {
    const ending = endingOf(e.path);
    if (e.odd !== null || !rules.kinds.some((k) => k.endings.includes(ending))) return undefined;
    const group = MUSIC.has(ending) ? 'music' : FILMS.has(ending) ? 'film' : ending;
    const title = titleOf(e.path);
    return title === '' ? undefined : `${folderOf(e.path)}\n${group}\n${title}`;
  };
  const by = new Map<string, ContentEntry[]>();
  for (const e of entries) {
    const key = of(e);
    if (key === undefined) continue;
    const there = by.get(key);
    if (there) there.push(e);
    else by.set(key, [e]);
  }
  const lots = [...by.values()].filter(
    (same) => same.length > 1 && new Set(same.map((e) => e.path.toLowerCase())).size > 1,
  );
  if (lots.length === 0) return;
  const sorted = lots.map((same) => [...same].sort(better));
  out.push({
    fault: { code: 'newer and older', files: sorted.flat().map((e) => e.path) },
    grade: 'note',
    bytes: sorted.flatMap((s) => s.slice(1)).reduce((n, e) => n + e.bytes, 0),
    remedies: sorted.flatMap((s) =>
      s.slice(1).map((e) => ({ act: 'leave' as const, path: e.path, to: s[0]?.path ?? null })),
    ),
  });
}
