import type { Bench, Machine, Profile } from '../model/bench';
import { factDefinition, type FactKey } from '../model/facts';
import type { Release, Variant } from '../model/profile';
import type { RuleFinding, Wanted } from './finding';
import { optionOf, releasesInOrder, type OptionChoice } from './options';
import { lacksOf, partPlan, planCost } from './repair';
import type { Repair } from './repairs';
import { Reader } from './places';
import { rules } from './rules';
import { machineView, type MachineView } from './view';
import { overruleKey, wishRules } from './wishRules';
import type { Wish } from '../model/wish';

/** Whether a machine takes a system. */
export type FitVerdict = 'fits' | 'fits after a change' | 'cannot say yet' | 'does not fit';

/** What the rules make of one system on one machine, as data. */
export interface Judgement {
  profileId: string;
  profile: string;
  verdict: FitVerdict;
  /** The findings that decide, in order of weight; for "fits" the tightest that hold. */
  binding: RuleFinding[];
  /** Every finding, for the open reasoning. */
  all: RuleFinding[];
  /** Facts to find out, each with the question to answer at the machine. */
  missing: { fact: FactKey; ask: string }[];
  /** The release and variant judged. */
  release: Release;
  variant: Variant;
  /** The smallest changes after which it fits, cheapest first; empty where it fits or cannot. */
  repairs: Repair[];
  /** What the repairs cost; null where a purchase has no price yet. */
  cost: number | null;
  /** What it would be if the assumed facts were true; the verdict itself where none was leaned on. */
  likely: FitVerdict;
}

/** Best first. */
export const VERDICT_ORDER: readonly FitVerdict[] = [
  'fits',
  'fits after a change',
  'cannot say yet',
  'does not fit',
];

/** Whether a machine can take a system, as it stands or after a change. */
export const canTake = (verdict: FitVerdict): boolean =>
  verdict === 'fits' || verdict === 'fits after a change';

const verdictOf = (all: readonly RuleFinding[]): FitVerdict => {
  const has = (outcome: RuleFinding['outcome']): boolean => all.some((f) => f.outcome === outcome);
  if (has('no')) return 'does not fit';
  if (has('ask')) return 'cannot say yet';
  return has('change') ? 'fits after a change' : 'fits';
};

/** A soft limit that was set aside holds; it keeps what it found and why it was set aside. */
function setAside(view: MachineView, { profile, wish }: Wanted, f: RuleFinding): RuleFinding {
  if (!f.soft || f.outcome !== 'no') return f;
  const of = f.ofWish && wish ? overruleKey(wish) : profile.id;
  const found = view.overruled?.find((o) => o.profileId === of && o.rule === f.rule);
  return found
    ? {
        ...f,
        outcome: 'meets',
        overruled: found.reason,
      }
    : f;
}

/** Runs every rule; a finding that leaned on an assumed fact becomes the question for that fact. */
export function findings(
  view: MachineView,
  wanted: Wanted,
  assumed: 'note' | 'trust' = 'note',
): RuleFinding[] {
  const all = wanted.wish ? [...rules, ...wishRules] : rules;
  return all.map((rule) => {
    const reader = new Reader(view, assumed);
    const found = setAside(view, wanted, rule(reader, wanted));
    const [fact] = reader.leaned;
    if (fact === undefined || found.outcome === 'ask') return found;
    return {
      rule: found.rule,
      outcome: 'ask',
      reason: found.reason,
      ...(found.ofWish ? { ofWish: true } : {}),
      assumed: fact,
      missing: fact,
    };
  });
}

interface Evaluated extends Wanted {
  all: RuleFinding[];
  verdict: FitVerdict;
}

const evaluate = (view: MachineView, wanted: Wanted): Evaluated => {
  const all = findings(view, wanted);
  return { ...wanted, all, verdict: verdictOf(all) };
};

/** Where the release or variant taken first does not do, the first other one that does; it then counts as a repair. */
function better(view: MachineView, profile: Profile, first: Evaluated): Evaluated | undefined {
  if (first.verdict !== 'does not fit') return undefined;
  const others = releasesInOrder(profile).flatMap((release) =>
    profile.variants
      .filter((variant) => release !== first.release || variant !== first.variant)
      .map((variant) => evaluate(view, { ...first, release, variant })),
  );
  const near = (e: Evaluated): number =>
    Number(e.release !== first.release) + Number(e.variant !== first.variant);
  return others
    .filter((e) => e.verdict !== 'does not fit')
    .sort(
      (a, b) => VERDICT_ORDER.indexOf(a.verdict) - VERDICT_ORDER.indexOf(b.verdict) || near(a) - near(b),
    )[0];
}

function switches(from: Evaluated, to: Evaluated): Repair[] {
  const out: Repair[] = [];
  if (from.release !== to.release)
    out.push({
      kind: 'release',
      releaseId: to.release.id,
      version: to.release.version,
      channel: to.release.channel,
    });
  if (from.variant !== to.variant)
    out.push({ kind: 'variant', variantId: to.variant.id, name: to.variant.name });
  return out;
}

/** Why the first option was left, in the shape of a finding. */
function switched(from: Evaluated, to: Evaluated, mends: Repair[]): RuleFinding[] {
  const reason = from.all.find((f) => f.outcome === 'no');
  if (!reason) return [];
  return [
    {
      rule: reason.rule,
      outcome: 'change',
      reason: reason.reason,
      mends,
      instead: {
        release: from.release === to.release ? null : to.release.version,
        variant: from.variant === to.variant ? null : to.variant.name,
      },
    },
  ];
}

/** Puts to each finding the repairs that mend it. */
function mended(all: readonly RuleFinding[], parts: readonly Repair[]): RuleFinding[] {
  const role = { memory: ['memory'], boot: ['drive'], drives: ['drive'], ports: ['ports'], wired: ['wired'] };
  const taken = new Set<Repair>();
  return all.map((f) => {
    if (f.outcome !== 'change') return f;
    if (!f.needs) return f.setting ? { ...f, mends: [f.setting] } : f;
    const roles = f.needs.flatMap((n) => role[n.kind]);
    const mends = parts.filter((r) => {
      const of = r.kind === 'part' ? r.role : r.kind === 'buy' ? role[r.gives.kind][0] : undefined;
      return of !== undefined && roles.includes(of) && !taken.has(r);
    });
    for (const r of mends) taken.add(r);
    return mends.length > 0 ? { ...f, mends } : f;
  });
}

/** Judges one profile for one machine: a single "no" decides, then what is unknown, then what needs a change. */
export function judge(
  view: MachineView,
  profile: Profile,
  choice: OptionChoice = {},
  wish?: Wish,
): Judgement {
  const first = evaluate(view, { profile, ...optionOf(profile, choice), ...(wish ? { wish } : {}) });
  const other = better(view, profile, first);
  const at = other ?? first;
  const switching = other ? switches(first, other) : [];
  const changed = at.verdict === 'fits' && other ? 'fits after a change' : at.verdict;
  const fitting = changed === 'fits after a change';
  const { needs } = profile;
  const parts = fitting ? partPlan(view, lacksOf(at.all), needs) : [];
  const settings = fitting
    ? at.all.flatMap((f) => (f.outcome === 'change' && f.setting ? [f.setting] : []))
    : [];
  const all = [...(other ? switched(first, other, switching) : []), ...mended(at.all, parts)];
  const of = (...outcomes: RuleFinding['outcome'][]): RuleFinding[] =>
    outcomes.flatMap((o) => all.filter((f) => f.outcome === o));
  const binding =
    changed === 'does not fit'
      ? of('no')
      : changed === 'cannot say yet'
        ? of('ask', 'change')
        : changed === 'fits after a change'
          ? of('change')
          : of('meets')
              .filter((f) => f.idle !== true)
              .sort((a, b) => (a.slack ?? 9) - (b.slack ?? 9));
  const repairs = [...switching, ...settings, ...parts];
  const leaned = (view.assumed?.size ?? 0) > 0 && changed === 'cannot say yet';
  return {
    profileId: profile.id,
    profile: profile.name,
    verdict: changed,
    binding,
    all,
    missing: of('ask').flatMap((f) =>
      f.missing ? [{ fact: f.missing, ask: factDefinition(f.missing).ask }] : [],
    ),
    release: at.release,
    variant: at.variant,
    repairs,
    cost: planCost(repairs),
    likely: leaned ? verdictOf(findings(view, at, 'trust')) : changed,
  };
}

/**
 * Other ways to mend the same lacks, after the cheapest: each time the parts named before are left aside. Each is a list
 * of repairs with what it costs (null where a price is missing); at most `most`, dearer ones later.
 */
export function otherWays(
  view: MachineView,
  profile: Profile,
  first: Judgement,
  wish?: Wish,
  most = 3,
): { repairs: Repair[]; cost: number | null }[] {
  const choice = { releaseId: first.release.id, variantId: first.variant.id };
  const partsOf = (repairs: readonly Repair[]): string[] =>
    repairs.flatMap((r) => (r.kind === 'part' ? [r.part.id] : []));
  const out: { repairs: Repair[]; cost: number | null }[] = [];
  let used = partsOf(first.repairs);
  let left = view;
  while (out.length < most && used.length > 0) {
    const gone = new Set(used);
    left = { ...left, parts: left.parts.filter((p) => !gone.has(p.id)) };
    const next = judge(left, profile, choice, wish);
    if (next.verdict !== 'fits after a change') break;
    out.push({ repairs: next.repairs, cost: next.cost });
    used = partsOf(next.repairs);
  }
  return out;
}

/** All profiles of the bench for one machine: best first, the box's own purpose before others. */
export function judgeAll(
  bench: Bench,
  machine: Machine,
  purpose?: string,
  chosen?: { profileId: string | null } & OptionChoice,
): (Judgement & { of: Profile })[] {
  const view = machineView(bench, machine);
  return bench.profiles
    .map((p) => ({ ...judge(view, p, chosen?.profileId === p.id ? chosen : {}), of: p }))
    .sort(
      (a, b) =>
        Number(b.of.purpose === purpose) - Number(a.of.purpose === purpose) ||
        VERDICT_ORDER.indexOf(a.verdict) - VERDICT_ORDER.indexOf(b.verdict) ||
        a.profile.localeCompare(b.profile),
    );
}
