import { factKeys, type FactKey, type FactValue } from './facts';
import type { Machine } from './shelf';

/** The value of a fact that counts, and where it comes from. */
export interface KnownFact {
  value: FactValue;
  origin: 'entered' | 'surveyed' | 'assumed';
  source: string;
}

/** The value that counts: entered by hand before surveyed, surveyed before assumed. */
export function knownFact(machine: Pick<Machine, 'facts'>, key: FactKey): KnownFact | undefined {
  const record = machine.facts[key];
  if (record?.entered) return { value: record.entered.value, origin: 'entered', source: 'entered by hand' };
  if (record?.surveyed)
    return { value: record.surveyed.value, origin: 'surveyed', source: record.surveyed.source };
  if (record?.assumed)
    return { value: record.assumed.value, origin: 'assumed', source: record.assumed.because };
  return undefined;
}

/** A fact that counts as a number; null where it is none, or nothing is known. */
export function knownNumber(machine: Pick<Machine, 'facts'> | undefined, key: FactKey): number | null {
  const value = machine && knownFact(machine, key)?.value;
  return typeof value === 'number' ? value : null;
}

/** A fact that counts as yes or no; null where it is neither, or nothing is known. */
export function knownFlag(machine: Pick<Machine, 'facts'> | undefined, key: FactKey): boolean | null {
  const value = machine && knownFact(machine, key)?.value;
  return typeof value === 'boolean' ? value : null;
}

/** A fact that counts as a text or one of several words; null where it is none, or nothing is known. */
export function knownText(machine: Pick<Machine, 'facts'> | undefined, key: FactKey): string | null {
  const value = machine && knownFact(machine, key)?.value;
  return typeof value === 'string' ? value : null;
}

/** What is known of a machine, whoever said it; `assumed` names what such machines only usually have. */
export interface KnownFacts {
  facts: Partial<Record<FactKey, FactValue>>;
  assumed: ReadonlySet<FactKey>;
}

/** All facts of a machine that are known or assumed, and which are only assumed. */
export function factsOf(machine: Machine): KnownFacts {
  const facts: KnownFacts['facts'] = {};
  const assumed = new Set<FactKey>();
  for (const key of factKeys) {
    const known = knownFact(machine, key);
    if (!known) continue;
    facts[key] = known.value;
    if (known.origin === 'assumed') assumed.add(key);
  }
  return { facts, assumed };
}
