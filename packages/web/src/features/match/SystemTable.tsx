import { urlPart } from '@zb/core/units/url';
import { useMemo } from 'react';
import { judge, otherWays } from '@zb/core/system/judge';
import type { BriefSheet } from '@zb/core/system/sheet';
import { machineView } from '@zb/core/system/view';
import type { Bench, Machine, Profile } from '@zb/core/model/bench';
import { Findings } from '../../parts/Findings';
import { LedgerAside, LedgerGroup } from '../../parts/LedgerPane';
import { FitMark } from '../../parts/Marks';
import { OtherWays } from '../../parts/OtherWays';
import { RuleTable } from '../../parts/RuleTable';
import { To } from '../../ui/To';
import { Sub } from '../../ui/Words';
import { SheetGrid, type At, type CellProps } from './SheetGrid';

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
  const heads = bench.profiles.map((p) => ({
    id: p.id,
    head: (
      <>
        <To to={`/profiles/${urlPart(p.id)}`}>{p.name}</To>
        <span data-sub="">{p.purpose}</span>
      </>
    ),
  }));
  const cell = (machine: Machine, row: number, column: number): CellProps => {
    const profile = bench.profiles[column];
    return {
      title: `${profile?.name} on ${machine.name}`,
      cell: sheet?.rows[row]?.cells[column],
      fits: '',
      chosen: bench.boxes.some((b) => b.machineId === machine.id && b.profileId === profile?.id),
    };
  };
  return (
    <SheetGrid
      label="Machines and systems"
      heads={heads}
      machines={machines}
      at={at}
      onAt={onAt}
      cell={cell}
    />
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
  const judged = useMemo(
    () => (machine && profile ? judge(machineView(bench, machine), profile) : undefined),
    [bench, machine, profile],
  );
  if (!judged || !machine || !profile) return <LedgerAside>{null}</LedgerAside>;
  return (
    <LedgerAside>
      <LedgerGroup title={`${judged.profile} on ${machine.name}`}>
        <p>
          <FitMark verdict={judged.verdict} />
          <Sub>
            {judged.release.version}, {judged.release.channel}
          </Sub>
        </p>
        <Findings machine={machine} profile={profile} judged={judged} answers />
        <OtherWays bench={bench} ways={otherWays(machineView(bench, machine), profile, judged)} />
        <RuleTable judged={judged} />
      </LedgerGroup>
    </LedgerAside>
  );
}
