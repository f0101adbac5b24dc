import { useMemo, useState } from 'react';
import { takeBackOverrule, overrule } from '@zb/core/acts/wishes';
import type { Finding } from '@zb/core/fit/finding';
import { Link } from 'react-router';
import { judge, otherWays } from '@zb/core/fit/judge';
import { viewOf, type BriefSheet } from '@zb/core/fit/sheet';
import type { Bench, Machine, Profile } from '@zb/core/schema/bench';
import { FindingList } from '../../parts/FindingList';
import { LedgerAside, LedgerGroup } from '../../parts/LedgerPane';
import { Mark, VerdictMark, verdictMark } from '../../parts/Marks';
import { OtherWays } from '../../parts/OtherWays';
import { Overrule } from '../../parts/Overrule';
import { RuleTable } from '../../parts/RuleTable';
import { gridMove } from '../../parts/grid';
import { stamp, useAct } from '../../storage/hooks';
import type { At } from './MatchTable';

/** Every machine against every system of the bench, wishes or not. */
export function SystemTable({
  bench,
  machines,
  sheet,
  at,
  onAt,
}: {
  bench: Bench;
  machines: Machine[];
  sheet: BriefSheet | null;
  at: At;
  onAt: (at: At) => void;
}) {
  return (
    <div className="scroll-x match-scroll" tabIndex={0} role="region" aria-label="Machines and systems">
      <table
        className="t match"
        onKeyDown={(e) => gridMove(e, at, machines.length, bench.profiles.length, onAt)}
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
                      onClick={() => onAt({ row, column })}
                      onFocus={() => onAt({ row, column })}
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
  );
}

/** The reasoning behind the crossing under the cursor. */
export function SystemPane({
  bench,
  machine,
  profile,
}: {
  bench: Bench;
  machine: Machine | undefined;
  profile: Profile | undefined;
}) {
  const act = useAct();
  const [overruling, setOverruling] = useState<Finding | null>(null);
  const judged = useMemo(
    () => (machine && profile ? judge(viewOf(bench, machine), profile) : undefined),
    [bench, machine, profile],
  );
  if (!judged || !machine || !profile) return <LedgerAside>{null}</LedgerAside>;
  return (
    <LedgerAside>
      <LedgerGroup title={`${judged.profile} on ${machine.name}`}>
        <p>
          <VerdictMark verdict={judged.verdict} />
          <span className="sub">
            {judged.release.version}, {judged.release.channel}
          </span>
        </p>
        <FindingList
          judged={judged}
          machineId={machine.id}
          onOverrule={setOverruling}
          onTakeBack={(f) => void act(takeBackOverrule(machine, profile.id, f.rule))}
        />
        <OtherWays bench={bench} ways={otherWays(viewOf(bench, machine), profile, judged)} />
        <RuleTable judged={judged} />
      </LedgerGroup>
      {overruling && (
        <Overrule
          title={overruling.rule}
          because={overruling.because}
          onClose={() => setOverruling(null)}
          onOverrule={(reason) => {
            const of = { key: profile.id, name: profile.name };
            void act(overrule(machine, of, overruling.rule, reason, null, stamp()));
            setOverruling(null);
          }}
        />
      )}
    </LedgerAside>
  );
}
