import {
  arms as armNames,
  type ArmName,
  type Experiment,
  type QuantityCode,
  type Setting,
  type TuneRun,
} from '../model/tune';
import { judgeTogether, type Judged } from './compare';
import { factorialEffects, type Effect, type FactorialRun } from './factorial';
import { dominated, kneeChance, type KneeChance, type TradePoint } from './knee';
import { deviation, mean } from './numbers/describe';
import type { Placed } from './numbers/interval';
import { mattersOf, quantities, usualSpread } from './quantities';
import { questions } from './questions';
import { withoutRoom, type RoomHeat } from './room';

/** A state of an experiment with what its runs gave. */
export interface ArmResult {
  arm: ArmName;
  sets: Readonly<Record<string, string>>;
  /** Runs that count, with the room taken out of their heat where every run has it; and all of them, as they were measured. */
  counted: TuneRun[];
  runs: TuneRun[];
  /** Mean and spread of what was measured; spread NaN with fewer than two. */
  values: Partial<Record<QuantityCode, { n: number; mean: number; spread: number }>>;
}

/** One state held against the first, in one quantity. */
export interface Comparison {
  arm: ArmName;
  quantity: QuantityCode;
  judged: Judged;
}

/** What is paid and what is got, over the states of an experiment. */
export interface Trade {
  cost: QuantityCode;
  gain: QuantityCode;
  points: (TradePoint & {
    arm: ArmName;
    runPoints: { cost: number; gain: number }[];
  })[];
  beaten: Set<string>;
  knee: KneeChance;
}

/** How far an experiment is, without what it says. */
export interface ExperimentState {
  experiment: Experiment;
  first: QuantityCode;
  changes: Setting[];
  arms: ArmResult[];
  /** The next run by the order; null where all were made. */
  next: { arm: ArmName; place: number } | null;
  /** Runs made and counted, and planned. */
  made: number;
  planned: number;
  /** All runs of one state came before all of the others. */
  inARow: boolean;
  /** How warm the room was while heat was measured. */
  room: RoomHeat;
}

/** What an experiment came to. */
export interface ExperimentResult extends ExperimentState {
  comparisons: Comparison[];
  /** Of a planned factorial of two settings. */
  effects: Effect[] | null;
  trade: Trade | null;
}

/** The values a state of an experiment has; none where there is no such state. */
export const setsOf = (
  { arms }: { readonly arms: readonly { arm: string; sets: Readonly<Record<string, string>> }[] },
  arm: string,
): Readonly<Record<string, string>> => arms.find((a) => a.arm === arm)?.sets ?? {};

/** Whether a run counts: it was not left out, and where heat matters it had settled. */
export const counts = (e: Experiment, r: TuneRun): boolean =>
  r.leftOut === '' && (!questions[e.question].settles || r.steady !== false);

/** Whether it is a factorial: two settings, each with two values, all four together. */
export function isFactorial(e: Experiment): boolean {
  const [a, b] = e.changes;
  if (a === undefined || b === undefined || e.arms.length !== 4) return false;
  const values = (id: string): number => new Set(e.arms.map((x) => x.sets[id])).size;
  return values(a) === 2 && values(b) === 2;
}

const placed = (runs: readonly TuneRun[], code: QuantityCode): Placed[] =>
  runs.flatMap((r) => {
    const value = r.values[code];
    return value === undefined ? [] : [{ value, at: r.place }];
  });

function armOf(
  arm: Experiment['arms'][number],
  runs: readonly TuneRun[],
  compared: readonly TuneRun[],
): ArmResult {
  const mine = runs.filter((r) => r.arm === arm.arm);
  const counted = compared.filter((r) => r.arm === arm.arm);
  const values: ArmResult['values'] = {};
  for (const code of Object.keys(quantities) as QuantityCode[]) {
    const got = placed(counted, code).map((p) => p.value);
    if (got.length > 0) values[code] = { n: got.length, mean: mean(got), spread: deviation(got) };
  }
  return { arm: arm.arm, sets: arm.sets, runs: mine, counted, values };
}

/** How far an experiment is. `all`: runs of its box. */
export function stateOf(
  e: Experiment,
  settings: readonly Setting[],
  all: readonly TuneRun[],
): ExperimentState {
  const runs = all.filter((r) => r.experimentId === e.id).sort((a, b) => a.place - b.place);
  const counted = runs.filter((r) => counts(e, r));
  const { runs: compared, room } = withoutRoom(counted);
  const arms = e.arms.map((a) => armOf(a, runs, compared));
  const turns = counted.filter((r, i) => i > 0 && counted[i - 1]?.arm !== r.arm).length;
  return {
    experiment: e,
    first: questions[e.question].first,
    changes: e.changes.flatMap((id) => settings.find((s) => s.id === id) ?? []),
    arms,
    next: nextRun(e, runs),
    made: counted.length,
    planned: e.order.length,
    inARow: turns > 0 && turns < new Set(counted.map((r) => r.arm)).size && counted.length > 3,
    room,
  };
}

/** Works out what an experiment came to from its runs. Tens of milliseconds: a thread’s work. */
export function resultOf(state: ExperimentState): ExperimentResult {
  const { experiment: e, arms, first } = state;
  const base = arms.find((a) => a.arm === 'A');
  const looked = [first, ...questions[e.question].beside].filter((code) => base?.values[code]);
  const judged = judgeTogether(
    arms.flatMap((a) =>
      a.counted.map((r) => ({ arm: a.arm, at: r.place, values: looked.map((code) => r.values[code]) })),
    ),
    'A',
    looked.map((code) => {
      const was = base?.values[code]?.mean ?? 0;
      return {
        better: quantities[code].better,
        matters: code === first ? e.matters : mattersOf(code, was),
        usual: usualSpread(code, was),
      };
    }),
    e.seed,
  );
  return {
    ...state,
    comparisons: judged.flatMap(({ arm, column, judged: j }) => {
      const quantity = looked[column];
      const name = armNames.find((a) => a === arm);
      return quantity && name ? [{ arm: name, quantity, judged: j }] : [];
    }),
    effects: isFactorial(e) ? effectsOf(e, arms, first) : null,
    trade: tradeOf(e, arms),
  };
}

function effectsOf(e: Experiment, arms: readonly ArmResult[], code: QuantityCode): Effect[] | null {
  const [a = '', b = ''] = e.changes;
  const base = arms.find((x) => x.arm === 'A');
  const runs = arms.flatMap((x) =>
    placed(x.counted, code).map((p): FactorialRun => ({
      first: x.sets[a] === base?.sets[a] ? 0 : 1,
      second: x.sets[b] === base?.sets[b] ? 0 : 1,
      ...p,
    })),
  );
  return factorialEffects(runs) ?? null;
}

/** The next run: the first place of the order for which there is none that counts, or that was left out on purpose. */
function nextRun(e: Experiment, runs: readonly TuneRun[]): { arm: ArmName; place: number } | null {
  const done = new Set(runs.filter((r) => counts(e, r)).map((r) => r.place));
  for (const [place, letter] of [...e.order].entries()) {
    const arm = armNames.find((a) => a === letter);
    if (arm && !done.has(place)) return { arm, place };
  }
  return null;
}

const COSTS: readonly QuantityCode[] = ['wall', 'battery', 'fan', 'hottest'];
const GAINS: readonly QuantityCode[] = ['low percentile', 'rate', 'score', 'write', 'network', 'read'];

/** Watts against frames or bytes a second: the first of each that all states have. */
function tradeOf(e: Experiment, arms: readonly ArmResult[]): Trade | null {
  const inAll = (code: QuantityCode): boolean => arms.every((a) => a.values[code]);
  const cost = COSTS.find(inAll);
  const gain = GAINS.find(inAll);
  if (!cost || !gain || arms.length < 2) return null;
  const points = arms.map((a) => ({
    key: a.arm,
    arm: a.arm,
    cost: a.values[cost]?.mean ?? 0,
    gain: a.values[gain]?.mean ?? 0,
    runs: placed(a.counted, gain).map((p) => p.value),
    runPoints: a.counted.flatMap((r) => {
      const [c, g] = [r.values[cost], r.values[gain]];
      return c === undefined || g === undefined ? [] : [{ cost: c, gain: g }];
    }),
  }));
  return { cost, gain, points, beaten: dominated(points), knee: kneeChance(points, e.seed) };
}

/** The state that is offered to be kept: the knee of a ladder, else the one that is better, else the one it began from. */
export function offeredArm(state: ExperimentState, result: ExperimentResult | null): ArmName | null {
  if (!result) return null;
  if (state.experiment.kept !== null) return state.experiment.kept;
  const knee = state.arms.find((a) => a.arm === result.trade?.knee.knee)?.arm;
  if (knee && state.arms.length > 2) return knee;
  const better = result.comparisons.find((c) => c.quantity === state.first && c.judged.outcome === 'better');
  return better?.arm ?? 'A';
}
