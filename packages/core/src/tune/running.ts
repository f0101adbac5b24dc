/** What running costs, and how long a battery lasts. */
export interface Running {
  watts: number;
  /** Kilowatt-hours and money a year. */
  yearly: { kwh: number; money: number };
}

/** A year at so many watts for so many hours a day, at a price of a kilowatt-hour. */
export function runningCost(watts: number, hoursPerDay: number, tariff: number): Running {
  const kwh = (watts * hoursPerDay * 365.25) / 1000;
  return { watts, yearly: { kwh, money: kwh * tariff } };
}

/** Minutes a battery lasts: its watt-hours when full, times what it still holds of its design (0 to 1), over the watts taken. */
export const batteryMinutes = (wattHours: number, watts: number, left = 1): number =>
  (60 * wattHours * left) / watts;

/**
 * Fan speed against noise: the sound of a fan rises with the fifth power of its speed, so its level by 50 times the logarithm of
 * the ratio, in dB (fan affinity laws, as in the ASHRAE handbook; from memory).
 */
export const noiseChange = (fromRpm: number, toRpm: number): number => 50 * Math.log10(toRpm / fromRpm);
