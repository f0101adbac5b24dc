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
/** Hours a day a machine of this purpose usually runs. */
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

/** What a machine draws and costs in a year, and the figures it is made of. Watts, kWh, money in the bench's currency. */
export interface RunningCost {
  wattsMean: number;
  kwhPerYear: number;
  perYear: number;
  idle: number;
  load: number;
  /** Of its hours, how much it works: 0 to 1. */
  share: number;
  hoursPerDay: number;
  tariff: number;
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
    idle,
    load,
    share,
    hoursPerDay,
    tariff,
  };
}

/** When a machine that runs cheaper has paid for itself. Money in the bench's currency, years. */
export interface BreakEven {
  /** Years until the cheaper running pays for the dearer purchase; null where it never does. */
  years: number | null;
  own: number;
  other: number;
  price: number;
}

/** When another machine that costs `price` more and runs for `other` a year pays for itself against one that runs for `own`. */
export function breakEven(own: number, other: number, price: number): BreakEven {
  const saves = own - other;
  const years = saves <= 0 ? null : price <= 0 ? 0 : price / saves;
  return { years, own, other, price };
}
