import { memo, type ReactNode } from 'react';
import type { BriefCell } from '@zb/core/system/sheet';
import { cellShort } from '@zb/core/words/fit/match';
import type { Machine } from '@zb/core/model/bench';
import { Mark, verdictMark } from '../../parts/Marks';
import { gridMove } from '../../parts/grid';
import { Room } from '../../parts/Room';
import { useSeenRows } from '../../parts/useSeenRows';

export interface At {
  row: number;
  column: number;
}

export interface CellProps {
  /** What a screen reader hears first: which column on which machine. */
  title: string;
  /** Undefined while it is being judged, null where no system answers. */
  cell: BriefCell | null | undefined;
  /** What stands under the mark where it fits. */
  fits: string;
  chosen: boolean;
  /** A word of the user's own: pinned or forbidden. */
  flag?: 'pinned' | 'forbidden' | undefined;
  scored?: boolean;
}

const Cell = memo(function Cell({
  title,
  cell,
  fits,
  chosen,
  flag,
  scored,
  row,
  column,
  here,
  onAt,
}: CellProps & At & { here: boolean; onAt: (at: At) => void }) {
  const { kind, short } = verdictMark(cell?.verdict);
  const score = scored ? cell?.score?.toFixed(0) : undefined;
  return (
    <td
      className={`${chosen ? 'chosen' : ''}${here ? ' at' : ''}${flag === 'forbidden' ? ' forbidden' : ''}`}
    >
      <button
        type="button"
        id={`cell-${row}-${column}`}
        tabIndex={here ? 0 : -1}
        onClick={() => onAt({ row, column })}
        onFocus={() => onAt({ row, column })}
      >
        <span className="hidden-text">{title}:</span>
        <span className="cellhead">
          {cell === undefined ? <span className="soft">judging…</span> : <Mark kind={kind}>{short}</Mark>}
          {score !== undefined && <span className="m score">{score}</span>}
        </span>
        <span className="sub">
          {cell === null ? 'no system' : cell?.verdict === 'fits' ? fits : cell && cellShort(cell)}
        </span>
        {flag && <span className="sub flag">{flag}</span>}
      </button>
    </td>
  );
});

/** A sheet of crossings: one row for each machine, arrows move between them, heads stay in sight. */
export function SheetGrid({
  label,
  heads,
  machines,
  at,
  onAt,
  cell,
}: {
  label: string;
  heads: { id: string; head: ReactNode }[];
  machines: Machine[];
  at: At;
  onAt: (at: At) => void;
  cell: (machine: Machine, row: number, column: number) => CellProps;
}) {
  const { holder, measure, seen: drawn, before, after } = useSeenRows(machines.length, 58);
  // The row under the cursor is drawn wherever it is, so that the arrows always have a place to go.
  const seen = drawn.includes(at.row) || at.row >= machines.length ? drawn : [...drawn, at.row];
  return (
    <div className="scroll-x match-scroll" tabIndex={0} role="region" aria-label={label}>
      <table
        className="t match"
        onKeyDown={(e) => gridMove(e, at, machines.length, heads.length, onAt)}
        style={{ '--columns': heads.length } as React.CSSProperties}
      >
        <thead>
          <tr>
            <td />
            {heads.map((h) => (
              <th key={h.id} scope="col">
                {h.head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody ref={holder}>
          <Room height={before} />
          {seen
            .flatMap((row) => {
              const m = machines[row];
              return m ? [{ m, row }] : [];
            })
            .map(({ m, row }) => (
              <tr key={m.id} ref={measure} data-index={row}>
                <th scope="row">
                  {m.name}
                  <span className="sub">{m.form}</span>
                </th>
                {heads.map((h, column) => (
                  <Cell
                    key={h.id}
                    {...cell(m, row, column)}
                    row={row}
                    column={column}
                    here={row === at.row && column === at.column}
                    onAt={onAt}
                  />
                ))}
              </tr>
            ))}
          <Room height={after} />
        </tbody>
      </table>
    </div>
  );
}
