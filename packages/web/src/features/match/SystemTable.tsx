import { useState } from 'react';
import { Link } from 'react-router';
import { judge } from '@zb/core/fit/judge';
import { viewOf, type BriefSheet } from '@zb/core/fit/sheet';
import type { Bench, Machine } from '@zb/core/schema/bench';
import { Mark, verdictMark } from '../../parts/Marks';
import { gridMove } from '../../parts/grid';

/** Every machine against every system of the bench, wishes or not. */
export function SystemTable({
  bench,
  machines,
  sheet,
}: {
  bench: Bench;
  machines: Machine[];
  sheet: BriefSheet | null;
}) {
  const [at, setAt] = useState({ row: 0, column: 0 });
  const machine = machines[at.row];
  const profile = bench.profiles[at.column];
  const here = machine && profile ? judge(viewOf(bench, machine), profile) : undefined;
  return (
    <div className="stack" style={{ gap: 8 }}>
      <div className="scroll-x match-scroll" tabIndex={0} role="region" aria-label="Machines and systems">
        <table
          className="t match"
          onKeyDown={(e) => gridMove(e, at, machines.length, bench.profiles.length, setAt)}
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
            {machines.map((m, row) => (
              <tr key={m.id}>
                <th scope="row">
                  {m.name}
                  <span className="sub">{m.form}</span>
                </th>
                {bench.profiles.map((p, column) => {
                  const c = sheet?.rows[row]?.cells[column];
                  const { kind, short } = verdictMark(c?.verdict);
                  const mine = row === at.row && column === at.column;
                  const chosen = bench.boxes.some((b) => b.machineId === m.id && b.profileId === p.id);
                  return (
                    <td key={p.id} className={`${chosen ? 'chosen' : ''}${mine ? ' at' : ''}`}>
                      <button
                        type="button"
                        id={`cell-${row}-${column}`}
                        tabIndex={mine ? 0 : -1}
                        onClick={() => setAt({ row, column })}
                        onFocus={() => setAt({ row, column })}
                      >
                        <span className="hidden-text">
                          {p.name} on {m.name}:
                        </span>
                        {c ? <Mark kind={kind}>{short}</Mark> : <span className="soft">judging…</span>}
                        <span className="sub">{c?.verdict === 'fits' ? '' : c?.short}</span>
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
            {here.profile} {here.release.version} on {machine?.name}:
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
