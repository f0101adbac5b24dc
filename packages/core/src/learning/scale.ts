import { eightOfTen, LEAST_SHARE, type LogNormal } from '../tune/numbers/logNormal';
import type { Span } from '../units/duration';

/** Nobody clocks a step to less than this. Seconds. */
const LEAST_SECONDS = 3;
/** No table is surer of a step than this, in deviations of the logarithm: a twelfth to either side. */
const LEAST_WIDTH = 0.09;

/** A range of seconds as a normal distribution of the logarithm, eight of ten inside. */
export function scaleOf({ low, high }: Span): LogNormal {
  const to = Math.max(high, LEAST_SECONDS);
  const { middle, width } = eightOfTen(Math.min(Math.max(low, to * LEAST_SHARE, LEAST_SECONDS), to), to);
  return { middle, width: Math.max(width, LEAST_WIDTH) };
}

/** How far from the middle some seconds are, in deviations. */
export const deviationsOf = ({ middle, width }: LogNormal, seconds: number): number =>
  (Math.log(Math.max(seconds, 1)) - middle) / width;
