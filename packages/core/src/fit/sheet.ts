import { machinesOf, type Bench, type Machine, type Profile } from '../schema/bench';
import type { Weights } from '../schema/settings';
import type { Wish } from '../schema/wish';
import { judge, VERDICT_ORDER, type Judgement } from './judge';
import { partsFor } from './part';
import { score, type Score } from './score';
import { machineView, type MachineView } from './view';

/** The best system for a wish on a machine, with its score; every system of the purpose was judged. */
export interface Crossing {
  judged: Judgement;
  profile: Profile;
  score: Score;
}

/** The systems that could answer a wish: the one it names, or all of its purpose. */
export const systemsFor = (profiles: readonly Profile[], wish: Wish): Profile[] =>
  profiles.filter((p) => (wish.profileId === null ? p.purpose === wish.purpose : p.id === wish.profileId));

/** Judges all systems that could answer the wish and keeps the best; undefined where there is none. */
export function bestFor(
  view: MachineView,
  wish: Wish,
  profiles: readonly Profile[],
  weights: Weights,
): Crossing | undefined {
  const all = systemsFor(profiles, wish).map((profile): Crossing => {
    const judged = judge(view, profile, {}, wish);
    return { judged, profile, score: score(view, profile, weights, judged.cost) };
  });
  return all.sort(
    (a, b) =>
      VERDICT_ORDER.indexOf(a.judged.verdict) - VERDICT_ORDER.indexOf(b.judged.verdict) ||
      b.score.total - a.score.total,
  )[0];
}

export interface MatchRow {
  machine: Machine;
  view: MachineView;
  cells: (Crossing | undefined)[];
}

export interface MatchSheet {
  wishes: Wish[];
  rows: MatchRow[];
}

/** Every machine against every wish. */
export function matchSheet(bench: Bench): MatchSheet {
  const rows = machinesOf(bench).map((machine): MatchRow => {
    const view = machineView(bench, machine, partsFor(bench, machine.id));
    return {
      machine,
      view,
      cells: bench.wishes.map((w) => bestFor(view, w, bench.profiles, bench.settings.weights)),
    };
  });
  return { wishes: bench.wishes, rows };
}

/** Every machine against every system, for who has no wishes yet. */
export function systemSheet(bench: Bench): { machine: Machine; cells: Judgement[] }[] {
  return machinesOf(bench).map((machine) => {
    const view = machineView(bench, machine);
    return { machine, cells: bench.profiles.map((p) => judge(view, p)) };
  });
}

export function matchHeadline(sheet: MatchSheet): string {
  const total = sheet.wishes.length;
  if (sheet.rows.length === 0) return 'Which machine takes which purpose?';
  if (total === 0) return 'What do you want the machines for?';
  const has = (i: number, verdict: string): boolean =>
    sheet.rows.some((r) => r.cells[i]?.judged.verdict === verdict);
  const now = sheet.wishes.filter((_, i) => has(i, 'fits')).length;
  const after = sheet.wishes.filter((_, i) => has(i, 'fits after a change') && !has(i, 'fits')).length;
  return `${now} of ${total} wishes have a machine as it stands${after > 0 ? `, ${after} more after a change` : ''}`;
}
