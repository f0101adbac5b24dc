import { formatIec } from '../units/bytes';
import type { FactKey } from '../model/facts';
import type { Profile, Release, Variant } from '../model/profile';
import type { Wish } from '../model/wish';
import type { Reader } from './places';

export type RuleOutcome = 'meets' | 'change' | 'no' | 'ask';

/** What parts would have to bring. Bytes for memory are what is missing after the firmware's share. */
export type PartNeed =
  | { kind: 'memory'; bytes: number }
  | { kind: 'boot'; bytes: number }
  /** Drives to add in all, the boot drive among them where that is missing too. */
  | { kind: 'drives'; count: number }
  | { kind: 'ports'; count: number }
  | { kind: 'wired'; count: number };

/** A setting that mends a finding, with the fact as it is afterwards. */
export interface SettingRepair {
  kind: 'setting';
  text: string;
  set: FactKey;
  value: string;
}

export interface RuleFinding {
  rule: string;
  outcome: RuleOutcome;
  because: string;
  /** Short form for a crossing of the match sheet. */
  short: string;
  /** Need against what is there: “needs 8 GiB, has 15.5 GiB”. */
  margin?: string;
  /** What is there as a multiple of what is needed: the nearer to 1, the tighter. */
  slack?: number;
  /** The fact to find out, where the outcome is "ask". */
  missing?: FactKey;
  /** How it is mended, in words. */
  repair?: string;
  needs?: PartNeed[];
  setting?: SettingRepair;
  /** A limit of the trade rather than of the machine: it can be set aside with a reason. */
  soft?: boolean;
  /** Set where the limit is the wish's and not the system's. */
  ofWish?: boolean;
  /** The reason it was set aside for. */
  overruled?: string;
}

export interface Wanted {
  profile: Profile;
  release: Release;
  variant: Variant;
  /** Where it is to stand and what is wanted of it; absent where only the system is judged. */
  wish?: Wish;
}

export type Rule = (machine: Reader, wanted: Wanted) => RuleFinding;

export const finding = (
  rule: string,
  outcome: RuleOutcome,
  short: string,
  because: string,
  more: Partial<RuleFinding> = {},
): RuleFinding => ({ rule, outcome, short, because, ...more });

/** Nothing is asked of the machine by this rule. */
export const idle = (rule: string, because: string): RuleFinding => finding(rule, 'meets', '', because);

export const ask = (rule: string, missing: FactKey, what: string): RuleFinding =>
  finding(rule, 'ask', `${what}?`, `${what} is not known.`, { missing });

/** Need against what is there, in bytes. */
export const byteMargin = (need: number, have: number): Pick<RuleFinding, 'margin' | 'slack'> => ({
  margin: `needs ${formatIec(need)}, has ${formatIec(have)}`,
  slack: have / need,
});
/** Need against what is there, counted. */
export const countMargin = (need: number, have: number): Pick<RuleFinding, 'margin' | 'slack'> => ({
  margin: `needs ${need}, has ${have}`,
  slack: need > 0 ? have / need : 10,
});

export const plural = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;
