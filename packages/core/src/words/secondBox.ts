import type { AskedAgain, Carried, SecondTakes } from '../box/secondBox';
import { formatDuration, formatSpan } from '../units/duration';
import { plural } from './text';

/** What is taken over, as a line. */
export const carriedWords = (of: Carried): string =>
  ({
    system: 'System, release and variant',
    image: 'The image, with its sum',
    'school of writing': 'How it is written',
    'parts of the drive': 'Parts of the drive and their sizes',
    'way of starting': 'How the stick is started',
    'answers of the first start': 'Answers of the first start',
    'shares and users': 'Shares and who may use them',
    rules: 'Rules of the gate',
    'hours a day': 'Hours a day',
    'settings to look at': 'Settings, with what the first one is set to',
    'keys of firmware': 'Keys into firmware, as assumed',
  })[of];

/** What is asked again, as a line. */
export const askedWords = (of: AskedAgain): string =>
  ({
    'what the machine is': 'What this machine is: a report of its own',
    'which drive may be lost': 'Which of its drives may be lost',
    'stick to write': 'Which stick is written',
    precautions: 'Precautions: its drives answer in an order of their own',
    address: 'An address of its own',
    password: 'A password of its own',
    'drives of the pool': 'Drives of its pool',
    copies: 'What must not be lost, and where its copies are',
    'sides of the gate': 'Which port is which side',
    guests: 'Its guests',
  })[of];

/** What the first took, and what this one should take. */
export function takesWords(
  first: string,
  { first: took, hands, alone }: SecondTakes,
  known: boolean,
): string {
  const before =
    took === null
      ? `No clock ran on ${first}.`
      : `${first} took ${formatDuration(took.seconds)} over ${plural(took.steps, 'step')} with the clock on.`;
  return known
    ? `${before} This one should take ${formatSpan(hands)} of yours and ${formatSpan(alone)} alone.`
    : `${before} What this one takes is said once it has a machine.`;
}
