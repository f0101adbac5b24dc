import { machinesOf, type Bench } from '../../model/bench';
import type { BriefCell, BriefSheet } from '../../system/sheet';
import { findingWords } from './finding';

/** The one reason a crossing of the match sheet shows. */
export const cellShort = (cell: BriefCell): string => (cell.binding ? findingWords(cell.binding).short : '');

/** The finding of a sheet of wishes as a headline. */
export function matchHeadline(bench: Bench, sheet: BriefSheet | null): string {
  const total = bench.wishes.length;
  if (machinesOf(bench).length === 0 || !sheet) return 'Which machine takes which purpose?';
  if (total === 0) return 'What do you want the machines for?';
  const has = (i: number, verdict: string): boolean =>
    sheet.rows.some((r) => r.cells[i]?.verdict === verdict);
  const now = bench.wishes.filter((_, i) => has(i, 'fits')).length;
  const change = bench.wishes.filter((_, i) => has(i, 'fits after a change') && !has(i, 'fits')).length;
  return `${now} of ${total} wishes have a machine as it stands${change > 0 ? `, ${change} more after a change` : ''}`;
}
