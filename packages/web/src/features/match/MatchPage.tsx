import { useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { matchHeadline, matchSheet } from '@zb/core/fit/sheet';
import { LedgerAside, LedgerGroup } from '../../parts/LedgerPane';
import { Mark, VerdictMark } from '../../parts/Marks';
import { NoProfiles } from '../../parts/NoProfiles';
import { Sheet } from '../../parts/Sheet';
import { useBench } from '../../storage/hooks';

/** Machines × systems: the verdict and the one binding reason at each crossing. */
export default function MatchPage() {
  const bench = useBench();
  const [params] = useSearchParams();
  const sheet = useMemo(() => matchSheet(bench), [bench]);
  const wanted = params.get('profile');
  const [at, setAt] = useState<{ row: number; column: number }>({
    row: 0,
    column: Math.max(
      0,
      bench.profiles.findIndex((p) => p.id === wanted),
    ),
  });
  const current = sheet.rows[at.row]?.cells[at.column];
  const move = (e: React.KeyboardEvent): void => {
    const step: Record<string, [number, number]> = {
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
    };
    const by = step[e.key];
    if (!by) return;
    e.preventDefault();
    e.stopPropagation();
    const next = {
      row: Math.max(0, Math.min(sheet.rows.length - 1, at.row + by[0])),
      column: Math.max(0, Math.min(sheet.profiles.length - 1, at.column + by[1])),
    };
    setAt(next);
    document.getElementById(`cell-${next.row}-${next.column}`)?.focus();
  };
  return (
    <>
      <Sheet
        title="Match"
        mid={`${sheet.rows.length} machines, ${sheet.profiles.length} systems`}
        headline={matchHeadline(sheet)}
      >
        {sheet.rows.length === 0 || sheet.profiles.length === 0 ? (
          <div className="stack">
            {sheet.rows.length === 0 && (
              <p>
                No machine is on the shelf yet.{' '}
                <Link className="link" to="/shelf">
                  Put one there and paste its survey
                </Link>
                .
              </p>
            )}
            {sheet.profiles.length === 0 && <NoProfiles />}
          </div>
        ) : (
          <div
            className="scroll-x"
            style={{ overflowX: 'auto' }}
            tabIndex={0}
            role="region"
            aria-label="Match sheet"
          >
            <table
              className="t match"
              onKeyDown={move}
              style={{ '--columns': sheet.profiles.length } as React.CSSProperties}
            >
              <thead>
                <tr>
                  <th scope="col" />
                  {sheet.profiles.map((p) => (
                    <th key={p.id} scope="col">
                      {p.name}
                      <span className="sub" style={{ fontWeight: 400 }}>
                        {p.purpose}
                      </span>
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {sheet.rows.map((r, row) => (
                  <tr key={r.machine.id}>
                    <th scope="row">
                      {r.machine.name}
                      <span className="sub" style={{ fontWeight: 400 }}>
                        {r.machine.form}
                      </span>
                    </th>
                    {r.cells.map((c, column) => {
                      const here = row === at.row && column === at.column;
                      return (
                        <td key={c.profileId} className={`${c.chosen ? 'chosen' : ''}${here ? ' at' : ''}`}>
                          <button
                            type="button"
                            id={`cell-${row}-${column}`}
                            tabIndex={here ? 0 : -1}
                            onClick={() => setAt({ row, column })}
                            onFocus={() => setAt({ row, column })}
                          >
                            <span className="hidden-text">
                              {r.machine.name}, {c.profile}:
                            </span>
                            <Mark
                              kind={
                                c.verdict === 'fits'
                                  ? 'yes'
                                  : c.verdict === 'fits after a change'
                                    ? 'change'
                                    : c.verdict === 'cannot say yet'
                                      ? 'ask'
                                      : 'no'
                              }
                            >
                              {c.verdict === 'fits'
                                ? 'fits'
                                : c.verdict === 'does not fit'
                                  ? 'no'
                                  : c.verdict === 'cannot say yet'
                                    ? 'ask'
                                    : 'change'}
                            </Mark>
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
        )}
      </Sheet>
      <LedgerAside>
        {current ? (
          <>
            <LedgerGroup title={`${current.profile} on ${sheet.rows[at.row]?.machine.name ?? ''}`}>
              <VerdictMark verdict={current.verdict} />
            </LedgerGroup>
            <LedgerGroup title={current.verdict === 'fits' ? 'What holds' : 'What decides'}>
              {current.binding.map((f) => (
                <p key={f.rule} style={{ padding: '3px 0' }}>
                  {f.because} {f.repair && <b>{f.repair}</b>}
                </p>
              ))}
            </LedgerGroup>
            {current.missing.length > 0 && (
              <LedgerGroup title="To find out" count={current.missing.length}>
                {current.missing.map((m) => (
                  <p key={m.fact}>{m.ask}</p>
                ))}
              </LedgerGroup>
            )}
          </>
        ) : (
          <p className="soft">Nothing to match yet.</p>
        )}
      </LedgerAside>
      <div className="legend">
        <Mark kind="yes">fits</Mark>
        <Mark kind="change">fits after a change</Mark>
        <Mark kind="ask">cannot say yet</Mark>
        <Mark kind="no">does not fit</Mark>
        <span className="soft">outlined: chosen in a box · arrows move</span>
      </div>
    </>
  );
}
