import type { Solution } from '@zb/core/assign/solve';
import type { BriefSheet } from '@zb/core/system/sheet';
import type { Bench, Machine, Wish } from '@zb/core/model/bench';
import { memo } from 'react';
import { Word } from '../../ui/Button';
import { HazardMark } from '../../ui/Marks';
import { SheetGrid, type At, type CellAct, type CellProps } from './SheetGrid';

/** Machines × wishes, with the plan drawn on it. */
export const MatchTable = memo(function MatchTable({
  bench,
  machines,
  sheet,
  plan,
  at,
  onAt,
  onWish,
  acts,
}: {
  bench: Bench;
  machines: Machine[];
  sheet: BriefSheet | null;
  plan: Solution | undefined;
  at: At;
  onAt: (at: At) => void;
  onWish: (id: string) => void;
  acts: readonly CellAct[];
}) {
  const chosen = new Set(plan?.assignments.map((a) => `${a.machineId} ${a.wishId}`));
  const unmet = (w: Wish): boolean => plan !== undefined && !plan.assignments.some((a) => a.wishId === w.id);
  const heads = bench.wishes.map((w) => ({
    id: w.id,
    head: (
      <>
        <Word onClick={() => onWish(w.id)} title={`Change the wish “${w.name}”`} fontWeight="strong">
          {w.name}
        </Word>
        <span data-sub="">
          {w.purpose} · {w.importance}/5
        </span>
        {unmet(w) && <HazardMark grade="check" words="not met" />}
      </>
    ),
  }));
  const cell = (machine: Machine, row: number, column: number): CellProps => {
    const wish = bench.wishes[column];
    const brief = sheet ? (sheet.rows[row]?.cells[column] ?? null) : undefined;
    const inPlan = chosen.has(`${machine.id} ${wish?.id}`);
    return {
      title: `${wish?.name} on ${machine.name}${inPlan ? ', in the plan' : ''}`,
      cell: brief,
      fits: brief?.profile ?? '',
      chosen: inPlan,
      flag:
        wish?.pinned === machine.id ? 'pinned' : wish?.forbid.includes(machine.id) ? 'forbidden' : undefined,
      scored: true,
    };
  };
  return <SheetGrid label="Match sheet" {...{ heads, machines, at, onAt, cell, acts }} />;
});
