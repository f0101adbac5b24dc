import { storesIn, type Bench, type Machine } from '../model/bench';
import { factDefinition, factKeys, type FactKey } from '../model/facts';
import { formatIec } from '../units/bytes';
import { factText } from './text';
import type { Survey } from './types';

/** One difference between what was surveyed before and now, as text. */
export interface SurveyChange {
  what: string;
  was: string;
  now: string;
  /** What a person entered by hand stays and wins over the new survey. */
  byHand: boolean;
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

function factChange(machine: Machine, survey: Survey, key: FactKey): SurveyChange | undefined {
  const before = machine.facts[key]?.surveyed?.value;
  const now = survey.facts[key]?.value;
  if (same(before, now)) return undefined;
  const words = (value: typeof now): string => (value === undefined ? 'not told' : factText(key, value));
  return {
    what: factDefinition(key).label,
    was: words(before),
    now: words(now),
    byHand: machine.facts[key]?.entered !== undefined,
  };
}

/** Slots told by two surveys, in one line: “one slot now used”. */
function slotWords(machine: Machine, survey: Survey): SurveyChange | undefined {
  const before = machine.facts['memory.free']?.surveyed?.value;
  const now = survey.facts['memory.free']?.value;
  if (typeof before !== 'number' || typeof now !== 'number' || before === now) return undefined;
  const by = Math.abs(before - now);
  const noun = by === 1 ? 'one slot' : `${by} slots`;
  return {
    what: 'Memory slots',
    was: `${before} free`,
    now: `${noun} now ${now < before ? 'used' : 'free'}`,
    byHand: false,
  };
}

/** Drives that came, went or changed their size, told by serial. Drives without one are not followed. */
function driveChanges(bench: Bench, machine: Machine, survey: Survey): SurveyChange[] {
  const here = storesIn(bench, machine.id).filter((s) => s.serial !== null);
  const seen = survey.drives.filter((d) => d.serial !== null);
  const out: SurveyChange[] = [];
  const change = (what: string, was: string, now: string): void =>
    void out.push({ what, was, now, byHand: false });
  for (const d of seen) {
    const old = here.find((s) => s.serial === d.serial);
    const what = `Drive …${d.serial?.slice(-4)}`;
    if (!old) change(what, 'not here', `${formatIec(d.bytes)}, ${d.model ?? d.name}`);
    else if (old.bytes !== d.bytes) change(what, formatIec(old.bytes), formatIec(d.bytes));
  }
  for (const s of here)
    if (!seen.some((d) => d.serial === s.serial))
      change(`Drive …${s.serial?.slice(-4)}`, `${formatIec(s.bytes)}, ${s.name}`, 'not seen any more');
  return out;
}

/** What a new survey would change in a machine that was surveyed before; empty where it says the same. */
export function compareSurvey(bench: Bench, machine: Machine, survey: Survey): SurveyChange[] {
  const slots = slotWords(machine, survey);
  const facts = factKeys
    .filter((k) => !(slots && k === 'memory.free'))
    .flatMap((k) => factChange(machine, survey, k) ?? []);
  const at = facts.findIndex((f) => f.what === factDefinition('memory.bytes').label);
  if (slots) facts.splice(at < 0 ? facts.length : at + 1, 0, slots);
  return [...facts, ...driveChanges(bench, machine, survey)];
}
