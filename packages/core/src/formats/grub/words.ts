/** A piece of a word: text as it stands, or a variable's value; quoted ones are not split at blanks. */
export type Piece = { text: string } | { variable: string; quoted: boolean };
/** A word of a command, to be put together when it is run. */
export type Word = readonly Piece[];

/** A word with whether any of it was quoted, which keeps it from being a keyword; or a mark that ends or joins commands. */
export type Token =
  { word: Word; quoted: boolean; line: number } | { mark: ';' | '{' | '}' | 'end of line'; line: number };

const NAME = /^(?:\{([A-Za-z_][A-Za-z0-9_]*|[0-9]+|[?@*#])\}|([A-Za-z_][A-Za-z0-9_]*|[0-9]|[?@*#]))/;
const BLANK = /[ \t\r]/;
const BETWEEN = /[ \t\r\n;{}|&<>]/;

/**
 * Splits a script into words and marks, as GRUB's shell does: quotes, escapes, variables, comments (GRUB manual, “Shell-like
 * scripting”). What is left open at the end of the text ends there.
 */
export function tokensOf(script: string): Token[] {
  const out: Token[] = [];
  let at = 0;
  let line = 1;
  const variable = (quoted: boolean): Piece => {
    const hit = NAME.exec(script.slice(at + 1, at + 130));
    if (!hit) {
      at += 1;
      return { text: '$' };
    }
    at += 1 + hit[0].length;
    return { variable: hit[1] ?? hit[2] ?? '', quoted };
  };
  const word = (): Token => {
    const pieces: Piece[] = [];
    let text = '';
    let quoted = false;
    const begun = line;
    const flush = (): void => {
      if (text !== '') pieces.push({ text });
      text = '';
    };
    while (at < script.length) {
      const c = script[at] ?? '';
      if (BETWEEN.test(c)) {
        // Braces belong to a word they are not apart from.
        const joins = (c === '{' || c === '}') && (text !== '' || pieces.length > 0);
        if (!joins) break;
        text += c;
        at += 1;
      } else if (c === '\\') {
        if (script[at + 1] === '\n') line += 1;
        else text += script[at + 1] ?? '';
        at += 2;
      } else if (c === "'") {
        quoted = true;
        const end = script.indexOf("'", at + 1);
        const inner = script.slice(at + 1, end < 0 ? script.length : end);
        line += inner.split('\n').length - 1;
        text += inner;
        at = end < 0 ? script.length : end + 1;
      } else if (c === '"') {
        quoted = true;
        at += 1;
        while (at < script.length && script[at] !== '"') {
          const d = script[at] ?? '';
          if (d === '$') {
            flush();
            pieces.push(variable(true));
          } else if (d === '\\' && /[$"\\\n]/.test(script[at + 1] ?? '')) {
            if (script[at + 1] !== '\n') text += script[at + 1] ?? '';
            at += 2;
          } else {
            if (d === '\n') line += 1;
            text += d;
            at += 1;
          }
        }
        at += 1;
      } else if (c === '$') {
        flush();
        pieces.push(variable(false));
      } else {
        text += c;
        at += 1;
      }
    }
    flush();
    return { word: pieces, quoted, line: begun };
  };
  while (at < script.length) {
    const c = script[at] ?? '';
    if (BLANK.test(c)) at += 1;
    else if (c === '\\' && script[at + 1] === '\n') {
      at += 2;
      line += 1;
    } else if (c === '#') {
      const end = script.indexOf('\n', at);
      at = end < 0 ? script.length : end;
    } else if (c === '\n') {
      out.push({ mark: 'end of line', line });
      line += 1;
      at += 1;
    } else if (c === ';' || c === '{' || c === '}') {
      out.push({ mark: c, line });
      at += 1;
    } else if (BETWEEN.test(c)) {
      // No pipes and no redirection are there to be meant; they end the command.
      out.push({ mark: ';', line });
      at += 1;
    } else out.push(word());
  }
  return out;
}

/** The text of a word in which nothing is to be replaced; undefined where something is. */
export function plainText(word: Word): string | undefined {
  let out = '';
  for (const piece of word) {
    if (!('text' in piece)) return undefined;
    out += piece.text;
  }
  return out;
}
