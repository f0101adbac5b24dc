import { memo } from 'react';
import type { Solution } from '@zb/core/assign/solve';
import type { BriefCell, BriefSheet } from '@zb/core/fit/sheet';
import type { Bench, Machine, Wish } from '@zb/core/schema/bench';
import { Mark, verdictMark } from '../../parts/Marks';
import { gridMove } from '../../parts/grid';

export interface At {
  row: number;
  column: number;
}

const Cell = memo(function Cell({
  cell,
  machine,
  rowIndex,
  column,
  wish,
  chosen,
  here,
  onAt,
}: {
  /** Undefined while it is being judged, null where no system answers the wish. */
  cell: BriefCell | null | undefined;
  machine: Machine;
  rowIndex: number;
  column: number;
  wish: Wish;
  chosen: boolean;
  here: boolean;
  onAt: (at: At) => void;
}) {
  const pinned = wish.keep === machine.id;
  const forbidden = wish.forbid.includes(machine.id);
  const verdict = cell?.verdict;
  const { kind, short } = verdictMark(verdict);
  const score = cell?.score?.toFixed(0);
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
          {wish.name} on {machine.name}
          {chosen ? ', in the plan' : ''}:
        </span>
        <span className="cellhead">
          {cell === undefined ? <span className="soft">judging…</span> : <Mark kind={kind}>{short}</Mark>}
          {score !== undefined && <span className="m score">{score}</span>}
        </span>
        <span className="sub">
          {cell === null ? 'no system' : verdict === 'fits' ? cell?.profile : cell?.short}
        </span>
        {(pinned || forbidden) && <span className="sub flag">{pinned ? 'pinned' : 'forbidden'}</span>}
      </button>
    </td>
  );
});

/** The sheet itself: one row for each machine, one column for each wish, arrows move between crossings. */
export function MatchTable({
  bench,
  machines,
  sheet,
  plan,
  at,
  onAt,
  onWish,
}: {
  bench: Bench;
  machines: Machine[];
  sheet: BriefSheet | null;
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
        onKeyDown={(e) => gridMove(e, at, machines.length, bench.wishes.length, onAt)}
        style={{ '--columns': bench.wishes.length } as React.CSSProperties}
      >
        <thead>
          <tr>
            <td />
            {bench.wishes.map((w) => (
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
          {machines.map((m, row) => (
            <tr key={m.id}>
              <th scope="row">
                {m.name}
                <span className="sub">{m.form}</span>
              </th>
              {bench.wishes.map((w, column) => (
                <Cell
                  key={w.id}
                  cell={sheet ? (sheet.rows[row]?.cells[column] ?? null) : undefined}
                  machine={m}
                  rowIndex={row}
                  column={column}
                  wish={w}
                  chosen={chosen.has(`${m.id} ${w.id}`)}
                  here={row === at.row && column === at.column}
                  onAt={onAt}
                />
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
