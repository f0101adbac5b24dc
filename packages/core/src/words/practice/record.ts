import type { Attempt } from '../../model/practice';
import type { Progress } from '../../practice/record';
import { plural } from '../text';

/** How an attempt ended, in a word or two. */
export const attemptWords = ({ end, score }: Pick<Attempt, 'end' | 'score'>): string =>
  end === 'left' ? 'left' : end === 'lost' ? `lost, ${score}` : `done, ${score}`;

/** How far somebody is, as a headline. */
export function practiceHeadline({ clean, tried, all, lately, before }: Progress): string {
  if (tried === 0) return 'What would you like to see go wrong, before it does?';
  if (clean === all) return `All ${all} without a fault`;
  const trend =
    lately === null ? '' : before === null ? `, ${lately} lately` : `, ${lately} lately and ${before} before`;
  return `${clean} of ${plural(all, 'exercise')} without a fault${trend}`;
}
