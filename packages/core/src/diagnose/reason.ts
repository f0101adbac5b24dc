import { causeOf, type CauseCode } from './causes';
import { lookCodes, looks, seenAt, type Answered, type LookCode, type Moment, type Symptom } from './codes';

/** So often is an answer otherwise than its cause would have it: people err, and machines surprise. Common practice, no source. */
const ERRS = 0.03;

/** How likely each of some things is, by relative shares; with none of them named all alike. What is not named still happens. */
export function spread<T extends string>(
  of: readonly T[],
  shares: Readonly<Partial<Record<T, number>>> | undefined,
): Map<T, number> {
  const sum = of.reduce((n, x) => n + (shares?.[x] ?? 0), 0);
  return new Map(
    of.map((x) => [
      x,
      sum === 0 ? 1 / of.length : (1 - ERRS) * ((shares?.[x] ?? 0) / sum) + ERRS / of.length,
    ]),
  );
}

/** A cause with how likely it is before anything was seen, and what it shows on this box. */
export interface Suspect {
  cause: CauseCode;
  weight: number;
  shows: Readonly<Partial<Record<Symptom, number>>>;
}

/** A cause with its share of all that is left, 0 to 1. */
export interface Ranked {
  cause: CauseCode;
  share: number;
}

/** How likely an answer is if a cause is behind it. */
export const likelihood = (cause: CauseCode, look: LookCode, answer: string): number =>
  spread<string>(looks[look].answers, causeOf(cause).looks[look] ?? unconcerned(look)).get(answer) ?? 0;

/** What a look finds where the cause has nothing to do with it: the usual, most of the time. */
function unconcerned(look: LookCode): Record<string, number> | undefined {
  const { answers, usual } = looks[look];
  return usual === null
    ? undefined
    : Object.fromEntries(answers.map((a) => [a, a === usual ? USUAL : (1 - USUAL) / (answers.length - 1)]));
}
/** So often it is the usual. Common practice, no source. */
const USUAL = 0.85;

/** Causes by their shares after what was seen and answered (Bayes’ rule); none of them is ever ruled out. */
export function rank(
  suspects: readonly Suspect[],
  moment: Moment,
  seen: readonly Symptom[],
  answered: readonly Answered[],
): Ranked[] {
  const weighed = suspects.map(({ cause, weight, shows }) => {
    let w = weight;
    for (const s of seen) w *= spread(seenAt[moment], shows).get(s) ?? 0;
    for (const { look, answer } of answered) if (answer !== null) w *= likelihood(cause, look, answer);
    return { cause, w };
  });
  const sum = weighed.reduce((n, x) => n + x.w, 0);
  return weighed
    .map(({ cause, w }) => ({ cause, share: sum === 0 ? 0 : w / sum }))
    .sort((a, b) => b.share - a.share || (a.cause < b.cause ? -1 : 1));
}

/** Uncertainty over shares, in bits (Shannon 1948, §6). */
export const entropy = (shares: readonly number[]): number =>
  shares.reduce((h, p) => (p > 0 ? h - p * Math.log2(p) : h), 0);

/** What a look is expected to tell, in bits: the uncertainty now less the mean uncertainty after each answer. */
export function expectedBits(ranked: readonly Ranked[], look: LookCode): number {
  const before = entropy(ranked.map((r) => r.share));
  let after = 0;
  for (const answer of looks[look].answers) {
    const joint = ranked.map((r) => r.share * likelihood(r.cause, look, answer));
    const p = joint.reduce((n, x) => n + x, 0);
    if (p > 0) after += p * entropy(joint.map((x) => x / p));
  }
  return before - after;
}

/** A look that tells less than this is not worth the walk, bits. Common practice, no source. */
const LEAST_BITS = 0.04;
/** From this share a cause is taken for the one. Common practice, no source. */
const ENOUGH = 0.9;

/** What to look at next: the look that tells most; among such as tell as much, the quickest. */
export interface NextLook {
  look: LookCode;
  bits: number;
}

/** The next look, or null where a cause is left or no look tells anything more. */
export function nextLook(
  ranked: readonly Ranked[],
  moment: Moment,
  answered: readonly Answered[],
): NextLook | null {
  if ((ranked[0]?.share ?? 1) >= ENOUGH) return null;
  const asked = new Set(answered.map((a) => a.look));
  const offered = lookCodes
    .filter((l) => !asked.has(l) && looks[l].moments.includes(moment))
    .map((look) => ({ look, bits: expectedBits(ranked, look) }))
    .filter((o) => o.bits >= LEAST_BITS);
  const most = Math.max(0, ...offered.map((o) => o.bits));
  // To a hundredth of a bit they tell the same.
  const [best] = offered
    .filter((o) => o.bits >= most - 0.01)
    .sort((a, b) => looks[a.look].minutes - looks[b.look].minutes);
  return best ?? null;
}
