import type { Profile } from '../model/profile';
import { finding, idle, type Rule } from './finding';

/** Paths of values that nobody has said yet. */
export const notSaid = (profile: Pick<Profile, 'origins'>): string[] =>
  Object.entries(profile.origins).flatMap(([path, o]) => (o.code === 'not said' ? [path] : []));

/** Needs that are guesses decide nothing: before they are said nobody can say that the system fits. */
export const said: Rule = (_machine, { profile }) => {
  const rule = 'system said';
  const count = notSaid(profile).filter((path) => path.startsWith('needs.')).length;
  return count === 0
    ? idle(rule, { code: 'needs said' })
    : finding(rule, 'ask', { code: 'needs not said', count });
};
