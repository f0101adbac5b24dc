import { findMachine, runsOfBox, type Bench, type Box, type TuneRun } from '../model/bench';
import { knownNumber } from '../model/known';
import { noTune, type Experiment, type Panel, type QuantityCode, type TunePlan } from '../model/tune';
import { usualHours } from '../system/cost';
import { evenCaps, capFor, type EvenCap } from './pace';
import { heatGrade, heatLimits, partOf, type HotPart } from './limits';
import { median } from './numbers/describe';
import { counts, stateOf, type ArmResult, type ExperimentState } from './results';
import { batteryMinutes, noiseChange, runningCost, type Running } from './running';
import { throttlingOf, type Throttling } from './sustained';

/** Something about stop 11 that wants looking at. */
export type TuneFault =
  | { code: 'too hot'; part: HotPart; sensor: string; celsius: number; limit: number; source: string }
  | { code: 'warm for long'; part: HotPart; sensor: string; celsius: number; limit: number; source: string }
  | { code: 'throttles'; share: number; from: number; to: number }
  | { code: 'in a row'; experiment: string }
  | { code: 'room not noted'; experiment: string; runs: number; of: number }
  | { code: 'not settled'; runs: number; experiment: string }
  | { code: 'undervolted'; setting: string }
  | { code: 'not decided'; experiment: string }
  | { code: 'works not said' };

/** A fault with how grave it is. */
export interface TuneFinding {
  grade: 'stop' | 'check' | 'note';
  fault: TuneFault;
}

/** Stop 11 of a box. */
export interface BoxTune {
  plan: TunePlan;
  /** How far each experiment is; what it came to is worked out by resultOf. */
  results: ExperimentState[];
  runs: readonly TuneRun[];
  findings: TuneFinding[];
  /** As it came and as it is, where watts were measured: with money a year. */
  running: { came: Running | null; now: Running | null; saved: number | null; hours: number };
  /** Minutes its battery lasts as it came and as it is. */
  battery: { came: number | null; now: number | null } | null;
  /** What its fan does: turns a minute as it came and as it is, and the change of its noise in dB by its speed alone. */
  fan: { came: number; now: number; decibels: number } | null;
  pace: { panel: Panel; caps: EvenCap[]; take: EvenCap | undefined; low: number | null } | null;
}

/** The state an experiment ended in: the one that was kept, or the first where nothing was. */
export const keptArm = (r: ExperimentState): ArmResult | undefined =>
  r.arms.find((a) => a.arm === (r.experiment.kept ?? 'A'));

/** The figure of a quantity as the box came: of the first experiment that has it, its first state. */
const cameAt = (results: readonly ExperimentState[], code: QuantityCode): number | null =>
  results.flatMap((r) => r.arms.find((a) => a.arm === 'A')?.values[code]?.mean ?? [])[0] ?? null;

/** The figure as it is: of the last decided experiment that has it, the state that was kept. */
export const nowAt = (results: readonly ExperimentState[], code: QuantityCode): number | null =>
  results
    .filter((r) => r.experiment.kept !== null)
    .flatMap((r) => keptArm(r)?.values[code]?.mean ?? [])
    .at(-1) ?? cameAt(results, code);

const lately = new WeakMap<Box, { bench: Bench; found: BoxTune }>();

/** What was measured on a box and what it comes to; worked out once for each state of the bench. */
export function tuneOf(bench: Bench, box: Box): BoxTune {
  const before = lately.get(box);
  if (before?.bench === bench) return before.found;
  const plan = box.tune ?? noTune();
  const runs = runsOfBox(bench, box.id);
  const results = plan.experiments.map((e) => stateOf(e, plan.settings, runs));
  const machine = findMachine(bench, box.machineId);
  const hours = box.hoursPerDay ?? usualHours(box.purpose);
  const cost = (watts: number | null): Running | null =>
    watts === null ? null : runningCost(watts, hours, bench.settings.tariff);
  const [came, now] = [cost(cameAt(results, 'wall')), cost(nowAt(results, 'wall'))];
  const left = (knownNumber(machine, 'power.wear') ?? 100) / 100;
  const lasts = (watts: number | null): number | null =>
    watts === null || plan.batteryWattHours === null
      ? null
      : batteryMinutes(plan.batteryWattHours, watts, left);
  const [fanCame, fanNow] = [cameAt(results, 'fan'), nowAt(results, 'fan')];
  const low = nowAt(results, 'low percentile');
  const found: BoxTune = {
    plan,
    results,
    runs,
    findings: findingsOf(box, plan, results, runs),
    running: {
      came,
      now,
      saved: came && now ? came.yearly.money - now.yearly.money : null,
      hours,
    },
    battery:
      plan.batteryWattHours === null
        ? null
        : { came: lasts(cameAt(results, 'battery')), now: lasts(nowAt(results, 'battery')) },
    fan:
      fanCame === null || fanNow === null || fanCame <= 0 || fanNow <= 0
        ? null
        : { came: fanCame, now: fanNow, decibels: noiseChange(fanCame, fanNow) },
    pace: plan.panel && {
      panel: plan.panel,
      caps: evenCaps(plan.panel),
      take: low === null ? undefined : capFor(plan.panel, low),
      low,
    },
  };
  lately.set(box, { bench, found });
  return found;
}

/** Names of an experiment’s settings. */
const nameOf = (plan: TunePlan, e: Experiment): string =>
  e.changes.map((id) => plan.settings.find((s) => s.id === id)?.name ?? id).join(' and ');

/** Runs of the state a box is in: of the last experiment, those of its kept state, or of its first. */
function currentRuns(results: readonly ExperimentState[]): TuneRun[] {
  const last = [...results].reverse().find((r) => (keptArm(r)?.counted.length ?? 0) > 0);
  return last ? (keptArm(last)?.counted ?? []) : [];
}

function heatFindings(runs: readonly TuneRun[]): TuneFinding[] {
  const top = new Map<string, number>();
  for (const r of runs)
    for (const t of r.traces) {
      if (t.unit !== '°C') continue;
      // The last third is what it comes to.
      const warm = median(t.v.slice(-Math.ceil(t.v.length / 3)));
      if (Number.isFinite(warm)) top.set(t.what, Math.max(top.get(t.what) ?? -Infinity, warm));
    }
  const throttled = runs.flatMap((r) => throttledIn(r) ?? [])[0];
  const slow: TuneFinding[] = throttled
    ? [{ grade: 'check', fault: { code: 'throttles', ...throttled } }]
    : [];
  const hot = [...top].flatMap(([sensor, celsius]): TuneFinding[] => {
    const part = partOf(sensor);
    const grade = heatGrade(part, celsius);
    if (grade === 'fine') return [];
    const { check, stop, source } = heatLimits[part];
    const code = grade === 'stop' ? ('too hot' as const) : ('warm for long' as const);
    const limit = grade === 'stop' ? stop : check;
    return [{ grade, fault: { code, part, sensor, celsius, limit, source } }];
  });
  return [...hot, ...slow];
}

/** Clocks that fall while the part is hottest, in what was kept of a run. */
function throttledIn(run: TuneRun): Throttling | undefined {
  const clock = run.traces.find((t) => t.unit === 'MHz');
  const heat = run.traces.find((t) => t.unit === '°C');
  return clock && heat && clock.t.length === heat.t.length ? throttlingOf(clock.v, heat.v) : undefined;
}

function findingsOf(
  box: Box,
  plan: TunePlan,
  results: readonly ExperimentState[],
  runs: readonly TuneRun[],
): TuneFinding[] {
  const out = heatFindings(currentRuns(results));
  for (const r of results) {
    const e = r.experiment;
    const experiment = nameOf(plan, e);
    const warming = runs.filter((x) => x.experimentId === e.id && x.leftOut === '' && !counts(e, x)).length;
    if (warming > 0) out.push({ grade: 'note', fault: { code: 'not settled', runs: warming, experiment } });
    if (r.inARow) out.push({ grade: 'note', fault: { code: 'in a row', experiment } });
    // Noted for some runs alone: somebody meant it to be taken out.
    const { noted, of } = r.room;
    if (noted > 0 && noted < of)
      out.push({ grade: 'note', fault: { code: 'room not noted', experiment, runs: of - noted, of } });
    if (e.kept === null && r.next === null)
      out.push({ grade: 'note', fault: { code: 'not decided', experiment } });
  }
  for (const s of plan.settings)
    if (s.kind === 'undervolting' && s.now !== '' && s.now !== s.came && !/^[-−]?0\D*$/.test(s.now))
      out.push({ grade: 'check', fault: { code: 'undervolted', setting: s.name } });
  if (box.signoffs.some((s) => s.stop === 'tune') && plan.works === null)
    out.push({ grade: 'note', fault: { code: 'works not said' } });
  return out;
}
