import { oneLine, templateOf, UnwritableError, type Written } from './template';

/** A piece of a script for a POSIX shell. */
export type Shell = Written<'shell'>;

/** A text in single quotes, within which nothing has a meaning to a shell (IEEE Std 1003.1, “Quoting”; GRUB manual, “Quoting”). */
export const quoted = (text: string): string => `'${text.replaceAll("'", `'\\''`)}'`;

/** A word for a POSIX shell (IEEE Std 1003.1, “Quoting”): quoted where it needs to be. Throws UnwritableError for a NUL, which no argument can hold. */
export function shellWord(text: string): string {
  if (text.includes('\0')) throw new UnwritableError('shell', text);
  return /^[\w./:=@%+,-]+$/.test(text)
    ? text
    : text
        .split(CONTROL)
        .map((t, i) => (i % 2 === 0 ? quoted(t) : printed(t)))
        .join('');
}

/** What moves the cursor or colours a terminal when a script is shown on it; a tab and a line end do not. */
const CONTROL = /([^\P{Cc}\t\n]+)/u;
/** Such characters as a shell makes them (IEEE Std 1003.1, printf). */
const printed = (text: string): string =>
  `"$(printf '${[...new TextEncoder().encode(text)].map((b) => `\\${b.toString(8).padStart(3, '0')}`).join('')}')"`;

/** Whether a text of a script ends within quotes: a quoted value there would end them. */
function withinQuotes(text: string): boolean {
  let open = '';
  for (let i = 0; i < text.length; i += 1) {
    const c = text[i] ?? '';
    if (open === "'") {
      if (c === "'") open = '';
    } else if (c === '\\') i += 1;
    else if (open === '"') {
      if (c === '"') open = '';
    } else if (c === '"' || c === "'") open = c;
  }
  return open !== '';
}

/**
 * A piece of a shell script: values become words of their own, quoted; the text around them is a script and is kept.
 * Throws UnwritableError where a value stands within quotes or holds a NUL.
 */
export const sh = templateOf({
  format: 'shell',
  quote: shellWord,
  guard: (before) => {
    if (withinQuotes(before)) throw new UnwritableError('shell', before);
  },
});

/** A line of a script that says something to its reader. */
export const shellComment = (text: string): Shell => ({
  format: 'shell',
  text: `# ${oneLine(text)}`.trimEnd(),
});

/** Part of a script that is fixed: no value stands in it. */
export const fixedShell = (text: string): Shell => ({ format: 'shell', text });

/** A whole script: its lines, each ended. */
export const shellScript = (lines: readonly Shell[]): string => lines.map((l) => `${l.text}\n`).join('');
