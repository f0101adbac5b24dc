/** What a test comes to; undefined where the bytes do not tell. */
export type Truth = boolean | undefined;

const not = (t: Truth): Truth => (t === undefined ? undefined : !t);
const and = (a: Truth, b: Truth): Truth =>
  a === false || b === false ? false : a === undefined ? undefined : b;
const or = (a: Truth, b: Truth): Truth => not(and(not(a), not(b)));

/** Looks whether a path is there: as anything, as a file, as a folder, as a file that is not empty. */
export type LooksFor = (path: string, as: 'e' | 'f' | 'd' | 's') => Promise<Truth>;

const NUMBERS: Record<string, (a: number, b: number) => boolean> = {
  '-eq': (a, b) => a === b,
  '-ne': (a, b) => a !== b,
  '-lt': (a, b) => a < b,
  '-le': (a, b) => a <= b,
  '-gt': (a, b) => a > b,
  '-ge': (a, b) => a >= b,
};

/** Evaluates the words of `test` or of `[ … ]` without its closing bracket (GRUB manual, “test”). */
export async function grubTest(words: readonly string[], looksFor: LooksFor): Promise<Truth> {
  let at = 0;
  const one = async (): Promise<Truth> => {
    const word = words[at];
    if (word === undefined) return false;
    if (word === '!') {
      at += 1;
      return not(await one());
    }
    if (word === '(') {
      at += 1;
      const inner = await either();
      at += 1;
      return inner;
    }
    const [operator, right] = [words[at + 1], words[at + 2]];
    if (operator !== undefined && right !== undefined) {
      const compare = NUMBERS[operator];
      const known = compare ?? ['=', '==', '!=', '<', '>', '<=', '>='].includes(operator);
      if (known) {
        at += 3;
        if (compare) return compare(parseInt(word, 10) || 0, parseInt(right, 10) || 0);
        if (operator === '!=') return word !== right;
        if (operator === '=' || operator === '==') return word === right;
        return operator.startsWith('<') ? word < right : word > right;
      }
    }
    const flag = /^-([efdsnz])$/.exec(word)?.[1];
    if (flag !== undefined && operator !== undefined) {
      at += 2;
      if (flag === 'n') return operator !== '';
      if (flag === 'z') return operator === '';
      return looksFor(operator, flag as 'e' | 'f' | 'd' | 's');
    }
    at += 1;
    return word !== '';
  };
  const both = async (): Promise<Truth> => {
    let truth = await one();
    while (words[at] === '-a') {
      at += 1;
      truth = and(truth, await one());
    }
    return truth;
  };
  const either = async (): Promise<Truth> => {
    let truth = await both();
    while (words[at] === '-o') {
      at += 1;
      truth = or(truth, await both());
    }
    return truth;
  };
  return words.length === 0 ? false : either();
}
