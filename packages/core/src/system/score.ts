import { criteria, type Criterion, type Weights } from '../model/settings';
import type { Profile } from '../model/profile';
import { drivePorts, noiseOf, Reader, usable } from './places';
import type { MachineView } from './view';

/** What a criterion's value rests on, as data. Watts when idle, MHz, bytes, Mb/s; money in the bench's currency. */
export type ScoreBasis =
  | { code: 'not known'; what: 'noise' | 'watts' | 'cores' | 'cost' | 'ports' | 'year' }
  | { code: 'noise'; is: string }
  | { code: 'watts'; idle: number }
  | { code: 'speed'; cores: number; mhz: number | null }
  | { code: 'cost'; cost: number }
  | { code: 'spare ports'; drives: number; network: number }
  | { code: 'year'; year: number }
  | { code: 'preferred'; needs: PreferredNeed[] };

/** Something a profile prefers, and whether the machine has it. */
export type PreferredNeed = { met: boolean } & (
  | { kind: 'cores'; count: number }
  | { kind: 'memory'; bytes: number }
  | { kind: 'network speed'; mbps: number }
  | { kind: 'remote-control line' }
  | { kind: 'ciphers in hardware' }
);

/** One criterion of a score: how good it is from 0 to 1, what that rests on, and the points it adds of 100. */
export interface ScorePart {
  criterion: Criterion;
  value: number;
  basis: ScoreBasis;
  points: number;
}

/** Points from 0 to 100 and what each criterion adds. */
export interface Score {
  total: number;
  parts: ScorePart[];
}

const clamp = (x: number): number => Math.max(0, Math.min(1, x));
/** What is not known counts as half, and says so. */
const UNKNOWN = 0.5;
type Judged = [value: number, basis: ScoreBasis];
const unknown = (what: Extract<ScoreBasis, { code: 'not known' }>['what']): Judged => [
  UNKNOWN,
  { code: 'not known', what },
];

const NOISE: Record<string, number> = { silent: 1, quiet: 0.75, audible: 0.35, loud: 0 };

function quiet(m: Reader): Judged {
  const noise = noiseOf(m);
  return noise === undefined ? unknown('noise') : [NOISE[noise] ?? UNKNOWN, { code: 'noise', is: noise }];
}

/** 4 W idle is as good as it gets, 120 W counts nothing; between them each doubling costs the same. */
function watts(m: Reader): Judged {
  const idle = m.number('power.idle');
  if (idle === undefined) return unknown('watts');
  return [clamp(1 - Math.log(Math.max(idle, 4) / 4) / Math.log(30)), { code: 'watts', idle }];
}

/** Work per clock by level, against v3: common practice, no source. */
const PER_CLOCK: Record<string, number> = { v1: 0.6, v2: 0.8, v3: 1, v4: 1.1 };

/** Cores × GHz × work per clock, on a scale where each doubling counts the same and 64 is full. */
function speed(m: Reader): Judged {
  const cores = m.number('cpu.cores');
  const mhz = m.number('cpu.mhz');
  if (cores === undefined) return unknown('cores');
  const clock = (mhz ?? 2000) / 1000;
  const perf = cores * clock * (PER_CLOCK[m.text('cpu.level') ?? ''] ?? 0.6);
  return [clamp(Math.log2(Math.max(perf, 1)) / 6), { code: 'speed', cores, mhz: mhz ?? null }];
}

/** Nothing to buy is best; 100 in the bench's currency counts nothing. */
const costOf = (cost: number | null): Judged =>
  cost === null ? unknown('cost') : [clamp(1 - cost / 100), { code: 'cost', cost }];

function spare(m: Reader, profile: Profile): Judged {
  const ports = drivePorts(m);
  const wired = m.number('network.wired');
  if (ports === undefined && wired === undefined) return unknown('ports');
  const drives = Math.max(
    0,
    (ports ?? 0) - Math.max(usable(m.view.drives).length, profile.needs.dataDrives + 1),
  );
  const network = Math.max(0, (wired ?? 0) - profile.needs.wiredPorts);
  return [clamp((drives + network) / 4), { code: 'spare ports', drives, network }];
}

function age(m: Reader): Judged {
  const year = m.number('cpu.year');
  return year === undefined ? unknown('year') : [clamp((year - 2005) / 20), { code: 'year', year }];
}

/** The share of a profile's preferred needs that are met; full where it has none. */
function preferred(m: Reader, profile: Profile): Judged {
  const { prefers } = profile;
  const least = (need: number, have: number | undefined): boolean => have !== undefined && have >= need;
  const needs: PreferredNeed[] = [];
  if (prefers.cores !== null)
    needs.push({
      kind: 'cores',
      count: prefers.cores,
      met: least(prefers.cores, m.number('cpu.cores')),
    });
  if (prefers.memoryBytes !== null)
    needs.push({
      kind: 'memory',
      bytes: prefers.memoryBytes,
      met: least(prefers.memoryBytes * 0.9, m.number('memory.bytes')),
    });
  if (prefers.wiredMbps !== null)
    needs.push({
      kind: 'network speed',
      mbps: prefers.wiredMbps,
      met: least(prefers.wiredMbps, m.number('network.speed')),
    });
  if (prefers.remoteLine) needs.push({ kind: 'remote-control line', met: m.flag('display.remote') === true });
  if (prefers.aes) needs.push({ kind: 'ciphers in hardware', met: m.flag('cpu.aes') === true });
  const met = needs.filter((n) => n.met).length;
  return [needs.length === 0 ? 1 : met / needs.length, { code: 'preferred', needs }];
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
    const [value, basis] = judged[criterion];
    return { criterion, value, basis, points: sum > 0 ? (100 * weights[criterion] * value) / sum : 0 };
  });
  return { total: parts.reduce((n, p) => n + p.points, 0), parts };
}

/** A weight that, moved, would turn the order of two. */
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
