/** Draws a whole number from 0 to below `n`, all equally likely. */
export type Draw = (n: number) => number;

/**
 * A draw out of bytes of chance without a lean: numbers beyond the last whole run of `n` are thrown away. `bytes` gives fresh
 * random bytes, at least of the quality passwords want.
 */
export function evenDraw(bytes: (count: number) => Uint8Array): Draw {
  return (n) => {
    if (!Number.isInteger(n) || n < 1 || n > 2 ** 32) throw new RangeError('a draw is among 1 to 2^32');
    const whole = Math.floor(2 ** 32 / n) * n;
    for (;;) {
      const [a = 0, b = 0, c = 0, d = 0] = bytes(4);
      const value = ((a << 24) | (b << 16) | (c << 8) | d) >>> 0;
      if (value < whole) return value % n;
    }
  };
}

/** Words drawn from a list, with hyphens between them; words may come twice, or it would be easier to guess. */
export const passphrase = (list: readonly string[], words: number, draw: Draw): string =>
  Array.from({ length: words }, () => list[draw(list.length)] ?? '').join('-');

/** How many bits of chance so many words of a list of that length have: each is one of `length`. */
export const passphraseBits = (length: number, words: number): number => words * Math.log2(length);
