/** What is said on a terminal without its movements and colours (ECMA-48 §5.4: ESC [ … a letter). */
export const plainTerminal = (text: string): string =>
  text
    .split(String.fromCharCode(27))
    .map((part, i) => (i === 0 ? part : part.replace(/^(?:\[[0-9;?=]*[A-Za-z]|[()][A-Z0-9])/, '')))
    .join('');
