import type { ReactNode } from 'react';
import { csvOf } from '@zb/core/formats/writer/csv';

/** A column of a table: what it is called, what it sorts and finds by, and how it is shown. */
export interface Column<T> {
  id: string;
  head: string;
  /** What it sorts, finds and copies by. */
  value: (row: T) => string | number | null;
  /** How it is shown; without it, its value. */
  cell?: (row: T) => ReactNode;
  /** Figures stand on the right. */
  figure?: boolean;
  /** Not shown until it is asked for. */
  hidden?: boolean;
}

/** Rows as comma-separated values with their heads (RFC 4180), as they are sorted and found. */
export const asCsv = <T>(columns: readonly Column<T>[], rows: readonly T[]): string =>
  csvOf(
    columns.map((c) => c.head),
    rows.map((r) => columns.map((c) => c.value(r))),
  );

/** Where a key leads in a grid of so many rows and columns; undefined where it leads nowhere (WAI-ARIA APG, “Grid”). */
export function stepIn(
  { key, ctrlKey }: { key: string; ctrlKey: boolean },
  at: { row: number; column: number },
  { rows, columns, page }: { rows: number; columns: number; page: number },
): { row: number; column: number } | undefined {
  const last = { row: rows - 1, column: columns - 1 };
  const to = (row: number, column: number) => ({
    row: Math.max(0, Math.min(last.row, row)),
    column: Math.max(0, Math.min(last.column, column)),
  });
  switch (key) {
    case 'ArrowDown':
      return to(at.row + 1, at.column);
    case 'ArrowUp':
      return to(at.row - 1, at.column);
    case 'ArrowRight':
      return to(at.row, at.column + 1);
    case 'ArrowLeft':
      return to(at.row, at.column - 1);
    case 'PageDown':
      return to(at.row + page, at.column);
    case 'PageUp':
      return to(at.row - page, at.column);
    case 'Home':
      return to(ctrlKey ? 0 : at.row, 0);
    case 'End':
      return to(ctrlKey ? last.row : at.row, last.column);
    default:
      return undefined;
  }
}
