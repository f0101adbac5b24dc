/** Controls of a terminal, and marks that turn the direction of writing (Unicode Standard Annex #9, §2). */
const MOVES = /[^\P{Cc}\t\n]|[\u061c\u200e\u200f\u202a-\u202e\u2066-\u2069]/gu;

/** A text for a terminal in which nothing moves its cursor, colours it or turns its writing: such characters are shown by their numbers. */
export const shownOnTerminal = (text: string): string =>
  text.replace(MOVES, (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`);

/** What is said on a terminal without its movements and colours (ECMA-48 §5.4: ESC [ … a letter). */
export const plainTerminal = (text: string): string =>
  text
    .split(String.fromCharCode(27))
    .map((part, i) => (i === 0 ? part : part.replace(/^(?:\[[0-9;?=]*[A-Za-z]|[()][A-Z0-9])/, '')))
    .join('');
