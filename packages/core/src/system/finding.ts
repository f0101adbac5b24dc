import type { FactKey } from '../model/facts';
import type { Profile, Release, Variant } from '../model/profile';
import type { Wish } from '../model/wish';
import type { Reader } from './places';
import type { FitReason, Margin, RuleName } from './reason';
import type { PartNeed, Repair, SettingRepair } from './repairs';

/** What a rule answers: it holds, it holds after a change, it fails, or a fact is wanted first. */
export type RuleOutcome = 'meets' | 'change' | 'no' | 'ask';

/** What one rule found, as data; words/fit makes the sentences. */
export interface RuleFinding {
  rule: RuleName;
  outcome: RuleOutcome;
  reason: FitReason;
  margin?: Margin;
  /** What is there as a multiple of what is needed: the nearer to 1, the tighter. */
  slack?: number;
  /** The rule asks nothing here, or nothing stands in its way: no reason to name it. */
  idle?: true;
  /** The fact to find out, where the outcome is "ask". */
  missing?: FactKey;
  /** The assumed fact the rule leaned on: what such machines usually have. */
  assumed?: FactKey;
  needs?: PartNeed[];
  setting?: SettingRepair;
  /** What mends it, where the whole can be mended. */
  mends?: Repair[];
  /** Set where another release or variant is taken because of this finding. */
  instead?: { release: string | null; variant: string | null };
  /** A limit of the trade rather than of the machine: it can be set aside with a reason. */
  soft?: boolean;
  /** Set where the limit is the wish's and not the system's. */
  ofWish?: boolean;
  /** The reason it was set aside for. */
  overruled?: string;
}

/** What a machine is judged for: a system in one release and variant, and the wish where there is one. */
export interface Wanted {
  profile: Profile;
  release: Release;
  variant: Variant;
  /** Where it is to stand and what is wanted of it; absent where only the system is judged. */
  wish?: Wish;
}

/** One rule of fit. It reads facts through the reader alone, which remembers what was only assumed. */
export type Rule = (machine: Reader, wanted: Wanted) => RuleFinding;

/** A finding by its parts. */
export const finding = (
  rule: RuleName,
  outcome: RuleOutcome,
  reason: FitReason,
  more: Partial<RuleFinding> = {},
): RuleFinding => ({ rule, outcome, reason, ...more });

/** Nothing is asked of the machine by this rule. */
export const idle = (rule: RuleName, reason: FitReason = { code: 'nothing asked' }): RuleFinding =>
  finding(rule, 'meets', reason, { idle: true });

/** The rule cannot answer before this fact is known. */
export const ask = (rule: RuleName, missing: FactKey): RuleFinding =>
  finding(rule, 'ask', { code: 'fact not known', fact: missing }, { missing });

/** Need against what is there, in bytes. */
export const byteMargin = (need: number, have: number): Pick<RuleFinding, 'margin' | 'slack'> => ({
  margin: { of: 'bytes', need, have },
  slack: have / need,
});
/** Need against what is there, counted. */
export const countMargin = (need: number, have: number): Pick<RuleFinding, 'margin' | 'slack'> => ({
  margin: { of: 'count', need, have },
  slack: need > 0 ? have / need : 10,
});
