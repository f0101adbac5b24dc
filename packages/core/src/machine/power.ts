import { knownFact } from '../model/known';
import type { Machine } from '../model/shelf';

/** Is it known to run from a battery? */
export const hasBattery = (machine: Pick<Machine, 'facts'>): boolean =>
  knownFact(machine, 'power.battery')?.value === true;

/** Percent of the design capacity below which a battery should be replaced, or is at its end. Common practice, no source. */
export const WEAK_BATTERY = 60;

/** What is known of a battery as far as it is to carry the machine through a power cut. */
export type BatteryState = 'none' | 'not measured' | 'weak' | 'carries it';

/**
 * Whether a battery may be relied on: a spare laptop's is old, and one that nobody measured may hold for seconds. Measured is what its
 * own gauge or a person told of its capacity; what such machines usually have is no measurement.
 */
export function batteryOf(machine: Pick<Machine, 'facts'>): BatteryState {
  if (!hasBattery(machine)) return 'none';
  const wear = knownFact(machine, 'power.wear');
  if (wear === undefined || wear.origin === 'assumed' || typeof wear.value !== 'number')
    return 'not measured';
  return wear.value < WEAK_BATTERY ? 'weak' : 'carries it';
}
