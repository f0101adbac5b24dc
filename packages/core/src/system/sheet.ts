import { machinesOf, type Bench, type Machine, type Profile } from '../model/bench';
import type { Weights } from '../model/settings';
import type { Wish } from '../model/wish';
import type { RuleFinding } from './finding';
import { canTake, judge, VERDICT_ORDER, type Judgement } from './judge';
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

/** A crossing as the sheet shows it; the full reasoning is worked out for the one that is looked at. */
export interface BriefCell {
  verdict: Judgement['verdict'];
  /** The finding that decides; null where none is worth naming. */
  binding: RuleFinding | null;
  profile: string;
  /** Points from 0 to 100; null where the machine does not take it. */
  score: number | null;
}

/** The match sheet: a row per machine, a cell per wish or system; null where no system could answer. */
export interface BriefSheet {
  by: 'wishes' | 'systems';
  rows: { machineId: string; cells: (BriefCell | null)[] }[];
}

const brief = (c: Crossing | undefined): BriefCell | null =>
  c === undefined
    ? null
    : {
        verdict: c.judged.verdict,
        binding: c.judged.binding[0] ?? null,
        profile: c.profile.name,
        score: canTake(c.judged.verdict) ? c.score.total : null,
      };

/** The crossing of one machine and one wish, with all its reasons. */
export const crossingOf = (bench: Bench, machine: Machine, wish: Wish): Crossing | undefined =>
  bestFor(machineView(bench, machine), wish, bench.profiles, bench.settings.weights);

/** Every machine against every wish, or against every system. Takes long on a full shelf: for a worker. */
export function briefSheet(bench: Bench, by: BriefSheet['by']): BriefSheet {
  const { weights } = bench.settings;
  const rows = machinesOf(bench).map((machine) => {
    const view = machineView(bench, machine);
    const cells =
      by === 'wishes'
        ? bench.wishes.map((w) => brief(bestFor(view, w, bench.profiles, weights)))
        : bench.profiles.map((profile) => {
            const judged = judge(view, profile);
            return brief({ judged, profile, score: score(view, profile, weights, judged.cost) });
          });
    return { machineId: machine.id, cells };
  });
  return { by, rows };
}
