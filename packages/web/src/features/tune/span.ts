import { scaleLinear } from 'd3-scale';

/** Ends of an axis at round figures, how many equal steps lie between them, and the decimals their figures want; `room`: a share left free on either side. */
export function span(
  values: readonly number[],
  room = 0.08,
  count = 5,
): {
  min: number;
  max: number;
  steps: number;
  digits: number;
} {
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const free = room * (most - least) || (least === most ? 1 : 0);
  const scale = scaleLinear()
    .domain([least - free, most + free])
    .nice(count);
  const [min = least, max = most] = scale.domain();
  const steps = Math.max(1, scale.ticks(count).length - 1);
  return { min, max, steps, digits: Math.max(0, Math.ceil(-Math.log10((max - min) / steps) - 1e-9)) };
}
