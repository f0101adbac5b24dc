/** Text that stands in a paragraph, a table cell or a list without being taken for markup (CommonMark 0.31 §2.4). */
export const markdownText = (text: string): string =>
  text.replace(/[\\`*_[\]<>|#]/g, '\\$&').replace(/\s*\n\s*/g, ' ');

const cell = (text: string): string => text.replaceAll('|', '\\|').replace(/\s+/g, ' ');
const row = (cells: readonly string[]): string => `| ${cells.map(cell).join(' | ')} |`;

/** A table as Markdown writes it, a line for each row (pipes between cells; common practice). */
export const markdownTable = (heads: readonly string[], rows: readonly (readonly string[])[]): string[] => [
  row(heads),
  row(heads.map(() => '---')),
  ...rows.map(row),
];
