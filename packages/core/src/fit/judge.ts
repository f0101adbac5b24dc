import type { Bench, Machine, Profile } from '../schema/bench';
import { factDefinition, type FactKey } from '../schema/facts';
import { rules, type Finding } from './rules';
import { machineView, type MachineView } from './view';

export type Verdict = 'fits' | 'fits after a change' | 'cannot say yet' | 'does not fit';

export interface Judgement {
  profileId: string;
  profile: string;
  verdict: Verdict;
  /** The findings that decide, in order of weight; for "fits" the tightest that hold. */
  binding: Finding[];
  /** Every finding, for the open reasoning. */
  all: Finding[];
  /** Facts to find out, each with the question to answer at the machine. */
  missing: { fact: FactKey; ask: string }[];
  /** The one reason a crossing shows. */
  short: string;
}

const ORDER: Verdict[] = ['fits', 'fits after a change', 'cannot say yet', 'does not fit'];

/** Judges one profile for one machine: a single "no" decides, then what is unknown, then what needs a change. */
export function judge(machine: MachineView, profile: Profile): Judgement {
  const all = rules.map((rule) => rule(machine, profile));
  const of = (outcome: Finding['outcome']): Finding[] => all.filter((f) => f.outcome === outcome);
  const [no, asked, change] = [of('no'), of('ask'), of('change')];
  const verdict: Verdict =
    no.length > 0
      ? 'does not fit'
      : asked.length > 0
        ? 'cannot say yet'
        : change.length > 0
          ? 'fits after a change'
          : 'fits';
  const binding =
    no.length > 0
      ? no
      : asked.length > 0
        ? [...asked, ...change]
        : change.length > 0
          ? change
          : of('meets').filter((f) => f.short !== '');
  const missing = asked.flatMap((f) =>
    f.missing ? [{ fact: f.missing, ask: factDefinition(f.missing).ask }] : [],
  );
  return {
    profileId: profile.id,
    profile: profile.name,
    verdict,
    binding,
    all,
    missing,
    short: binding[0]?.short ?? '',
  };
}

/** All profiles of the bench for one machine: best first, the box's own purpose before others. */
export function judgeAll(bench: Bench, machine: Machine, purpose?: string): (Judgement & { of: Profile })[] {
  const view = machineView(bench, machine);
  return bench.profiles
    .map((p) => ({ ...judge(view, p), of: p }))
    .sort(
      (a, b) =>
        Number(b.of.purpose === purpose) - Number(a.of.purpose === purpose) ||
        ORDER.indexOf(a.verdict) - ORDER.indexOf(b.verdict) ||
        a.profile.localeCompare(b.profile),
    );
}
