/**
 * A text of somebody else may hold one token of its format very often, alone or between sound lines: every reader takes time
 * that grows with the length of the text, and no faster.
 */
import { READERS, tokensIn } from './textReaders';

const TIMES = 60_000;
const ALL = process.env.ZB_HOSTILE === 'all';
function seconds(read: (text: string) => unknown, text: string): number {
  const since = performance.now();
  try {
    read(text);
  } catch (error) {
    // Refused in words, whatever they are; a stack that is full is none.
    if (error instanceof RangeError) throw error;
  }
  return (performance.now() - since) / 1000;
}

it.each(Object.entries(READERS))(
  '%s: no token makes it slower than its length does',
  (name, { read, of }) => {
    for (const sound of of)
      // Marks and blanks always, as they are what readers look for; of words and lines each fourth, all in `npm run proof hostile`.
      for (const token of tokensIn(sound).filter((t, i) => ALL || i % 4 === 0 || /^\W$/.test(t))) {
        const times = Math.ceil(TIMES / Math.max(1, token.length / 3));
        for (const [where, made] of [
          ['alone', (n: number) => token.repeat(n)],
          ['between', (n: number) => `${sound}${token.repeat(n)}\n${sound}`],
        ] as const) {
          let whole = seconds(read, made(times));
          if (whole < 0.3) continue;
          // Four times the text may take four times as long; what grows with its square takes sixteen times.
          const quarter = Math.min(...[1, 2, 3].map(() => seconds(read, made(times / 4))));
          // The machine may be busy with other tests: the shortest of several counts, and one good one is enough.
          for (let again = 0; again < 6 && whole / quarter >= 9; again += 1)
            whole = Math.min(whole, seconds(read, made(times)));
          expect({ name, token, where, grows: whole / quarter < 9 }).toEqual({
            name,
            token,
            where,
            grows: true,
          });
        }
      }
  },
);
