import Papa from 'papaparse';

/** A row of a table: numbers are numbers, null is empty. */
export type CsvRow = readonly (string | number | null)[];

/** How a formula begins; the library's own pattern passes over cells of several lines. */
const FORMULA = /^[=+\-@\t\r]/;

/** Rows as comma-separated values (RFC 4180), the last line not ended; what a spreadsheet would take for a formula is kept text by an apostrophe before it. */
export const csvOf = (heads: readonly string[], rows: readonly CsvRow[]): string =>
  Papa.unparse([[...heads], ...rows.map((r) => r.map((c) => c ?? ''))], {
    escapeFormulae: FORMULA,
    newline: '\r\n',
  });

/** The same as a file: a leading byte-order mark, by which spreadsheets read it as UTF-8, and its last line ended. */
export const csvFile = (heads: readonly string[], rows: readonly CsvRow[]): string =>
  `\uFEFF${csvOf(heads, rows)}\r\n`;
