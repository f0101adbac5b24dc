import type { EraseCaveat, EraseLevel, ErasePlan, EraseWay } from '../write/erase';

const LEVEL: Record<EraseLevel, string> = {
  clear: 'Enough where it stays in the house; nobody reads it again with ordinary means.',
  purge: 'Enough before it is given away; nobody reads it again in a laboratory either.',
  destroy: 'Where neither can be done, or the drive answers no more.',
};
const CAVEAT: Record<EraseCaveat, string> = {
  'spare sectors stay': 'sectors it took out of use keep what was on them',
  'copies stay': 'flash keeps copies that no address leads to any more',
  'may be frozen': 'a drive that answers “frozen” wants its power plug pulled and put back once',
  'not over USB': 'most adapters do not pass it on: connect the drive inside',
  'drive must have it': 'not every drive has it; it says so before anything is lost',
};

/** How sure a way is. */
export const eraseLevelWords = (level: EraseLevel): string => LEVEL[level];
/** What has to be known of a way, in a sentence; empty where nothing has. */
export const caveatWords = ({ caveats }: EraseWay): string => caveats.map((c) => CAVEAT[c]).join('; ');

/** Why no command is given. */
export const noCommandWords = (why: NonNullable<ErasePlan['not']>): string =>
  why === 'not to be lost'
    ? 'What is on it is to be kept, or is not decided: no command is given until it may be lost.'
    : 'It has no serial that names it for certain: no command is given that could hit another drive.';
