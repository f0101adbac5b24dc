import type { Channel, Purpose, Release } from '../../model/profile';
import { usualChannel } from '../../system/options';

const CASE: Record<Channel, string> = {
  'long support': 'fewest surprises, and updates for the longest time',
  newest: 'knows the newest hardware, and moves on often',
  development: 'only when nothing else starts: it may break at any update',
};

/** The case of one school of releases. */
export const channelCase = (channel: Channel): string => CASE[channel];

/** The channel the bench takes for a purpose where nobody decided, and why. */
export const usualWords = (purpose: Purpose): string =>
  usualChannel(purpose) === 'newest'
    ? `For ${purpose} the newest release counts: it knows the most graphics.`
    : `For ${purpose} long support counts: it runs for years without anyone looking.`;

/** Support in words: the date and the days left or gone; `days` as supportDays counts them. */
export function supportWords(release: Release, days: number | undefined): string {
  if (days === undefined) return 'end of support not noted';
  if (days < 0) return `support ended ${release.supportEnd}, ${-days} days ago`;
  return `supported until ${release.supportEnd}, ${days} days`;
}
