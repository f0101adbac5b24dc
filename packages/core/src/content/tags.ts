import type { ContentEntry, ContentFinding } from '../model/contentRules';
import { endingOf, stemOf } from './paths';

/** What a music file says of itself; null where it does not. */
export interface Tags {
  title: string | null;
  artist: string | null;
  album: string | null;
  track: number | null;
}

/** Endings of files whose tags are read. */
const TAGGED = new Set('flac mp3 ogg opus m4a aac wav aiff wma ape'.split(' '));
/** Files of music whose tags can be read. */
export const toTag = (entries: readonly ContentEntry[]): ContentEntry[] =>
  entries.filter((e) => e.odd === null && e.bytes > 0 && TAGGED.has(endingOf(e.path)));

/** The number at the beginning of a name, as albums have it. */
const numberIn = (path: string): number | null => {
  const found = /^(?:\d[-.])?0*(\d{1,2})[\s._-]/.exec(stemOf(path));
  return found ? Number(found[1]) : null;
};

/** Music that does not say what it is, that says another number than its name, or whose tags are not to be read. */
export function findTags(
  entries: readonly ContentEntry[],
  tags: ReadonlyMap<string, Tags | null>,
  out: ContentFinding[],
): void {
  const [bare, other, broken] = [[], [], []] as [ContentEntry[], ContentEntry[], ContentEntry[]];
  for (const e of entries) {
    const found = tags.get(e.path);
    if (found === undefined) continue;
    if (found === null) {
      broken.push(e);
      continue;
    }
    if (!found.title || !found.artist || !found.album) bare.push(e);
    const number = numberIn(e.path);
    if (number !== null && found.track !== null && found.track !== number) other.push(e);
  }
  const add = (
    code: 'tags missing' | 'tags otherwise' | 'tags not read',
    files: ContentEntry[],
    grade: 'check' | 'note',
  ): void => {
    if (files.length > 0)
      out.push({
        fault: { code, files: files.map((e) => e.path) },
        grade,
        bytes: files.reduce((n, e) => n + e.bytes, 0),
        remedies: [],
      });
  };
  add('tags missing', bare, 'note');
  add('tags otherwise', other, 'note');
  add('tags not read', broken, 'check');
}
