import { READERS, tokensIn } from '../../packages/core/test/textReaders';
import { isRefusal } from './expected';
import { sleep, type Part } from './part';

const MOST_MS = 2500;
const LONGEST = 200_000;

/**
 * Texts made of the tokens of a format, one or several of them repeated until they are long, alone or between sound lines:
 * every reader is through with them soon, in time that does not grow with the square of their length, and refuses in words.
 */
export const readers: Part = async ({ random, goOn, count, wrong }) => {
  const all = Object.entries(READERS);
  while (goOn()) {
    const [name, { read, of }] = random.pick(all);
    const sound = random.pick(of);
    // One of another format now and then: what is between two readers belongs to neither.
    const tokens = random.some(
      tokensIn(random.chance(0.8) ? sound : random.pick(random.pick(all)[1].of)),
      random.int(1, 4),
    );
    const unit = tokens.join(random.pick(['', '', ' ', '\n']));
    const made = (length: number): string => {
      const long = unit.repeat(Math.max(1, Math.ceil(length / Math.max(1, unit.length))));
      return where === 'alone' ? long : where === 'behind' ? sound + long : `${sound}${long}\n${sound}`;
    };
    const where = random.pick(['alone', 'behind', 'between'] as const);
    const millis = (text: string): number => {
      const since = performance.now();
      try {
        read(text);
      } catch (error) {
        if (!isRefusal(error)) wrong(`${name}, ${JSON.stringify(unit)} ${where}: ${String(error)}`);
      }
      return performance.now() - since;
    };
    const length = random.int(1000, LONGEST);
    const whole = millis(made(length));
    if (whole > MOST_MS) {
      // A busy machine is slow at both; four times the text may take four times as long, and a square takes sixteen times.
      const quarter = Math.min(...[1, 2, 3].map(() => millis(made(length / 4))));
      const again = Math.min(...[1, 2].map(() => millis(made(length))));
      if (again / quarter >= 9)
        wrong(
          `${name}: ${JSON.stringify(unit)} × ${length} ${where} takes ${again.toFixed(0)} ms, a quarter ${quarter.toFixed(0)} ms`,
        );
    }
    count('texts of repeated tokens');
    count('megabytes', length / 1e6);
    await sleep(0);
  }
};
