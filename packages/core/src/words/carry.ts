import type { ContentFault, RemedyAct } from '../model/contentRules';
import type { Trips } from '../content/trips';
import { targetRules } from '../content/target';
import { formatIec } from '../units/bytes';
import { counted, list } from './text';

const WHY = {
  letter: 'a letter it keeps for itself',
  'set aside': 'a word it keeps for itself',
  end: 'a dot or a blank at the end',
  'not text': 'no text in any alphabet',
};

/** The first of many, and how many more there are. */
const some = (names: readonly string[], most = 3): string =>
  `${list(names.slice(0, most))}${names.length > most ? ` and ${counted(names.length - most)} more` : ''}`;

/** What was found, short. */
export function contentTitle(f: ContentFault): string {
  switch (f.code) {
    case 'wrong folder':
      return `${f.kind} that belong in ${f.belongs}`;
    case 'same bytes':
      return 'the same bytes twice';
    case 'differ by case':
      return 'names that differ by case alone';
    case 'differ by form':
      return 'names that look the same, written in two ways';
    case 'name refused':
      return `names ${f.by} refuses, of files or of folders they lie in: ${WHY[f.why]}`;
    case 'name too long':
      return `names longer than ${f.by} takes`;
    case 'path too long':
      return `paths longer than ${f.by} takes`;
    case 'too large':
      return `larger than ${formatIec(f.most + 1)}`;
    case 'empty':
      return 'empty files';
    case 'not whole':
      return 'files that are not whole';
    case 'packed':
      return 'archives';
    case 'part missing':
      return `parts are missing: ${some(f.missing)}`;
    case 'newer and older':
      return 'several of one thing';
    case 'stops look-ups':
      return 'names that stop look-ups';
    case 'subtitle alone':
      return 'subtitles without their film';
    case 'track missing':
      return `tracks missing: ${some(f.missing)}`;
    case 'tags missing':
      return 'music that does not say its title, artist and album';
    case 'tags otherwise':
      return 'music that says another number than its name';
    case 'tags not read':
      return 'music that cannot be read';
    case 'left behind':
      return 'what other systems leave behind';
    case 'not wanted':
      return 'nothing of this purpose';
    case 'not read':
      return 'links, and what could not be read';
  }
}

/** What it would do if nothing is done about it. */
export function contentEffect(f: ContentFault, bytes: number): string {
  switch (f.code) {
    case 'wrong folder':
      return 'it is not found where it lies';
    case 'same bytes':
      return `${formatIec(bytes)} that need not be copied`;
    case 'differ by case':
      return 'on a target that does not tell them apart, one hides the other';
    case 'differ by form':
      return 'one hides the other, or is there twice to the eye';
    case 'name refused':
    case 'name too long':
    case 'path too long':
      return 'the copy stops there, or leaves it out';
    case 'too large':
      return `${f.by} has no files of that size: it goes over the wire, or not at all`;
    case 'empty':
      return 'nothing is in it: look where it came from';
    case 'not whole':
      return 'it begins like the thing and ends in the middle';
    case 'packed':
      return 'most programs do not look into it';
    case 'part missing':
      return 'the title stops where the part should be';
    case 'newer and older':
      return `both are listed; the others take ${formatIec(bytes)}`;
    case 'stops look-ups':
      return 'no title and no picture is found for it';
    case 'subtitle alone':
      return 'no film shows it';
    case 'track missing':
      return 'the album has a gap';
    case 'tags missing':
      return 'it stands under “unknown” in every list';
    case 'tags otherwise':
      return 'the album plays in another order';
    case 'tags not read':
      return 'it is cut short, or is no music';
    case 'left behind':
      return 'nobody misses it';
    case 'not wanted':
      return 'it is carried along and shown nowhere';
    case 'not read':
      return 'it is not carried';
  }
}

const ACTS: Record<RemedyAct, string> = {
  rename: 'rename',
  move: 'move',
  leave: 'leave behind',
  unpack: 'unpack first',
  link: 'link',
  wire: 'over the wire',
};
/** What is done with a file. */
export const remedyWords = (act: RemedyAct): string => ACTS[act];

/** What a target is called. */
export const targetWords = (target: keyof typeof targetRules): string => targetRules[target].title;

/** How many trips, and how sure that is. */
export function tripsWords({ trips, least, proven, tooLarge }: Trips): string {
  const count = trips.length === 1 ? 'one trip' : `${trips.length} trips`;
  const sure = trips.length === 0 ? '' : proven ? '' : `, ${least} at least`;
  return `${count}${sure}${tooLarge.length > 0 ? `; ${tooLarge.length} folders are larger than the stick and go over the wire` : ''}`;
}
