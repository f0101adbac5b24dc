import { normalQuantile } from './distributions';

/** Eight of ten lie within this many deviations of the middle. */
export const Z90 = normalQuantile(0.9);
/** Where a range begins at nothing, it is taken to begin at this share of its end. */
export const LEAST_SHARE = 1 / 20;

/** A log-normal distribution: middle and deviation of the logarithm. */
export interface LogNormal {
  middle: number;
  width: number;
}

/** The one with a tenth below `low` and a tenth above `high`, both above 0. */
export function eightOfTen(low: number, high: number): LogNormal {
  const from = Math.log(low);
  const to = Math.log(high);
  return { middle: (from + to) / 2, width: (to - from) / (2 * Z90) };
}

/** The value so many deviations from the middle. */
export const valueAt = ({ middle, width }: LogNormal, z: number): number => Math.exp(middle + width * z);
