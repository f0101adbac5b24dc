import type { ArmName, TuneRun } from '../model/tune';
import type { RunReading } from './runValues';

/** A run as it is kept, from what was read of it. */
export const runFrom = (
  reading: RunReading,
  of: {
    id: string;
    boxId: string;
    experimentId: string;
    arm: ArmName;
    place: number;
    at: string;
    room: number | null;
  },
  source: TuneRun['source'],
  from: string,
): TuneRun => ({
  ...of,
  steady: reading.steady,
  tau: reading.tau,
  leftOut: '',
  values: reading.values,
  within: reading.within,
  source,
  from: from.slice(0, 200),
  traces: reading.traces,
  frames: source === 'stand-in' ? [] : reading.keptFrames,
  frameCount: reading.frameCount,
});
