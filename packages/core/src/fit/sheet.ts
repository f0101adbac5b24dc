import { isMachine } from '../schema/shelf';
import type { Bench, Machine, Profile } from '../schema/bench';
import { judge, type Judgement } from './judge';
import { machineView } from './view';

export interface MatchSheet {
  profiles: Profile[];
  rows: { machine: Machine; cells: (Judgement & { chosen: boolean })[] }[];
}

/** Every machine against every profile, with what the boxes have chosen already. */
export function matchSheet(bench: Bench): MatchSheet {
  const rows = bench.items.filter(isMachine).map((machine) => {
    const view = machineView(bench, machine);
    const cells = bench.profiles.map((p) => ({
      ...judge(view, p),
      chosen: bench.boxes.some((b) => b.machineId === machine.id && b.profileId === p.id),
    }));
    return { machine, cells };
  });
  return { profiles: bench.profiles, rows };
}

export function matchHeadline(sheet: MatchSheet): string {
  const total = sheet.profiles.length;
  if (total === 0 || sheet.rows.length === 0) return 'Which machine takes which purpose?';
  const now = sheet.profiles.filter((_, i) => sheet.rows.some((r) => r.cells[i]?.verdict === 'fits')).length;
  const after = sheet.profiles.filter(
    (_, i) =>
      sheet.rows.some((r) => r.cells[i]?.verdict === 'fits after a change') &&
      !sheet.rows.some((r) => r.cells[i]?.verdict === 'fits'),
  ).length;
  return `${now} of ${total} systems fit a machine as it stands${after > 0 ? `, ${after} more after a change` : ''}`;
}
