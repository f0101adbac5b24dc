import type { Panel, Trace } from '../model/tune';
import { readRun, traceOf, type RunReading } from './runValues';
import { standInLog } from './standin/asLog';
import { runStandIn, standInTruth, type StandInSet } from './standin/machine';
import { judgeSteady, type Steadiness } from './steady';

/** A run on the stand-in machine: its course, what was known at which second, and what it gave. */
export interface PlayedRun {
  /** Die temperature, thinned. */
  heat: Trace;
  /** What could be told of its settling at that second, from what had been read until then. */
  told: { at: number; steadiness: Steadiness }[];
  settle: number;
  measure: number;
  /** What the stand-in’s thermometer shows in its room, °C, to a tenth. */
  room: number;
  reading: RunReading;
}

/** What is asked of the stand-in. */
export interface PlayAsk {
  set: StandInSet;
  seed: number;
  place: number;
  settle: number;
  measure: number;
  panel: Panel | null;
}

const TELLINGS = 10;

/** Runs the stand-in machine, faster than real time; `tell` hears how much is done. */
export function playRun(ask: PlayAsk, tell?: (share: number) => void): PlayedRun {
  const { set, seed, place, settle, measure, panel } = ask;
  const run = runStandIn(standInTruth(), set, { seed, place, settle, measure });
  tell?.(0.2);
  const told = Array.from({ length: TELLINGS }, (_, i) => {
    const at = Math.max(20, Math.round(((i + 1) / TELLINGS) * settle));
    const steadiness = judgeSteady(
      run.t.subarray(0, at),
      run.die.subarray(0, at),
      run.chipWatts.subarray(0, at),
    );
    tell?.(0.2 + (0.6 * (i + 1)) / TELLINGS);
    return { at, steadiness };
  });
  return {
    heat: traceOf('processor package', '°C', run.t, run.die),
    told: settle < 20 ? [] : told,
    settle,
    measure,
    room: Math.round(run.room * 10) / 10,
    reading: readRun(standInLog(run), { measureSeconds: measure, panel, seed }),
  };
}
