import { randomFrom } from '../../units/random';
import { normalFrom, seedAt } from '../numbers/dice';

/** What the stand-in machine is; its own truth, which no screen shows. Temperatures in °C, resistances in K/W, capacities in J/K. */
export interface StandInTruth {
  room: number;
  /** From the die to the sink, and from the sink to the room at full fan; what each holds. */
  dieResistance: number;
  dieCapacity: number;
  sinkResistance: number;
  sinkCapacity: number;
  /** How much worse the sink is with the fan still, as a factor. */
  stillFactor: number;
  /** Fan: from which die temperature it turns, at which it is at its most, and how fast that is. */
  fanFrom: number;
  fanFull: number;
  fanMost: number;
  /** Watts of everything but the chip, and what the supply loses. */
  otherWatts: number;
  supplyLoss: number;
  /** Watts the chip would take if nothing held it, and how long boost lasts. */
  wanted: number;
  boostFactor: number;
  /** What boost adds for as long as it runs, once its window is over. */
  boostLong: number;
  boostSeconds: number;
  /** Frames at 1080 lines and unlimited watts, and the watts at which half of them are left. */
  frames: number;
  halfWatts: number;
  /** Share of the time of a frame that goes with its lines. */
  perLine: number;
  /** Frame noise: share that hangs on from frame to frame, its size, and hitches a second. */
  hang: number;
  noise: number;
  hitches: number;
  /** From run to run: share of the frames, and kelvin. */
  runShare: number;
  runKelvin: number;
  /** What the room warms by from one run to the next, kelvin. */
  drift: number;
}

/** A handheld with a small fan; all of it made up. */
export const standInTruth = (): StandInTruth => ({
  room: 21,
  dieResistance: 0.55,
  dieCapacity: 22,
  sinkResistance: 0.95,
  sinkCapacity: 185,
  stillFactor: 3.1,
  fanFrom: 48,
  fanFull: 88,
  fanMost: 5200,
  otherWatts: 6.4,
  supplyLoss: 0.11,
  wanted: 38,
  boostFactor: 1.35,
  boostLong: 1.13,
  boostSeconds: 26,
  frames: 74,
  halfWatts: 8.5,
  perLine: 0.62,
  hang: 0.82,
  noise: 0.075,
  hitches: 0.22,
  runShare: 0.011,
  runKelvin: 0.7,
  drift: 0.05,
});

/** What can be set on it. */
export interface StandInSet {
  /** Watts the chip may take for long. */
  limit: number;
  boost: boolean;
  lines: number;
  /** Frames per second at most; null without a cap. */
  cap: number | null;
  /** Share by which the sink is better since it was pasted anew, 0 to 1. */
  paste: number;
}

/** As it comes. */
export const asItComes = (): StandInSet => ({ limit: 31, boost: true, lines: 1080, cap: null, paste: 0 });

/** Readings of one run, one a second, and its frame times. */
export interface StandInRun {
  /** How warm the room was, °C. */
  room: number;
  /** Seconds since the run began. */
  t: Float64Array;
  die: Float64Array;
  fan: Float64Array;
  chipWatts: Float64Array;
  wallWatts: Float64Array;
  clock: Float64Array;
  /** Frame times in ms, of the part that is measured. */
  frames: Float64Array;
}

/** Fan speed at a die temperature: straight between its two ends. */
const fanAt = (m: StandInTruth, die: number): number =>
  m.fanMost * Math.min(1, Math.max(0, (die - m.fanFrom) / (m.fanFull - m.fanFrom)));

const sinkAt = (m: StandInTruth, set: StandInSet, fan: number): number => {
  const share = fan / m.fanMost;
  return m.sinkResistance * (1 - 0.25 * set.paste) * (m.stillFactor + (1 - m.stillFactor) * Math.sqrt(share));
};

/** Watts the chip takes: what it wants, less where its frames are capped, held by the limit. */
function chipAt(m: StandInTruth, set: StandInSet, boosting: boolean): number {
  const limit = set.boost ? set.limit * (boosting ? m.boostFactor : m.boostLong) : set.limit;
  const free = Math.min(limit, m.wanted);
  if (set.cap === null || rateAt(m, set, free) <= set.cap) return free;
  // A capped chip rests between frames: the watts at which its frames just reach the cap.
  let low = 0.5;
  let high = free;
  for (let i = 0; i < 40; i += 1) {
    const middle = (low + high) / 2;
    if (rateAt(m, set, middle) < set.cap) low = middle;
    else high = middle;
  }
  return high;
}

/** Mean frames per second at so many watts. */
function rateAt(m: StandInTruth, set: StandInSet, watts: number): number {
  const power = watts ** 1.4 / (watts ** 1.4 + m.halfWatts ** 1.4);
  const size = 1 - m.perLine + m.perLine * (set.lines / 1080) ** 2;
  return (m.frames * power) / size;
}

/** What a state comes to once it has settled, with nothing left to chance: what a run is held against. */
export interface StandInEnd {
  die: number;
  fan: number;
  wallWatts: number;
  rate: number;
  /** Seconds of the slow time constant there. */
  tau: number;
}

/** The truth of a state. `room`: the room’s temperature. */
export function settledTruth(m: StandInTruth, set: StandInSet, room = m.room): StandInEnd {
  const chip = chipAt(m, set, false);
  const rise = (fan: number): number => room + chip * (sinkAt(m, set, fan) + m.dieResistance);
  let low = room;
  let high = 200;
  for (let i = 0; i < 60; i += 1) {
    const middle = (low + high) / 2;
    if (rise(fanAt(m, middle)) > middle) low = middle;
    else high = middle;
  }
  const fan = fanAt(m, low);
  return {
    die: low,
    fan,
    wallWatts: (chip + m.otherWatts) / (1 - m.supplyLoss),
    rate: Math.min(set.cap ?? Infinity, rateAt(m, set, chip)),
    tau: m.sinkCapacity * sinkAt(m, set, fan),
  };
}

/**
 * Runs the machine: `settle` seconds of warming up from `from` °C, then `measure` seconds with its frames kept; one step a second
 * for heat, by a seed. `place`: how many runs came before on this evening, which warms the room.
 */
export function runStandIn(
  m: StandInTruth,
  set: StandInSet,
  {
    seed,
    place = 0,
    settle,
    measure,
    from,
  }: { seed: number; place?: number; settle: number; measure: number; from?: number },
): StandInRun {
  const random = randomFrom(seedAt(seed, 0));
  const normal = normalFrom(random);
  const room = m.room + m.drift * place;
  const offKelvin = m.runKelvin * normal();
  const offShare = m.runShare * normal();
  const seconds = Math.round(settle + measure);
  const column = (): Float64Array => new Float64Array(seconds);
  const out = {
    t: column(),
    die: column(),
    fan: column(),
    chipWatts: column(),
    wallWatts: column(),
    clock: column(),
  };
  let die = from ?? room + 6;
  let sink = from ?? room + 6;
  for (let s = 0; s < seconds; s += 1) {
    const fan = fanAt(m, die);
    const chip = chipAt(m, set, s < m.boostSeconds);
    // Small steps, because the die follows within seconds.
    for (let k = 0; k < 4; k += 1) {
      const across = (die - sink) / m.dieResistance;
      die += ((chip - across) / m.dieCapacity) * 0.25;
      sink += ((across - (sink - room) / sinkAt(m, set, fan)) / m.sinkCapacity) * 0.25;
    }
    out.t[s] = s;
    out.die[s] = Math.round((die + offKelvin + 0.25 * normal()) * 8) / 8;
    out.fan[s] = Math.max(0, Math.round(fan + (fan > 0 ? 14 * normal() : 0)));
    out.chipWatts[s] = Math.max(0, chip + 0.15 * normal());
    out.wallWatts[s] = Math.max(0, (chip + m.otherWatts) / (1 - m.supplyLoss) + 0.3 * normal());
    out.clock[s] = Math.round(900 * Math.cbrt(chip) + 12 * normal());
  }
  const rate = rateAt(m, set, chipAt(m, set, false)) * (1 + offShare);
  return { ...out, room, frames: framesAt(m, rate, set.cap, measure, seedAt(seed, 1)) };
}

/** Frame times that wear noise like real ones: heavy scenes come and go, frames hang together, hitches come seldom. */
function framesAt(
  m: StandInTruth,
  rate: number,
  cap: number | null,
  seconds: number,
  seed: number,
): Float64Array {
  const random = randomFrom(seed);
  const normal = normalFrom(random);
  const out = new Float64Array(Math.ceil(seconds * Math.max(rate, cap ?? 0) * 1.6) + 16);
  const middle = 1000 / rate;
  const rest = Math.sqrt(1 - m.hang * m.hang);
  let near = normal();
  let time = 0;
  let n = 0;
  while (time < seconds * 1000 && n < out.length) {
    near = m.hang * near + rest * normal();
    let ms = middle * Math.exp(m.noise * near - (m.noise * m.noise) / 2);
    if (random() < (m.hitches * ms) / 1000) ms += middle * (1 + 2 * random());
    if (cap !== null) ms = Math.max(ms, 1000 / cap + 0.05 * Math.abs(normal()));
    out[n] = Math.round(ms * 1000) / 1000;
    n += 1;
    time += ms;
  }
  return out.slice(0, n);
}
