const cell = (text: string): string => text.replaceAll('|', '\\|').replace(/\s+/g, ' ');
const row = (cells: readonly string[]): string => `| ${cells.map(cell).join(' | ')} |`;

/** A table as Markdown writes it, a line for each row (pipes between cells; common practice). */
export const markdownTable = (heads: readonly string[], rows: readonly (readonly string[])[]): string[] => [
  row(heads),
  row(heads.map(() => '---')),
  ...rows.map(row),
];
