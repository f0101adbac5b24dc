/** Text that is already in the syntax of one format: only that format's writer makes it. */
export interface Written<F extends string> {
  readonly format: F;
  readonly text: string;
}

/** A value that a format cannot hold. Names are checked where they enter, so this stops only what slipped past. */
export class UnwritableError extends Error {
  override readonly name = 'UnwritableError';
  /** `value` is the text that was refused, whole. */
  constructor(
    readonly format: string,
    readonly value: string,
  ) {
    super(`${JSON.stringify(value.slice(0, 60))} cannot be written into a ${format} file`);
  }
}

/** What may stand in a template of a format: plain values are quoted, written text is kept, lists are joined. */
export type Part<F extends string> = string | number | Written<F> | readonly (string | number | Written<F>)[];

/** A template of one format: the literal text is kept, every value goes through the quoting of the format. */
export type Template<F extends string> = (text: TemplateStringsArray, ...parts: Part<F>[]) => Written<F>;

interface Syntax<F extends string> {
  format: F;
  /** The value so that it is one token, or UnwritableError. */
  quote: (value: string) => string;
  /** What stands between the values of a list. */
  between?: string;
  /** Throws UnwritableError where a value may not stand behind this literal text. */
  guard?: (before: string) => void;
}

const isWritten = <F extends string>(part: Part<F>): part is Written<F> =>
  typeof part === 'object' && 'format' in part;

/** Makes the template of a format. */
export function templateOf<F extends string>({
  format,
  quote,
  between = ' ',
  guard,
}: Syntax<F>): Template<F> {
  const one = (part: string | number | Written<F>): string =>
    isWritten<F>(part) ? part.text : quote(String(part));
  return (text, ...parts) => {
    let out = text[0] ?? '';
    let literal = out;
    parts.forEach((part, i) => {
      guard?.(literal);
      out += typeof part === 'object' && !isWritten<F>(part) ? part.map(one).join(between) : one(part);
      out += text[i + 1] ?? '';
      literal += text[i + 1] ?? '';
    });
    return { format, text: out };
  };
}

/** Lines of a file, each ended by a line feed. */
export const linesOf = <F extends string>(lines: readonly Written<F>[]): string =>
  lines.map((l) => `${l.text}\n`).join('');

/** A text in one line: control characters and line separators become spaces. */
export const oneLine = (text: string): string => text.replace(/[\p{Cc}\p{Zl}\p{Zp}]+/gu, ' ').trim();
