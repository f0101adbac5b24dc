import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { systemSheet } from '@zb/core/fit/sheet';
import type { Bench } from '@zb/core/schema/bench';
import { Mark, verdictMark } from '../../parts/Marks';
import { gridMove } from '../../parts/grid';

/** Every machine against every system of the bench, wishes or not. */
export function SystemTable({ bench }: { bench: Bench }) {
  const rows = useMemo(() => systemSheet(bench), [bench]);
  const [at, setAt] = useState({ row: 0, column: 0 });
  const here = rows[at.row]?.cells[at.column];
  return (
    <div className="stack" style={{ gap: 8 }}>
      <div className="scroll-x match-scroll" tabIndex={0} role="region" aria-label="Machines and systems">
        <table
          className="t match"
          onKeyDown={(e) => gridMove(e, at, rows.length, bench.profiles.length, setAt)}
          style={{ '--columns': bench.profiles.length } as React.CSSProperties}
        >
          <thead>
            <tr>
              <td />
              {bench.profiles.map((p) => (
                <th key={p.id} scope="col">
                  <Link className="link" to={`/profiles/${p.id}`}>
                    {p.name}
                  </Link>
                  <span className="sub">{p.purpose}</span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((r, row) => (
              <tr key={r.machine.id}>
                <th scope="row">
                  {r.machine.name}
                  <span className="sub">{r.machine.form}</span>
                </th>
                {r.cells.map((c, column) => {
                  const { kind, short } = verdictMark(c.verdict);
                  const mine = row === at.row && column === at.column;
                  const chosen = bench.boxes.some(
                    (b) => b.machineId === r.machine.id && b.profileId === c.profileId,
                  );
                  return (
                    <td key={c.profileId} className={`${chosen ? 'chosen' : ''}${mine ? ' at' : ''}`}>
                      <button
                        type="button"
                        id={`cell-${row}-${column}`}
                        tabIndex={mine ? 0 : -1}
                        onClick={() => setAt({ row, column })}
                        onFocus={() => setAt({ row, column })}
                      >
                        <span className="hidden-text">
                          {c.profile} on {r.machine.name}:
                        </span>
                        <Mark kind={kind}>{short}</Mark>
                        <span className="sub">{c.verdict === 'fits' ? '' : c.short}</span>
                      </button>
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {here && (
        <p className="said" aria-live="polite">
          <b>
            {here.profile} {here.release.version} on {rows[at.row]?.machine.name}:
          </b>{' '}
          {here.verdict}.{' '}
          {here.binding
            .slice(0, 3)
            .map((f) => `${f.because} ${f.repair ?? ''}`)
            .join(' ')}
        </p>
      )}
    </div>
  );
}
