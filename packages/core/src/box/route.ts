import { stops, stopTitle, type Box, type Stop } from '../model/box';
import { findImage, findMachine, type Bench } from '../model/bench';
import { targetOf } from '../write/target';
import { writtenBytes } from '../write/written';
import { predictInstall } from '../write/install';
import { predictWrite, unknownStick } from '../write/time';
import { span, type Span } from '../units/duration';
import { hazards } from './hazards';

export type StopState = 'signed' | 'current' | 'ahead';

export interface RouteStop {
  stop: Stop;
  number: number;
  title: string;
  state: StopState;
  /** True where a Stop hazard belongs to this stop. */
  hazard: boolean;
  /** Minutes of the user's own hands, and of waiting, in seconds. */
  hands: Span;
  waiting: Span;
}

/** Hands-on and waiting minutes by stop: common practice, no source. Replaced by measured ones where they exist. */
const MINUTES: Record<Stop, { hands: [number, number]; waiting: [number, number] }> = {
  survey: { hands: [4, 8], waiting: [0, 0] },
  choose: { hands: [3, 6], waiting: [0, 0] },
  gather: { hands: [6, 12], waiting: [0, 0] },
  verify: { hands: [1, 2], waiting: [0, 1] },
  write: { hands: [1, 3], waiting: [2, 10] },
  firmware: { hands: [4, 8], waiting: [0, 0] },
  install: { hands: [3, 6], waiting: [5, 20] },
  'first-start': { hands: [4, 8], waiting: [3, 10] },
  network: { hands: [3, 6], waiting: [0, 0] },
  load: { hands: [8, 15], waiting: [5, 60] },
  tune: { hands: [10, 20], waiting: [10, 20] },
  keep: { hands: [3, 5], waiting: [0, 0] },
};
const minutes = ([low, high]: [number, number]): Span => span(low * 60, high * 60);

function waitingAt(bench: Bench, box: Box, stop: Stop): Span {
  const image = findImage(bench, box.imageId);
  if (stop === 'write' && image) {
    return predictWrite(writtenBytes(image), targetOf(bench, box) ?? unknownStick(null), bench.log).value;
  }
  if (stop === 'install') {
    const install = predictInstall(bench, box);
    if (install) return install.value;
  }
  return minutes(MINUTES[stop].waiting);
}

/** The twelve stops of a box with their state and minutes; the first unsigned one is current. */
export function route(bench: Bench, box: Box): RouteStop[] {
  const signed = new Set(box.signoffs.map((s) => s.stop));
  const current = stops.find((s) => !signed.has(s));
  const graded = new Set(
    hazards(bench, box)
      .filter((h) => h.grade === 'stop')
      .map((h) => h.stop),
  );
  return stops.map((stop, i) => ({
    stop,
    number: i + 1,
    title: stopTitle[stop],
    state: signed.has(stop) ? 'signed' : stop === current ? 'current' : 'ahead',
    hazard: graded.has(stop),
    hands: minutes(MINUTES[stop].hands),
    waiting: waitingAt(bench, box, stop),
  }));
}

/** The next stop that is not signed off; the last one where all are. */
export const currentStop = (box: Box): Stop =>
  stops.find((s) => !box.signoffs.some((x) => x.stop === s)) ?? 'keep';

/** The line under a box's name in the rail. */
export function boxLine(bench: Bench, box: Box): string {
  const machine = findMachine(bench, box.machineId);
  return machine ? `on ${machine.name}, ${machine.form}` : 'no machine yet';
}
