import type { ContentEntry, ContentFinding } from '../model/contentRules';
import { grouped } from '../units/group';
import { endingOf, folderOf, joined, nameOf, stemOf } from '../units/paths';

/** Files a sheet names (FILE lines of a cue sheet; CDRWIN’s description, from memory). */
export const tracksOfSheet = (text: string): string[] =>
  [...text.matchAll(/^[ \t]*FILE[ \t]+(?:"([^"\n]+)"|(\S+))/gim)].map((m) => m[1] ?? m[2] ?? '');
/** Files a play list names: every line that is neither empty nor a comment (M3U, common practice). */
export const filesOfList = (text: string): string[] =>
  text
    .replace(/^\ufeff/, '')
    .split(/\r?\n/)
    .map((l) => l.trim())
    .filter((l) => l !== '' && !l.startsWith('#') && !/^[a-z]+:\/\//i.test(l));

const DISC = /\s*[([]?(?:disc|disk|cd)\s*(\d{1,2})(?:\s*of\s*\d{1,2})?[)\]]?/i;

/** A path that stands in a text, from the folder of that text; undefined where it leads out of the folder that was chosen. */
function from(folder: string, named: string): string | undefined {
  const parts = joined(folder, named.replaceAll('\\', '/')).split('/');
  const out: string[] = [];
  for (const p of parts) {
    if (p === '' || p === '.') continue;
    if (p === '..') {
      if (out.length === 0) return undefined;
      out.pop();
    } else out.push(p);
  }
  return out.join('/');
}

/** A sheet or a list larger than this is none. Bytes. */
const MOST_TEXT = 1 << 20;
/** Sheets and play lists of a folder: their texts tell what belongs together. */
export const toRead = (entries: readonly ContentEntry[]): ContentEntry[] =>
  entries.filter(
    (e) => /^(cue|m3u|m3u8)$/.test(endingOf(e.path)) && e.odd === null && e.bytes > 0 && e.bytes <= MOST_TEXT,
  );

/** What a text names. */
const namesIn = (path: string, text: string): string[] =>
  endingOf(path) === 'cue' ? tracksOfSheet(text) : filesOfList(text);

/** Every path that a sheet or a list names, in small letters, and the sheets themselves. */
export const namedIn = (texts: ReadonlyMap<string, string>): Set<string> =>
  new Set(
    [...texts].flatMap(([path, text]) => [
      path.toLowerCase(),
      ...namesIn(path, text).flatMap((n) => from(folderOf(path), n)?.toLowerCase() ?? []),
    ]),
  );

/** Is what a text names there? Case does not count: the systems that read such texts do not mind. */
const there = (paths: ReadonlySet<string>, path: string | undefined): boolean =>
  path !== undefined && paths.has(path.toLowerCase());

/**
 * Sheets and lists whose files are not there, archives in volumes with gaps, and titles of several discs of which one is
 * missing. `texts`: the texts of sheets and lists by their paths.
 */
export function findDiscs(
  entries: readonly ContentEntry[],
  texts: ReadonlyMap<string, string>,
  out: ContentFinding[],
): void {
  const paths = new Set(entries.map((e) => e.path.toLowerCase()));
  const bytes = new Map(entries.map((e) => [e.path, e.bytes]));
  const lot = { files: [] as string[], gone: [] as string[] };
  const missing = (files: readonly string[], gone: readonly string[]): void => {
    for (const f of files) lot.files.push(f);
    for (const g of gone) lot.gone.push(g);
  };
  for (const [path, text] of texts) {
    const gone = namesIn(path, text).filter((n) => !there(paths, from(folderOf(path), n)));
    if (gone.length > 0) missing([path], gone);
  }
  series(entries, (e) => {
    const found = DISC.exec(stemOf(e.path));
    // The files of one disc count once: what names it is its sheet or its image.
    if (!found || !/^(cue|iso|chd|img|mdf|ccd)$/.test(endingOf(e.path))) return undefined;
    return { key: `${folderOf(e.path)}/${stemOf(e.path).replace(DISC, '').trim()}`, n: Number(found[1]) };
  }).forEach(({ files, gone, key }) =>
    missing(
      files,
      gone.map((n) => `${nameOf(key)}, disc ${n}`),
    ),
  );
  series(entries, (e) => {
    const volume = /^(.*)\.part0*(\d+)\.rar$/i.exec(nameOf(e.path)) ?? /^(.*)\.(\d{3})$/.exec(nameOf(e.path));
    return volume ? { key: `${folderOf(e.path)}/${volume[1] ?? ''}`, n: Number(volume[2]) } : undefined;
  }).forEach(({ files, gone, key }) =>
    missing(
      files,
      gone.map((n) => `${nameOf(key)}, volume ${n}`),
    ),
  );
  if (lot.files.length === 0) return;
  out.push({
    fault: { code: 'part missing', files: lot.files, missing: lot.gone },
    grade: 'check',
    bytes: lot.files.reduce((n, f) => n + (bytes.get(f) ?? 0), 0),
    remedies: lot.files.map((path) => ({ act: 'leave', path, to: null })),
  });
}

/** Things that are counted from one: the ones that have a gap. */
export function series(
  entries: readonly ContentEntry[],
  of: (entry: ContentEntry) => { key: string; n: number } | undefined,
): { key: string; files: string[]; gone: number[] }[] {
  const counted = entries.flatMap((e) => {
    const found = of(e);
    return found ? [{ ...found, path: e.path }] : [];
  });
  return [...grouped(counted, (c) => c.key)].flatMap(([key, lot]) => {
    const numbers = new Set(lot.map((c) => c.n));
    const files = lot.map((c) => c.path);
    const last = Math.max(...numbers);
    const gone = Array.from({ length: Math.min(last, 200) }, (_, i) => i + 1).filter((n) => !numbers.has(n));
    return last > 1 && last <= 200 && gone.length > 0 && gone.length < last ? [{ key, files, gone }] : [];
  });
}
