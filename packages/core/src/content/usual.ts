import type { ContentKind, ContentRules } from '../model/contentRules';
import type { Purpose } from '../model/profile';
import { FILMS, MUSIC, SUBTITLES } from './endings';

const kind = (
  id: string,
  title: string,
  endings: string | readonly string[],
  folder: string,
  together: ContentKind['together'] = 'none',
): ContentKind => ({
  id,
  title,
  endings: typeof endings === 'string' ? endings.split(' ') : [...endings],
  folder,
  together,
});

const pictures = kind('pictures', 'pictures', 'jpg jpeg png gif webp tif tiff bmp heic svg', '');
const writing = kind(
  'writing',
  'documents',
  'pdf txt md odt ods odp doc docx xls xlsx rtf csv epub html htm',
  '',
);
const films = kind('films', 'films', FILMS, 'Films', 'film');
const subtitles = kind('subtitles', 'subtitles', [...SUBTITLES, 'idx'], 'Films', 'film');
const music = kind('music', 'music', MUSIC, 'Music', 'album');
const lists = kind('lists', 'play lists', 'm3u m3u8 pls xspf', 'Music', 'album');
const covers = kind('covers', 'covers', 'jpg jpeg png webp nfo', '');

/** Where things of a purpose usually belong. Common practice, no source; a system says it better in its own rules. */
const USUAL: Partial<Record<Purpose, ContentRules>> = {
  film: { kinds: [films, subtitles, covers], brackets: true, apostrophes: true },
  music: { kinds: [music, lists, covers], brackets: true, apostrophes: true },
  games: {
    kinds: [
      kind('discs', 'discs', 'cue bin iso img ccd sub mdf mds', 'games/discs', 'disc'),
      kind('disc lists', 'lists of discs', 'm3u', 'games/discs', 'disc'),
      kind('pictures', 'pictures', 'jpg jpeg png webp', 'media'),
      kind('saves', 'saved games', 'sav srm state', 'saves'),
    ],
    brackets: true,
    apostrophes: true,
  },
};
const ANY: ContentRules = {
  kinds: [pictures, writing, films, subtitles, music, lists].map((k) => ({ ...k, folder: '' })),
  brackets: false,
  apostrophes: false,
};
/** Rules of a purpose: where things belong, and what look-ups stumble over. */
export const usualRules = (purpose: Purpose): ContentRules => USUAL[purpose] ?? ANY;
