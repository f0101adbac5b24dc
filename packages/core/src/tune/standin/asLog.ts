import { seriesOf, type TuneLog } from '../logs/log';
import type { StandInRun } from './machine';

/** A run of the stand-in as the log that a recorder and a meter would have kept of it. */
export const standInLog = (run: StandInRun): TuneLog => ({
  kind: 'recorder',
  lines: run.t.length,
  series: [
    seriesOf('temperature', 'processor package', run.t, run.die),
    seriesOf('fan', 'fan', run.t, run.fan),
    seriesOf('power', 'processor package', run.t, run.chipWatts),
    seriesOf('power', 'meter at the wall', run.t, run.wallWatts, 'wall'),
    seriesOf('clock', 'processor', run.t, run.clock),
  ],
  frames: run.frames,
  facts: [],
  faults: [],
});
