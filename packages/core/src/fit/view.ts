import type { Bench, Machine, Store } from '../schema/bench';
import { drivesIn } from '../schema/bench';
import { factKeys, type FactKey, type FactValue } from '../schema/facts';
import { partsFor, type Part } from './part';

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

export type DriveView = Pick<Store, 'name' | 'bytes' | 'transport' | 'removable' | 'matters'> &
  Partial<Pick<Store, 'id' | 'kind' | 'shape' | 'm2'>>;

/** A limit set aside with a reason, for one profile (or, as `wish:ID`, for one wish). */
export interface Overruled {
  profileId: string;
  rule: string;
  reason: string;
}

/** What judging a machine needs, free of where it came from: the bench, or a file given to the command line. */
export interface MachineView {
  id?: string;
  name: string;
  form?: Machine['form'];
  facts: Partial<Record<FactKey, FactValue>>;
  /** Facts that are only what such machines usually have. */
  assumed?: ReadonlySet<FactKey>;
  drives: DriveView[];
  /** Bytes of each module in it, where the survey listed them. */
  modules?: readonly number[];
  /** Loose parts of the shelf, and parts with a price that could be bought. */
  parts: Part[];
  overruled?: readonly Overruled[];
}

export function factsOf(machine: Machine): Pick<MachineView, 'facts' | 'assumed'> {
  const facts: MachineView['facts'] = {};
  const assumed = new Set<FactKey>();
  for (const key of factKeys) {
    const known = knownFact(machine, key);
    if (!known) continue;
    facts[key] = known.value;
    if (known.origin === 'assumed') assumed.add(key);
  }
  return { facts, assumed };
}

/** A machine of the bench as the rules see it; parts put aside for another box are not offered. */
export function machineView(
  bench: Bench,
  machine: Machine,
  parts = partsFor(bench, machine.id),
): MachineView {
  const modules = machine.details?.modules.flatMap((m) => (m.bytes ? [m.bytes] : []));
  return {
    id: machine.id,
    name: machine.name,
    form: machine.form,
    ...factsOf(machine),
    drives: drivesIn(bench, machine.id),
    ...(modules && modules.length > 0 ? { modules } : {}),
    parts,
    overruled: machine.overruled,
  };
}
