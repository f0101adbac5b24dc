import { shuffle } from '../tune/numbers/dice';

/** Numbers from 0 to below 1. */
export type Random = () => number;

/** One of some things, by chance. */
export function pick<T>(random: Random, of: readonly T[]): T {
  const one = of[Math.floor(random() * of.length)];
  if (one === undefined) throw new RangeError('nothing to draw from');
  return one;
}

/** The same things in an order by chance. */
export function shuffled<T>(random: Random, of: readonly T[]): T[] {
  const out = [...of];
  shuffle(out, random);
  return out;
}

/** A whole number from `from` to `to`, both among them. */
export const whole = (random: Random, from: number, to: number): number =>
  from + Math.floor(random() * (to - from + 1));

/** No 0, 1, I or O: what is drawn here is read off small labels. */
const LETTERS = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789';

/** A serial of eight characters that no other one of `taken` ends like. */
export function serial(random: Random, taken: readonly string[] = []): string {
  for (;;) {
    const made = Array.from({ length: 8 }, () => pick(random, [...LETTERS])).join('');
    if (!taken.some((t) => t.slice(-4) === made.slice(-4))) return made;
  }
}

/** So many serials, each with an ending of its own. */
export function serials(random: Random, count: number): string[] {
  const out: string[] = [];
  while (out.length < count) out.push(serial(random, out));
  return out;
}
