/** A file of the stand-in folder: its path and what is in it. */
export interface CarriedFile {
  path: string;
  text: string;
}

const file = (path: string, text = `made up: ${path}\n`): CarriedFile => ({ path, text });
const tracks = (album: string, titles: readonly string[], ending: string): CarriedFile[] =>
  titles.map((t, i) => file(`${album}/${String(i + 1).padStart(2, '0')} ${t}.${ending}`));

const SONGS = ['Landing', 'Low Water', 'The Causeway', 'Lamp', 'Herring', 'Slack', 'Turning', 'Home'];
const PLACES = ['Quay', 'Mill', 'Chapel', 'Green', 'Ferry', 'Lighthouse', 'School', 'Marsh'];

/** Pages of a parish book, as many as make the folder one of some hundreds. */
const scans = (): CarriedFile[] =>
  Array.from({ length: 330 }, (_, i) =>
    file(`Scans/${1890 + Math.floor(i / 30)}/page ${String((i % 30) + 1).padStart(3, '0')}.tif`),
  );

/**
 * A small folder that stands in for what people carry: about four hundred files, with everything in it that a look through
 * finds but files larger than 4 GiB and names longer than a disk takes. All of it is made up here.
 */
export const carryingFolder = (): CarriedFile[] => [
  ...scans(),
  ...tracks('Music/Tide Band/Tide Songs', SONGS, 'flac'),
  ...tracks('Music/Tide Band/Tide Songs', SONGS.slice(0, 3), 'mp3'),
  // A gap in an album, and music beside its folder.
  ...tracks('Music/Reed Choir/Winter', SONGS, 'ogg').filter((f) => !f.path.includes('04 ')),
  ...tracks('Reed Choir live', SONGS.slice(0, 4), 'mp3'),
  file(
    'Music/evening.m3u',
    '#EXTM3U\nTide Band/Tide Songs/01 Landing.flac\nTide Band/Tide Songs/09 Gone.flac\n',
  ),
  // Films: two sizes of one, brackets, a curly apostrophe, subtitles with and without their film.
  file('Films/The Ferry (1962) [1080p] [restored].mkv', 'x'.repeat(4000)),
  file('Films/The Ferry (1962) [720p].mkv', 'x'.repeat(2000)),
  file('Films/The Ferry (1962) [1080p] [restored].en.srt'),
  file('Films/Warden’s Boat (1971).mp4'),
  file('Films/Harbour/Harbour (1958).mkv'),
  file('Films/Harbour/harbour english.srt'),
  file('Films/Slides of 1984.mp4.part'),
  // Games on discs: a sheet whose track is not there, and a title without its second disc.
  file(
    'games/discs/Marsh Racer (disc 1).cue',
    'FILE "Marsh Racer (disc 1).bin" BINARY\n  TRACK 01 MODE1/2352\n',
  ),
  file('games/discs/Marsh Racer (disc 1).bin', 'd'.repeat(3000)),
  file(
    'games/discs/Marsh Racer (disc 3).cue',
    'FILE "Marsh Racer (disc 3).bin" BINARY\n  TRACK 01 MODE1/2352\n',
  ),
  file('games/discs/Marsh Racer (disc 3).bin', 'e'.repeat(3000)),
  file('games/discs/Tidal.cue', 'FILE "Tidal (track 1).bin" BINARY\nFILE "Tidal (track 2).bin" BINARY\n'),
  file('games/discs/Tidal (track 1).bin'),
  file('games/Old saves.zip', 'PK made up'),
  file('games/backup.part1.rar'),
  file('games/backup.part3.rar'),
  // The same bytes under several names.
  ...PLACES.map((p) => file(`Letters/${p}.txt`, 'The same letter went to every place.\n'.repeat(20))),
  ...PLACES.map((p) => file(`Letters/${p} answer.txt`, `From ${p}, dated.\n`)),
  // Names that hide each other, and names that are refused.
  file('Letters/Minutes.odt'),
  file('Letters/minutes.ODT', 'other minutes\n'),
  file('Letters/Caf\u00e9.txt'),
  file('Letters/Cafe\u0301.txt', 'written in two letters\n'),
  file('Letters/Hall: opening.txt'),
  file('Letters/Who pays?.txt'),
  file('Letters/ends with a dot.'),
  file('Letters/aux.txt'),
  file(
    `Letters/${Array.from({ length: 9 }, (_, i) => `what was said in the meeting ${i + 1}`).join('/')}/end.txt`,
  ),
  file('Letters/empty.odt', ''),
  file('Letters/Thumbs.db'),
  file('Letters/keys.xyz'),
];
