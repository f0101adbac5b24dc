import type { QuantityCode } from '../model/tune';

/** How a quantity is shown, which way is better, and how it varies from run to run. */
export interface QuantityDefinition {
  label: string;
  /** A figure’s unit; bytes per second are shown as rates. */
  unit: '°C' | 'rpm' | 'dB(A)' | 'frames/s' | 'ms' | '/min' | 'W' | 'bytes/s' | '';
  digits: number;
  better: 'less' | 'more';
  /** A change that matters: in its unit, or as a share of what it was. Common practice, no source. */
  matters: { by: number } | { share: number };
  /** How runs of one state usually vary, one standard deviation, likewise. Common practice, no source. */
  spread: { by: number } | { share: number };
}

export const quantities: Readonly<Record<QuantityCode, QuantityDefinition>> = {
  hottest: {
    label: 'Hottest part',
    unit: '°C',
    digits: 1,
    better: 'less',
    matters: { by: 3 },
    spread: { by: 1 },
  },
  fan: {
    label: 'Fan',
    unit: 'rpm',
    digits: 0,
    better: 'less',
    matters: { share: 0.1 },
    spread: { share: 0.03 },
  },
  noise: {
    label: 'Noise',
    unit: 'dB(A)',
    digits: 1,
    better: 'less',
    matters: { by: 3 },
    spread: { by: 0.7 },
  },
  rate: {
    label: 'Frames, mean',
    unit: 'frames/s',
    digits: 1,
    better: 'more',
    matters: { share: 0.05 },
    spread: { share: 0.012 },
  },
  'low percentile': {
    label: '1 % low, percentile',
    unit: 'frames/s',
    digits: 1,
    better: 'more',
    matters: { share: 0.05 },
    spread: { share: 0.02 },
  },
  'low average': {
    label: '1 % low, average of the slowest',
    unit: 'frames/s',
    digits: 1,
    better: 'more',
    matters: { share: 0.05 },
    spread: { share: 0.03 },
  },
  pace: {
    label: 'Pace, frame to frame',
    unit: 'ms',
    digits: 2,
    better: 'less',
    matters: { share: 0.15 },
    spread: { share: 0.05 },
  },
  stutters: {
    label: 'Stutters',
    unit: '/min',
    digits: 1,
    better: 'less',
    matters: { share: 0.25 },
    spread: { share: 0.12 },
  },
  wall: {
    label: 'At the wall',
    unit: 'W',
    digits: 1,
    better: 'less',
    matters: { share: 0.05 },
    spread: { share: 0.015 },
  },
  battery: {
    label: 'From the battery',
    unit: 'W',
    digits: 1,
    better: 'less',
    matters: { share: 0.05 },
    spread: { share: 0.02 },
  },
  write: {
    label: 'Written',
    unit: 'bytes/s',
    digits: 0,
    better: 'more',
    matters: { share: 0.1 },
    spread: { share: 0.04 },
  },
  read: {
    label: 'Read',
    unit: 'bytes/s',
    digits: 0,
    better: 'more',
    matters: { share: 0.1 },
    spread: { share: 0.04 },
  },
  network: {
    label: 'Over the wire',
    unit: 'bytes/s',
    digits: 0,
    better: 'more',
    matters: { share: 0.05 },
    spread: { share: 0.02 },
  },
  score: {
    label: 'Work done',
    unit: '',
    digits: 1,
    better: 'more',
    matters: { share: 0.05 },
    spread: { share: 0.015 },
  },
};

/** What would matter of a quantity that stood at `was`, in its unit. */
export function mattersOf(code: QuantityCode, was: number): number {
  const { matters } = quantities[code];
  return 'by' in matters ? matters.by : Math.abs(matters.share * was);
}

/** How runs of a quantity that stands at `was` usually vary: one standard deviation in its unit. */
export function usualSpread(code: QuantityCode, was: number): number {
  const { spread } = quantities[code];
  return 'by' in spread ? spread.by : Math.abs(spread.share * was);
}
