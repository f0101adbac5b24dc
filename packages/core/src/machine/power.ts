import { knownFact } from '../model/known';
import type { Machine } from '../model/shelf';

/** Is it known to run from a battery? */
export const hasBattery = (machine: Pick<Machine, 'facts'>): boolean =>
  knownFact(machine, 'power.battery')?.value === true;

/** What feeds a machine: a supply inside it, one that stands beside it, or a battery with a charger. */
export type Supply = 'inside' | 'external' | 'battery';

/** Forms that usually have their supply beside them. Common practice, no source. */
const OUTSIDE: readonly Machine['form'][] = ['mini PC', 'board'];
const CARRIED: readonly Machine['form'][] = ['laptop', 'handheld'];

/** What feeds a machine. A laptop or handheld of which nobody has said that it has no battery is taken to have one. */
export function supplyOf(machine: Pick<Machine, 'facts' | 'form'>): Supply {
  const said = knownFact(machine, 'power.battery')?.value;
  if (said === true || (said === undefined && CARRIED.includes(machine.form))) return 'battery';
  return OUTSIDE.includes(machine.form) ? 'external' : 'inside';
}

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
