import { knownFact } from '../model/known';
import type { Machine } from '../model/shelf';

/** Is it known to run from a battery? */
export const hasBattery = (machine: Pick<Machine, 'facts'>): boolean =>
  knownFact(machine, 'power.battery')?.value === true;
