import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common';

/** How hard a password is to guess. */
export interface Strength {
  /** 0 a few thousand guesses, 1 a million, 2 a hundred million, 3 ten thousand million, 4 more. */
  score: 0 | 1 | 2 | 3 | 4;
  /** Guesses, as a power of ten. */
  log10Guesses: number;
  /** What makes it easy, by the estimator’s own codes. */
  warning: string | null;
}

/** 7,776 words, as many as five dice can throw, from which passphrases are drawn (a published word list, kept with the estimator). */
export const wordList: readonly string[] = dictionary['diceware-common'];

/** More characters are not looked at: the estimate takes long, and a password of that length is no longer guessed. */
const MOST = 256;

const estimator = new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });

/** How hard a password is to guess by somebody who knows how people choose them. It is kept nowhere. */
export function strengthOf(password: string): Strength {
  const { score, guessesLog10, feedback } = estimator.check(password.slice(0, MOST));
  return { score, log10Guesses: guessesLog10, warning: feedback.warning ?? null };
}
