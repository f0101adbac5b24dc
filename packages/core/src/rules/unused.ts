import { sharedSpans, withinSpans, type Spans } from '../units/spans';
import type { Judged } from './fates';
import type { Step } from './flatten';
import { packetStates, type Field, type Rule } from './ruleset';

/** A rule that does nothing, and why. */
export interface Unused {
  rule: string;
  /** `meets nothing`: no packet is like that. `never acts`: what stands before takes every packet it meets. `not so far`: it counted none yet. */
  why: 'meets nothing' | 'never acts' | 'not so far';
  /** Rules that take its packets before it. */
  before: string[];
  /** They all do what it would have done. */
  alike: boolean;
}

const overlaps = (a: Step, b: Step): boolean =>
  (!a.iif || !b.iif || a.iif.some((n) => b.iif?.includes(n))) &&
  (Object.entries(a.spans) as [Field, Spans][]).every(([f, s]) => {
    const other = b.spans[f];
    return other === undefined || sharedSpans(s, other).length > 0;
  });

const covers = (a: Step, b: Step): boolean =>
  (!a.iif || (b.iif?.every((n) => a.iif?.includes(n)) ?? false)) &&
  (Object.entries(a.spans) as [Field, Spans][]).every(([f, s]) => {
    const other = b.spans[f];
    return other !== undefined && withinSpans(other, s);
  });

const decides = (s: Step): boolean => s.act.kind === 'end' || s.act.kind === 'skip' || s.act.kind === 'dnat';
const whatOf = (r: Rule | undefined): string => JSON.stringify(r?.verdict ?? null);
/** The loopback is no port of a plan; rules about it are met all the same. */
const aboutLoopback = (r: Rule): boolean =>
  r.when.some((c) => [c.iif, c.oif].some((n) => n?.names.includes('lo')));

/**
 * Rules no packet comes to, exactly: those no diagram marked as met. What every gate has is left out, because it stands there
 * for packets that other plans have.
 */
export function unusedRules(judged: Judged): Unused[] {
  const rules = new Map(judged.gate.ruleset.chains.flatMap((c) => c.rules.map((r) => [r.id, r] as const)));
  const counting = [...rules.values()].some((r) => (r.counted ?? 0) > 0);
  const out: Unused[] = [];
  for (const rule of rules.values()) {
    if (rule.from?.what === 'usual' || rule.from?.what === 'zone' || aboutLoopback(rule)) continue;
    if (judged.hit.has(rule.id)) {
      if (counting && rule.counted === 0)
        out.push({ rule: rule.id, why: 'not so far', before: [], alike: false });
      continue;
    }
    if (!judged.possible.has(rule.id)) {
      out.push({ rule: rule.id, why: 'meets nothing', before: [], alike: false });
      continue;
    }
    const before = takersOf(judged, rule);
    out.push({
      rule: rule.id,
      why: before.length > 0 ? 'never acts' : 'meets nothing',
      before,
      alike: before.every((b) => whatOf(rules.get(b)) === whatOf(rule)),
    });
  }
  return out;
}

/** Rules before one that take its packets: one that takes all of them by itself, else every one that takes some. */
function takersOf(judged: Judged, rule: Rule): string[] {
  const names = new Set<string>();
  // The first state a rule is about tells what stands before it; the others repeat it.
  const steps = packetStates
    .map((s) => judged.steps.get(s) ?? [])
    .find((list) => list.some((s) => s.rule === rule.id));
  steps?.forEach((step, i) => {
    if (step.rule !== rule.id) return;
    const earlier = steps
      .slice(0, i)
      .filter((s) => s.rule !== null && s.rule !== rule.id && decides(s) && overlaps(s, step));
    const whole = earlier.find((s) => s.flags.length === 0 && covers(s, step));
    for (const s of whole ? [whole] : earlier) if (s.rule !== null) names.add(s.rule);
  });
  return [...names].slice(0, 20);
}
