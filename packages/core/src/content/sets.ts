import type { ContentEntry, ContentFinding, ContentKind, ContentRules } from '../model/contentRules';
import { FILMS, MUSIC, SUBTITLES } from './endings';
import { series } from './discs';
import { grouped } from '../units/group';
import { lookUpName } from './lookUp';
import { endingOf, folderOf, nameOf, stemOf } from '../units/paths';

const endingsOf = (rules: ContentRules, together: ContentKind['together']): Set<string> =>
  new Set(rules.kinds.filter((k) => k.together === together).flatMap((k) => k.endings));

const isMusic = new Set(MUSIC);
const isFilm = new Set(FILMS);
const isSubtitle = new Set(SUBTITLES);

/** The number a track has by the beginning of its name, and the disc before it where there are several. */
export function trackIn(path: string): { disc: number | null; track: number } | undefined {
  const found = /^(?:(\d)[-.])?0*(\d{1,2})[\s._-]/.exec(stemOf(path));
  return found
    ? { disc: found[1] === undefined ? null : Number(found[1]), track: Number(found[2]) }
    : undefined;
}

/** Albums with a gap in their tracks: names that begin with a number, in one folder. */
export function findTracks(
  entries: readonly ContentEntry[],
  rules: ContentRules,
  out: ContentFinding[],
): void {
  const endings = endingsOf(rules, 'album');
  const found = series(
    entries.filter((e) => e.odd === null && endings.has(endingOf(e.path)) && isMusic.has(endingOf(e.path))),
    (e) => {
      const n = trackIn(e.path);
      // A disc of several has its own count.
      return n && { key: `${folderOf(e.path)}${n.disc === null ? '' : `, disc ${n.disc}`}`, n: n.track };
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
  const films = grouped(
    entries.filter((e) => isFilm.has(endingOf(e.path))),
    (e) => folderOf(e.path),
  );
  const paths = new Set(entries.map((e) => e.path));
  const alone = entries.filter((e) => {
    if (e.odd !== null || !isSubtitle.has(endingOf(e.path)) || !endings.has(endingOf(e.path))) return false;
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
  const rank = MUSIC.indexOf(endingOf(a.path)) - MUSIC.indexOf(endingOf(b.path));
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
    const group = isMusic.has(ending) ? 'music' : isFilm.has(ending) ? 'film' : ending;
    const title = titleOf(e.path);
    return title === '' ? undefined : `${folderOf(e.path)}\n${group}\n${title}`;
  };
  const lots = [...grouped(entries, of).values()].filter(
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
