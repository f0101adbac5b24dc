import type { ContentEntry, ContentFinding } from '../model/contentRules';
import { endingOf } from '../units/paths';
import { MUSIC } from './endings';
import { trackIn } from './sets';

/** What a music file says of itself; null where it does not. */
export interface Tags {
  title: string | null;
  artist: string | null;
  album: string | null;
  track: number | null;
}

/** Files of music whose tags can be read. */
export const toTag = (entries: readonly ContentEntry[]): ContentEntry[] =>
  entries.filter((e) => e.odd === null && e.bytes > 0 && MUSIC.includes(endingOf(e.path)));

/** What the library that reads tags tells of them, of which this much is asked. */
interface Told {
  title?: string | undefined;
  artist?: string | undefined;
  album?: string | undefined;
  track: { no: number | null };
}

/** Tags as they are held against names. */
export const tagsFrom = ({ title, artist, album, track }: Told): Tags => ({
  title: title ?? null,
  artist: artist ?? null,
  album: album ?? null,
  track: track.no,
});

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
    const number = trackIn(e.path)?.track;
    if (number !== undefined && found.track !== null && found.track !== number) other.push(e);
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
