import type { QuantityCode, TuneQuestion } from '../model/tune';
import type { Span } from '../units/duration';
import { ALPHA } from './compare';
import { powerOf, runsFor } from './numbers/power';
import { orderOf } from './order';
import { mattersOf, quantities, usualSpread } from './quantities';
import { questions } from './questions';
import { settleTime } from './steady';

/** Where a figure of a plan comes from. */
export type Ground = 'measured here' | 'measured on its like' | 'said' | 'usual';

/** What a plan goes by, besides the question. */
export interface DesignGround {
  /** What the first quantity stood at, in its unit. */
  was?: { value: number; ground: Ground };
  /** One standard deviation of runs. */
  spread?: { value: number; ground: Ground };
  /** Seconds of the slowest time constant. */
  tau?: { value: number; ground: Ground };
  /** The states cannot be taken back and forth. */
  once?: boolean;
}

/** An experiment planned: what is measured, how long, how often, in which order, and how likely it is to see what matters. */
export interface Design {
  first: QuantityCode;
  beside: readonly QuantityCode[];
  unit: string;
  matters: number;
  spread: { value: number; ground: Ground };
  settle: { seconds: number; tau: number; ground: Ground } | null;
  measureSeconds: number;
  coolSeconds: number;
  /** Runs of each state. */
  runs: number;
  order: string;
  /** Chance to see what matters with so many runs, after correction for all that is looked at. */
  chance: number;
  /** Runs of each state for a chance of 80 %; null where 60 are not enough. */
  runsFor80: number | null;
  /** Comparisons that are looked at together. */
  comparisons: number;
  seconds: Span;
}

/** Minutes until a machine has settled: one with a fan, and one without. Common practice, no source. */
export const USUAL_TAU = { fan: 180, fanless: 1200 };
/** What a restart and a new setting take, seconds. Common practice, no source. */
const CHANGING: Span = { low: 60, high: 180 };

/**
 * Plans an experiment. Spread, time constant and starting value are those measured before where there are any; `matters` and the
 * count of runs can be said. Runs that are not said are those for a chance of 80 %, between 3 and 12.
 */
export function designOf(asked: TuneQuestion, ground: DesignGround = {}): Design {
  const q = questions[asked.question];
  const was = ground.was?.value ?? q.typical;
  const matters = asked.matters ?? mattersOf(q.first, was);
  const spread: Design['spread'] =
    asked.spread !== undefined
      ? { value: asked.spread, ground: 'said' }
      : (ground.spread ?? { value: usualSpread(q.first, was), ground: 'usual' });
  const states = asked.factorial ? 4 : asked.arms;
  const comparisons = asked.factorial ? 3 : (states - 1) * (1 + q.beside.length);
  const enough = runsFor(matters, spread.value, ALPHA, comparisons, states) ?? null;
  const runs = asked.runs ?? Math.min(12, Math.max(3, enough ?? 12));
  const tau: { value: number; ground: Ground } =
    asked.tau !== undefined
      ? { value: asked.tau, ground: 'said' }
      : (ground.tau ?? { value: USUAL_TAU.fan, ground: 'usual' });
  const settle = q.settles
    ? { seconds: Math.round(settleTime(tau.value)), tau: tau.value, ground: tau.ground }
    : null;
  const order = orderOf(states, runs, asked.seed, ground.once ?? false);
  const changes = [...order].filter((a, i) => i > 0 && order[i - 1] !== a).length;
  const each = (settle?.seconds ?? 0) + q.measure + q.cool;
  return {
    first: q.first,
    beside: q.beside,
    unit: quantities[q.first].unit,
    matters,
    spread,
    settle,
    measureSeconds: q.measure,
    coolSeconds: q.cool,
    runs,
    order,
    chance: powerOf(runs, matters, spread.value, ALPHA, comparisons, states),
    runsFor80: enough,
    comparisons,
    seconds: {
      low: order.length * each + changes * CHANGING.low,
      high: order.length * each * 1.1 + changes * CHANGING.high,
    },
  };
}
