import type { Panel, QuantityCode, Trace, TuneRun } from '../model/tune';
import { judgeFrames, type FrameReport } from './frames';
import { partOf } from './limits';
import { mean } from './numbers/describe';
import { seriesUnits, type LogFault, type Series, type TuneLog } from './logs/log';
import { judgeSteady, type Steadiness } from './steady';
import { sustainedOf, throttlingOf, type Sustained, type Throttling } from './sustained';

/** What a log says of a run. */
export interface RunReading {
  values: TuneRun['values'];
  within: TuneRun['within'];
  /** How the hottest part warmed up; null where no heat was recorded. */
  heat: { part: string; steadiness: Steadiness } | null;
  steady: boolean | null;
  tau: number | null;
  frames: FrameReport | null;
  sustained: Sustained | null;
  throttling: Throttling | null;
  traces: Trace[];
  /** The frames that are kept, and how many there were. */
  keptFrames: number[];
  frameCount: number;
  /** Seconds that were measured: from the log’s own beginning. */
  from: number;
  to: number;
  faults: LogFault[];
}

/** Readings of a series within a stretch, without such as are missing. */
function within(s: Series, from: number, to: number): { t: number[]; v: number[] } {
  const out = { t: [] as number[], v: [] as number[] };
  for (let i = 0; i < s.t.length; i += 1) {
    const [t, v] = [s.t[i] ?? NaN, s.v[i] ?? NaN];
    if (t >= from && t <= to && Number.isFinite(v)) {
      out.t.push(t);
      out.v.push(v);
    }
  }
  return out;
}

const KEPT_POINTS = 240;
const KEPT_FRAMES = 20_000;
const short = (n: number): number => Math.round(n * 1000) / 1000;

/** A series as it is kept: at most so many points, each the mean of an equal stretch. */
export function traceOf(what: string, unit: string, t: ArrayLike<number>, v: ArrayLike<number>): Trace {
  const good = Array.from({ length: v.length }, (_, i) => i).filter((i) => Number.isFinite(v[i]));
  const every = Math.max(1, Math.ceil(good.length / KEPT_POINTS));
  const out: Trace = { what: what.slice(0, 120), unit, t: [], v: [] };
  for (let i = 0; i < good.length; i += every) {
    const part = good.slice(i, i + every);
    out.t.push(short(mean(part.map((k) => t[k] ?? 0))));
    out.v.push(short(mean(part.map((k) => v[k] ?? 0))));
  }
  return out;
}

const best = <T>(list: readonly T[], of: (x: T) => number): T | undefined =>
  list.reduce<T | undefined>((a, x) => (a === undefined || of(x) > of(a) ? x : a), undefined);

/** What is asked of a log. */
export interface RunAsk {
  /** The last so many seconds of it are measured; without it, all of it. */
  measureSeconds: number | null;
  panel: Panel | null;
  seed?: number;
}

/**
 * Whether a temperature of a log settled; null where it has no reading. A boost window is told by the power of the part, else by its
 * clock, where either was read as often.
 */
export function steadinessOf(log: TuneLog, heat: Series): Steadiness | null {
  const warm = within(heat, -Infinity, Infinity);
  if (warm.t.length === 0) return null;
  const boostBy =
    log.series.find((s) => s.kind === 'power' && s.where === 'part') ??
    log.series.find((s) => s.kind === 'clock');
  const lined = boostBy && warm.t.length === boostBy.v.length && boostBy.v.every(Number.isFinite);
  return judgeSteady(warm.t, warm.v, lined ? boostBy.v : undefined);
}

/** Works out of a log what a run gave: the figures of its measured stretch, whether it had settled, and what is kept of it. */
export function readRun(log: TuneLog, { measureSeconds, panel, seed = 1 }: RunAsk): RunReading {
  const last = Math.max(0, ...log.series.map((s) => s.t[s.t.length - 1] ?? 0));
  const from = measureSeconds === null ? 0 : Math.max(0, last - measureSeconds);
  const values: Partial<Record<QuantityCode, number>> = {};
  const bounds: RunReading['within'] = {};
  const meanOf = (s: Series): number => mean(within(s, from, last).v);
  const of = (kind: Series['kind'], where?: Series['where']): Series[] =>
    log.series.filter(
      (s) =>
        s.kind === kind && (where === undefined || s.where === where) && within(s, from, last).v.length > 0,
    );
  const put = (code: QuantityCode, value: number | undefined): void => {
    if (value !== undefined && Number.isFinite(value)) values[code] = value;
  };

  const hottest = best(of('temperature'), meanOf);
  if (hottest) put('hottest', meanOf(hottest));
  const fan = best(of('fan'), meanOf);
  if (fan) put('fan', meanOf(fan));
  const noise = best(of('noise'), meanOf);
  if (noise) put('noise', meanOf(noise));
  const wall = best(of('power', 'wall'), meanOf);
  if (wall) put('wall', meanOf(wall));
  const battery = best(of('power', 'battery'), (s) => Math.abs(meanOf(s)));
  if (battery) put('battery', Math.abs(meanOf(battery)));
  const frames = framesWithin(log, measureSeconds);
  const report = frames ? (judgeFrames(frames, panel, { seed }) ?? null) : null;
  if (report) {
    put('rate', report.rate.value);
    put('low percentile', report.lowPercentile.value);
    put('low average', report.lowAverage.value);
    put('pace', report.pace.median);
    put('stutters', report.stutters.perMinute);
    bounds.rate = [report.rate.low, report.rate.high];
    bounds['low percentile'] = [report.lowPercentile.low, report.lowPercentile.high];
    bounds['low average'] = [report.lowAverage.low, report.lowAverage.high];
  } else {
    const rate = best(of('frames'), (s) => s.t.length);
    if (rate) put('rate', meanOf(rate));
  }
  const written = best(of('write'), (s) => s.t.length);
  const sustained = written ? (sustainedOf(written.t, written.v) ?? null) : null;
  const fact = (what: string): number | undefined => {
    const all = log.facts.filter((f) => f.what === what);
    return all.length === 0 ? undefined : all.reduce((s, f) => s + f.value, 0);
  };
  put('write', sustained?.steady ?? fact('write rate'));
  const readAt = best(of('read'), (s) => s.t.length);
  put('read', readAt ? meanOf(readAt) : fact('read rate'));
  put('network', fact('network rate'));
  put('score', fact('score'));

  const clock = log.series.find((s) => s.kind === 'clock');
  const steadiness = hottest ? steadinessOf(log, hottest) : null;
  const boost = steadiness && 'boost' in steadiness ? steadiness.boost : 0;
  const after = (s: Series): number[] => within(s, boost, last).v;
  return {
    values,
    within: bounds,
    heat: steadiness && hottest ? { part: hottest.part, steadiness } : null,
    steady: steadyWhen(steadiness, from),
    tau: steadiness && 'tau' in steadiness && steadiness.code === 'steady' ? steadiness.tau : null,
    frames: report,
    sustained,
    throttling: clock && hottest ? (throttlingOf(after(clock), after(hottest)) ?? null) : null,
    traces: tracesOf(log.series, hottest),
    keptFrames: frames ? Array.from(frames.subarray(0, KEPT_FRAMES), short) : [],
    frameCount: frames?.length ?? 0,
    from,
    to: last,
    faults: log.faults,
  };
}

/** Whether it had settled when the measuring began; null where nobody can tell. */
function steadyWhen(s: Steadiness | null, from: number): boolean | null {
  if (!s || s.code === 'too short') return null;
  if (s.code === 'level') return true;
  // What begins a little before it counts is no other reading.
  return s.code === 'steady' ? s.at <= from + 0.1 * (s.fit.to - from) + 5 : false;
}

/** The frames that are measured: the last seconds of a log that goes on longer. */
function framesWithin(log: TuneLog, seconds: number | null): Float64Array | null {
  const { frames } = log;
  if (!frames || seconds === null) return frames;
  let left = seconds * 1000;
  let from = frames.length;
  while (from > 0 && left > 0) {
    from -= 1;
    left -= frames[from] ?? 0;
  }
  return frames.subarray(from);
}

/** The series that are kept of a run: the hottest part first, then one of each other kind, and of each place power is taken. */
function tracesOf(series: readonly Series[], hottest: Series | undefined): Trace[] {
  const seen = new Set<string>();
  const kept = [...(hottest ? [hottest] : []), ...series].filter((s) => {
    const key = s.kind === 'temperature' ? `${s.kind} ${partOf(s.part)}` : `${s.kind} ${s.where}`;
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  });
  return kept.slice(0, 12).map((s) => traceOf(s.part, seriesUnits[s.kind], s.t, s.v));
}
