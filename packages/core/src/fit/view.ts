import type { Bench, Machine, Store } from '../schema/bench';
import { drivesIn, storesOf } from '../schema/bench';
import type { FactKey, FactValue } from '../schema/facts';

export interface KnownFact {
  value: FactValue;
  origin: 'entered' | 'surveyed';
  source: string;
}

/** The value that counts: what a person entered wins over what the survey said. */
export function knownFact(machine: Pick<Machine, 'facts'>, key: FactKey): KnownFact | undefined {
  const record = machine.facts[key];
  if (record?.entered) return { value: record.entered.value, origin: 'entered', source: 'entered by hand' };
  if (record?.surveyed)
    return { value: record.surveyed.value, origin: 'surveyed', source: record.surveyed.source };
  return undefined;
}

export type DriveView = Pick<Store, 'name' | 'bytes' | 'transport' | 'removable' | 'matters'>;

/** What judging a machine needs, free of where it came from: the bench, or a file given to the command line. */
export interface MachineView {
  name: string;
  facts: Partial<Record<FactKey, FactValue>>;
  drives: DriveView[];
  /** Loose drives on the shelf that could be put in. */
  spares: DriveView[];
}

export function machineView(bench: Bench, machine: Machine): MachineView {
  const facts: MachineView['facts'] = {};
  for (const key of Object.keys(machine.facts) as FactKey[]) {
    const known = knownFact(machine, key);
    if (known) facts[key] = known.value;
  }
  return {
    name: machine.name,
    facts,
    drives: drivesIn(bench, machine.id),
    spares: storesOf(bench).filter((s) => s.kind === 'drive' && s.in === null && !s.matters),
  };
}
