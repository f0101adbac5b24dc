import { memo } from 'react';
import type { Solution } from '@zb/core/assign/solve';
import type { MatchRow, MatchSheet } from '@zb/core/fit/sheet';
import type { Bench, Wish } from '@zb/core/schema/bench';
import { Mark, verdictMark } from '../../parts/Marks';
import { gridMove } from '../../parts/grid';

export interface At {
  row: number;
  column: number;
}

const Cell = memo(function Cell({
  row,
  rowIndex,
  column,
  wish,
  chosen,
  here,
  onAt,
}: {
  row: MatchRow;
  rowIndex: number;
  column: number;
  wish: Wish;
  chosen: boolean;
  here: boolean;
  onAt: (at: At) => void;
}) {
  const cell = row.cells[column];
  const pinned = wish.keep === row.machine.id;
  const forbidden = wish.forbid.includes(row.machine.id);
  const verdict = cell?.judged.verdict;
  const { kind, short } = verdictMark(verdict);
  const score =
    verdict === 'fits' || verdict === 'fits after a change' ? cell?.score.total.toFixed(0) : undefined;
  return (
    <td className={`${chosen ? 'chosen' : ''}${here ? ' at' : ''}${forbidden ? ' forbidden' : ''}`}>
      <button
        type="button"
        id={`cell-${rowIndex}-${column}`}
        tabIndex={here ? 0 : -1}
        onClick={() => onAt({ row: rowIndex, column })}
        onFocus={() => onAt({ row: rowIndex, column })}
      >
        <span className="hidden-text">
          {wish.name} on {row.machine.name}
          {chosen ? ', in the plan' : ''}:
        </span>
        <span className="cellhead">
          <Mark kind={kind}>{short}</Mark>
          {score !== undefined && <span className="m score">{score}</span>}
        </span>
        <span className="sub">
          {cell === undefined ? 'no system' : verdict === 'fits' ? cell.profile.name : cell.judged.short}
        </span>
        {(pinned || forbidden) && <span className="sub flag">{pinned ? 'pinned' : 'forbidden'}</span>}
      </button>
    </td>
  );
});

/** The sheet itself: one row for each machine, one column for each wish, arrows move between crossings. */
export function MatchTable({
  bench,
  sheet,
  plan,
  at,
  onAt,
  onWish,
}: {
  bench: Bench;
  sheet: MatchSheet;
  plan: Solution | undefined;
  at: At;
  onAt: (at: At) => void;
  onWish: (id: string) => void;
}) {
  const chosen = new Set(plan?.assignments.map((a) => `${a.machineId} ${a.wishId}`));
  const unmet = (w: Wish): boolean => plan !== undefined && !plan.assignments.some((a) => a.wishId === w.id);
  return (
    <div className="scroll-x match-scroll" tabIndex={0} role="region" aria-label="Match sheet">
      <table
        className="t match"
        onKeyDown={(e) => gridMove(e, at, sheet.rows.length, sheet.wishes.length, onAt)}
        style={{ '--columns': sheet.wishes.length } as React.CSSProperties}
      >
        <thead>
          <tr>
            <td />
            {sheet.wishes.map((w) => (
              <th key={w.id} scope="col">
                <button
                  type="button"
                  className="link"
                  onClick={() => onWish(w.id)}
                  title={`Change the wish “${w.name}”`}
                >
                  {w.name}
                </button>
                <span className="sub">
                  {w.purpose} · {w.importance}/5
                </span>
                {unmet(w) && (
                  <span className="sub">
                    <b style={{ color: 'var(--check)' }}>not met</b>
                  </span>
                )}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {sheet.rows.map((r, row) => (
            <tr key={r.machine.id}>
              <th scope="row">
                {r.machine.name}
                <span className="sub">{r.machine.form}</span>
              </th>
              {sheet.wishes.map((w, column) => (
                <Cell
                  key={w.id}
                  row={r}
                  rowIndex={row}
                  column={column}
                  wish={w}
                  chosen={chosen.has(`${r.machine.id} ${w.id}`)}
                  here={row === at.row && column === at.column}
                  onAt={onAt}
                />
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {bench.wishes.length === 0 && <p className="soft">No wish yet.</p>}
    </div>
  );
}
