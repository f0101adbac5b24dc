import { criteria, type Criterion, type Weights } from '../model/settings';
import type { Profile } from '../model/profile';
import { formatIec } from '../units/bytes';
import { drivePorts, noiseOf, Reader, usable } from './places';
import type { MachineView } from './view';

/** One criterion of a score: how good it is from 0 to 1, what that rests on, and the points it adds of 100. */
export interface ScorePart {
  criterion: Criterion;
  value: number;
  says: string;
  points: number;
}

export interface Score {
  total: number;
  parts: ScorePart[];
}

const clamp = (x: number): number => Math.max(0, Math.min(1, x));
/** What is not known counts as half, and says so. */
const UNKNOWN = 0.5;
type Judged = [value: number, says: string];
const unknown = (what: string): Judged => [UNKNOWN, `${what} not known, counted as half`];

const NOISE: Record<string, number> = { silent: 1, quiet: 0.75, audible: 0.35, loud: 0 };

function quiet(m: Reader): Judged {
  const noise = noiseOf(m);
  return noise === undefined ? unknown('Noise') : [NOISE[noise] ?? UNKNOWN, noise];
}

/** 4 W idle is as good as it gets, 120 W counts nothing; between them each doubling costs the same. */
function watts(m: Reader): Judged {
  const idle = m.number('power.idle');
  if (idle === undefined) return unknown('Watts when idle');
  return [clamp(1 - Math.log(Math.max(idle, 4) / 4) / Math.log(30)), `${idle} W idle`];
}

/** Work per clock by level, against v3: common practice, no source. */
const PER_CLOCK: Record<string, number> = { v1: 0.6, v2: 0.8, v3: 1, v4: 1.1 };

/** Cores × GHz × work per clock, on a scale where each doubling counts the same and 64 is full. */
function speed(m: Reader): Judged {
  const cores = m.number('cpu.cores');
  const mhz = m.number('cpu.mhz');
  if (cores === undefined) return unknown('Cores');
  const clock = (mhz ?? 2000) / 1000;
  const perf = cores * clock * (PER_CLOCK[m.text('cpu.level') ?? ''] ?? 0.6);
  return [
    clamp(Math.log2(Math.max(perf, 1)) / 6),
    `${cores} ${cores === 1 ? 'core' : 'cores'}${mhz === undefined ? '' : ` at up to ${(mhz / 1000).toFixed(1)} GHz`}`,
  ];
}

/** Nothing to buy is best; 100 in the bench's currency counts nothing. */
const costOf = (cost: number | null): Judged =>
  cost === null
    ? unknown('What it costs')
    : [clamp(1 - cost / 100), cost === 0 ? 'nothing to buy' : `${cost.toFixed(2)} to buy`];

function spare(m: Reader, profile: Profile): Judged {
  const ports = drivePorts(m);
  const wired = m.number('network.wired');
  if (ports === undefined && wired === undefined) return unknown('Ports');
  const drives = Math.max(
    0,
    (ports ?? 0) - Math.max(usable(m.view.drives).length, profile.needs.dataDrives + 1),
  );
  const net = Math.max(0, (wired ?? 0) - profile.needs.wiredPorts);
  return [clamp((drives + net) / 4), `${drives} drive and ${net} network to spare`];
}

function age(m: Reader): Judged {
  const year = m.number('cpu.year');
  return year === undefined ? unknown('Year') : [clamp((year - 2005) / 20), `from ${year}`];
}

/** The share of a profile's preferred needs that are met; full where it has none. */
function preferred(m: Reader, profile: Profile): Judged {
  const { prefers } = profile;
  const met: boolean[] = [];
  const says: string[] = [];
  const want = (asked: boolean, value: boolean | undefined, words: string): void => {
    if (!asked) return;
    met.push(value === true);
    says.push(`${value === true ? '' : 'no '}${words}`);
  };
  const least = (asked: number | null, have: number | undefined, words: string): void =>
    want(asked !== null, have !== undefined && have >= (asked ?? 0), words);
  least(prefers.cores, m.number('cpu.cores'), `${prefers.cores} cores`);
  least(
    prefers.memoryBytes === null ? null : prefers.memoryBytes * 0.9,
    m.number('memory.bytes'),
    `${formatIec(prefers.memoryBytes ?? 0)} of memory`,
  );
  least(prefers.wiredMbps, m.number('network.speed'), `${prefers.wiredMbps} Mb/s`);
  want(prefers.remoteLine, m.flag('display.remote'), 'remote-control line');
  want(prefers.aes, m.flag('cpu.aes'), 'ciphers in hardware');
  return met.length === 0
    ? [1, 'it prefers nothing more']
    : [met.filter(Boolean).length / met.length, says.join(', ')];
}

/**
 * How well a machine serves a system, from 0 to 100: the weighted mean of the criteria. `cost` is what has to be bought
 * (null where no price is known). The scales are ours (common practice, no source) and each part says what it rests on.
 */
export function score(view: MachineView, profile: Profile, weights: Weights, cost: number | null): Score {
  const m = new Reader(view, 'trust');
  const judged: Record<Criterion, Judged> = {
    quiet: quiet(m),
    watts: watts(m),
    speed: speed(m),
    cost: costOf(cost),
    'spare ports': spare(m, profile),
    age: age(m),
    preferred: preferred(m, profile),
  };
  const sum = criteria.reduce((n, c) => n + weights[c], 0);
  const parts = criteria.map((criterion): ScorePart => {
    const [value, says] = judged[criterion];
    return { criterion, value, says, points: sum > 0 ? (100 * weights[criterion] * value) / sum : 0 };
  });
  return { total: parts.reduce((n, p) => n + p.points, 0), parts };
}

export interface Flip {
  criterion: Criterion;
  /** The weight now, and the one past which the other comes first. */
  now: number;
  at: number;
}

/** Values nearer than this are the same: no weight one could set would tell them apart. */
const LEAST = 1e-4;

/**
 * The single weights that, moved within 0 to 10, would put the second before the first; nearest first. Both scores are
 * weighted means with the same weights, so their order turns on the sum of weight × difference of values.
 */
export function flips(first: Score, second: Score, weights: Weights): Flip[] {
  const lead = criteria.map((c) => {
    const value = (s: Score): number => s.parts.find((p) => p.criterion === c)?.value ?? 0;
    return { criterion: c, by: value(first) - value(second) };
  });
  const sum = lead.reduce((n, l) => n + weights[l.criterion] * l.by, 0);
  return lead
    .filter((l) => Math.abs(l.by) > LEAST)
    .map((l) => ({
      criterion: l.criterion,
      now: weights[l.criterion],
      at: weights[l.criterion] - sum / l.by,
    }))
    .filter((f) => f.at >= 0 && f.at <= 10)
    .sort((a, b) => Math.abs(a.at - a.now) - Math.abs(b.at - b.now));
}

/** What would turn the order, in words; undefined where no single weight does. */
export function flipWords(name: string, found: readonly Flip[]): string | undefined {
  const [near] = found;
  if (!near) return undefined;
  const way = near.at > near.now ? 'more' : 'less';
  return `${name} comes first if ${near.criterion} weighs ${way} than ${near.at.toFixed(1)} (now ${near.now}).`;
}
