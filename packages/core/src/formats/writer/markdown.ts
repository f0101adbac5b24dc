import { oneLine, templateOf, type Written } from './template';

/** Text that is Markdown already. */
export type Markdown = Written<'markdown'>;

/** Marks that mean something anywhere in a line (CommonMark 0.31 §2.4; GFM 0.29 §4.10, §6.5). */
const MARKS = /[\\`*_[\]<>|#~&!]/g;
/** Web and mail addresses that become links by themselves (GFM 0.29 §6.9). */
const LINKS = /(:)(?=\/\/)|(@)|(?<=\bwww)(\.)/gi;
/** What begins a list, a rule or an underlined head at the start of a line (CommonMark 0.31 §4.1, §4.3, §5.2). */
const BEGINS = /^(\d{0,9})(?:([-+])(?=\s|$)|([-=])(?=[-=\s]*$)|([.)])(?=\s|$))/;

/** Text that stands in a paragraph, a table cell or a list without being taken for markup, in one line. */
export const markdownText = (text: string): string =>
  oneLine(text).replace(MARKS, '\\$&').replace(LINKS, '\\$&').replace(BEGINS, '$1\\$2$3$4');

/** Markdown around values: what stands in it as a plain value is text. */
export const md = templateOf({ format: 'markdown', quote: markdownText });

/** How many backticks stand in a row at most: what encloses them has one more (CommonMark 0.31 §4.5, §6.1). */
export const longestTicks = (text: string): number =>
  Math.max(0, ...[...text.matchAll(/`+/g)].map((m) => m[0].length));

/** Text to the letter in a code span that its own backticks do not end (CommonMark 0.31 §6.1). */
export function codeSpan(text: string): Markdown {
  const line = oneLine(text);
  const fence = '`'.repeat(longestTicks(line) + 1);
  const pad = line === '' || line.startsWith('`') || line.endsWith('`') ? ' ' : '';
  // A pipe ends a table's cell even within a code span (GFM 0.29 §4.10).
  return { format: 'markdown', text: `${fence}${pad}${line}${pad}${fence}` };
}

/** A cell of a table: a plain value is text, Markdown stays what it is. */
export type MarkdownCell = string | Markdown;
const cell = (c: MarkdownCell): string =>
  typeof c === 'string' ? markdownText(c) : c.text.replace(/(?<!\\)\|/g, '\\|');
const row = (cells: readonly string[]): string => `| ${cells.join(' | ')} |`;

/** A table, a line for each row (GFM 0.29 §4.10). */
export const markdownTable = (
  heads: readonly string[],
  rows: readonly (readonly MarkdownCell[])[],
): string[] => [row(heads.map(cell)), row(heads.map(() => '---')), ...rows.map((r) => row(r.map(cell)))];
