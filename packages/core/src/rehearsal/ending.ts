/** How a world ends. */
export const endings = [
  'right system starts',
  'written',
  'installer starts again',
  'another system starts',
  'nothing starts',
  'nothing written',
  'half written, again',
  'other drive erased',
  'half written, for good',
  'kept start altered',
  'kept drive erased',
] as const;
/** How a world ends. */
export type Ending = (typeof endings)[number];

/** As meant; nothing that matters is lost but it has to be done again; something that matters is lost. */
export type EndingGrade = 'right' | 'again' | 'lost';

const LOST: readonly Ending[] = ['half written, for good', 'kept start altered', 'kept drive erased'];
const RIGHT: readonly Ending[] = ['right system starts', 'written'];

/** The grade of an ending. */
export const gradeOf = (ending: Ending): EndingGrade =>
  LOST.includes(ending) ? 'lost' : RIGHT.includes(ending) ? 'right' : 'again';

/** What precautions are to reach: that nothing that matters is lost, or that every world ends right as well. */
export const aims = ['nothing lost', 'right at once'] as const;
/** What precautions are to reach. */
export type Aim = (typeof aims)[number];

/** Does this ending miss the aim? */
export const missesAim = (ending: Ending, aim: Aim): boolean =>
  aim === 'nothing lost' ? gradeOf(ending) === 'lost' : gradeOf(ending) !== 'right';

/** How many worlds miss an aim. */
export const missing = (tally: { lost: number; again: number }, aim: Aim): number =>
  aim === 'nothing lost' ? tally.lost : tally.lost + tally.again;
