import { randomFrom } from '../../units/random';

/** Numbers from a standard normal distribution that a seed draws again in the same order (Box and Muller, 1958). */
export function normalFrom(random: () => number): () => number {
  let kept: number | undefined;
  return () => {
    if (kept !== undefined) {
      const out = kept;
      kept = undefined;
      return out;
    }
    const r = Math.sqrt(-2 * Math.log(1 - random()));
    const angle = 2 * Math.PI * random();
    kept = r * Math.sin(angle);
    return r * Math.cos(angle);
  };
}

/** Seeds that have nothing to do with each other, made from one seed and a place. */
export const seedAt = (seed: number, place: number): number =>
  Math.floor(randomFrom((seed ^ Math.imul(place + 1, 0x9e3779b1)) >>> 0)() * 2 ** 31);

/** Brings a list into an order by chance, in its place (Fisher and Yates, 1938; Durstenfeld, 1964). */
export function shuffle(
  list: { readonly length: number; [at: number]: unknown },
  random: () => number,
): void {
  for (let i = list.length - 1; i > 0; i -= 1) {
    const j = Math.floor(random() * (i + 1));
    const kept = list[i];
    list[i] = list[j];
    list[j] = kept;
  }
}
