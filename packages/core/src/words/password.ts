import type { Strength } from '../firststart/strength';

/** Guesses that somebody who has the stored form can make in a second, on one machine, where it is stored well. Common practice, no source. */
const GUESSES_PER_SECOND = 1e4;

/** How long guessing takes, in the unit that says it. */
function howLong(log10: number): string {
  const seconds = 10 ** log10 / 2 / GUESSES_PER_SECOND;
  for (const [unit, size] of [
    ['years', 31_557_600],
    ['days', 86_400],
    ['hours', 3600],
    ['minutes', 60],
  ] as const)
    if (seconds >= 2 * size) {
      const n = seconds / size;
      return n > 1e6 ? `more than a million ${unit}` : `${Math.round(n).toLocaleString('en')} ${unit}`;
    }
  return 'no time';
}

const WORD = ['useless', 'weak', 'fair', 'good', 'strong'] as const;

/** How strong a password is, on the spot. */
export function strengthWords({ score, log10Guesses }: Strength): string {
  const word = WORD[score];
  return `${word}: guessed in ${howLong(log10Guesses)} by one machine that has its stored form`;
}

/** Whether it will do for a box that others reach. */
export const willDo = ({ score }: Strength): boolean => score >= 3;
