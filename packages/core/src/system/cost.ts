import type { Purpose } from '../model/profile';
import type { Reader } from './places';

/** Hours a day a machine of this purpose usually runs. Common practice, no source. */
const HOURS: Record<Purpose, number> = {
  games: 2,
  film: 3,
  music: 8,
  firewall: 24,
  'file store': 24,
  'virtual machines': 24,
  desktop: 6,
};
export const usualHours = (purpose: Purpose): number => HOURS[purpose];

/** Of its hours, the share a machine works rather than idles. Common practice, no source. */
const AT_WORK: Record<Purpose, number> = {
  games: 0.9,
  film: 0.5,
  music: 0.1,
  firewall: 0.1,
  'file store': 0.1,
  'virtual machines': 0.3,
  desktop: 0.2,
};

export interface RunningCost {
  wattsMean: number;
  kwhPerYear: number;
  perYear: number;
  because: string;
}

/**
 * Money a year: (idle watts × idle hours + load watts × working hours) × 365 × tariff. Undefined where the idle watts are
 * not known; without load watts the idle ones stand for both.
 */
export function runningCost(
  m: Reader,
  purpose: Purpose,
  hoursPerDay: number,
  tariff: number,
): RunningCost | undefined {
  const idle = m.number('power.idle');
  if (idle === undefined) return undefined;
  const load = m.number('power.load') ?? idle;
  const share = AT_WORK[purpose];
  const wattsMean = idle * (1 - share) + load * share;
  const kwhPerYear = (wattsMean * hoursPerDay * 365) / 1000;
  return {
    wattsMean,
    kwhPerYear,
    perYear: kwhPerYear * tariff,
    because: `${idle} W idle and ${load} W at work for ${Math.round(share * 100)} % of ${hoursPerDay} h a day: ${kwhPerYear.toFixed(0)} kWh a year at ${tariff.toFixed(2)} each`,
  };
}

export interface BreakEven {
  /** Years until the cheaper running pays for the dearer purchase; null where it never does. */
  years: number | null;
  because: string;
}

/** When another machine that costs `price` more and runs for `other` a year pays for itself against one that runs for `own`. */
export function breakEven(own: number, other: number, price: number, name: string): BreakEven {
  const saves = own - other;
  const each = `${name} runs for ${other.toFixed(2)} a year against ${own.toFixed(2)}`;
  if (saves <= 0) return { years: null, because: `${each}: it never pays for itself.` };
  if (price <= 0) return { years: 0, because: `${each} and costs nothing: it is ahead from the first day.` };
  const years = price / saves;
  return { years, because: `${each} and costs ${price.toFixed(2)}: ahead after ${years.toFixed(1)} years.` };
}
