import { z } from 'zod';
import {
  panelSchema,
  quantityCodes,
  roomSchema,
  tuneQuestionSchema,
  type Panel,
  type QuantityCode,
} from '@zb/core/model/tune';
import { allowedBy } from '@zb/core/tune/allows';
import { judgeTogether } from '@zb/core/tune/compare';
import { designOf } from '@zb/core/tune/design';
import { tuneCsv, tuneJson } from '@zb/core/tune/exported';
import { tuneOf } from '@zb/core/tune/forBox';
import { LogReadError, type TuneLog } from '@zb/core/tune/logs/log';
import { readLog } from '@zb/core/tune/logs/read';
import { logView } from '@zb/core/tune/logView';
import { mean } from '@zb/core/tune/numbers/describe';
import { mattersOf, quantities, usualSpread } from '@zb/core/tune/quantities';
import { resultOf } from '@zb/core/tune/results';
import { withoutRoom } from '@zb/core/tune/room';
import { readRun, steadinessOf } from '@zb/core/tune/runValues';
import { standInLog } from '@zb/core/tune/standin/asLog';
import { runStandIn, settledTruth, standInTruth } from '@zb/core/tune/standin/machine';
import {
  chanceWords,
  differenceWords,
  judgedWords,
  logErrorWords,
  logFaultWords,
  outcomeWords,
  roomWords,
  steadinessWords,
  tuneHeadline,
} from '@zb/core/words/tune';
import { tuneFaultWords } from '@zb/core/words/tuneFault';
import { boxOf, readBench } from './benchOutput';
import { InputError } from './inputFile';
import { readPlan } from './planFile';

/** What is asked of a log. */
export interface LogAsked {
  measure?: string | undefined;
  panel?: string | undefined;
}

const numberOf = (text: string | undefined, what: string, least = 0): number | null => {
  if (text === undefined) return null;
  const n = Number(text);
  if (!Number.isFinite(n) || n < least) throw new InputError(`${what} must be a number from ${least} on`);
  return n;
};

/** A panel as it is typed: “60”, or “60,40-60” with the range it follows. Throws InputError. */
function panelOf(text: string | undefined): Panel | null {
  if (text === undefined) return null;
  const found = /^(\d+(?:\.\d+)?)(?:,(\d+(?:\.\d+)?)-(\d+(?:\.\d+)?))?$/.exec(text.trim());
  const read = panelSchema.safeParse({
    hz: Number(found?.[1]),
    low: found?.[2] === undefined ? null : Number(found[2]),
    high: found?.[3] === undefined ? null : Number(found[3]),
  });
  if (!found || !read.success)
    throw new InputError('--panel is “60”, or “60,40-60” with the range it follows');
  return read.data;
}

function logOf(name: string, bytes: Uint8Array): TuneLog {
  try {
    return readLog(bytes);
  } catch (error) {
    if (error instanceof LogReadError) throw new InputError(logErrorWords(name, error));
    throw error;
  }
}

const askOf = (asked: LogAsked) => ({
  measureSeconds: numberOf(asked.measure, '--measure', 1),
  panel: panelOf(asked.panel),
});

/** What `zb tune read` prints of one file. Throws InputError. */
export function logOutput(name: string, bytes: Uint8Array, asked: LogAsked): object {
  const view = logView(logOf(name, bytes), askOf(asked));
  const { reading } = view;
  const { heat, frames, sustained, throttling, values, within, steady, frameCount, from, to } = reading;
  return {
    file: name,
    kind: view.kind,
    lines: view.lines,
    measured: { from, to },
    values,
    within,
    steady,
    heat: heat && { part: heat.part, ...heat.steadiness, says: steadinessWords(heat.steadiness) },
    frameCount,
    frames,
    sustained,
    throttling,
    links: {
      write: values.write === undefined ? undefined : allowedBy('drive', values.write),
      read: values.read === undefined ? undefined : allowedBy('drive', values.read),
      network: values.network === undefined ? undefined : allowedBy('wire', values.network),
    },
    series: view.series.map(({ trace: _trace, ...s }) => s),
    facts: view.facts,
    faults: view.faults.map((f) => ({ ...f, says: logFaultWords(f) })),
  };
}

/** What is asked of a comparison. */
export interface CompareAsked extends LogAsked {
  quantity?: string | undefined;
  matters?: string | undefined;
  order?: string | undefined;
  /** Room temperatures of the runs, °C, with commas: those before, then those after. */
  room?: string | undefined;
}
interface File {
  name: string;
  bytes: Uint8Array;
}

/** The place of each run, before and after, from the order in which they were made. Throws InputError. */
function placesOf(order: string | undefined, before: number, after: number): [number[], number[]] {
  if (order === undefined)
    return [Array.from({ length: before }, (_, i) => i), Array.from({ length: after }, (_, i) => before + i)];
  const letters = [...order.toUpperCase().replace(/[\s,]/g, '')];
  const of = (letter: string): number[] => letters.flatMap((l, i) => (l === letter ? [i] : []));
  const [a, b] = [of('A'), of('B')];
  if (a.length !== before || b.length !== after || a.length + b.length !== letters.length)
    throw new InputError(`--order must have ${before} A and ${after} B`);
  return [a, b];
}

/** Room temperatures for so many runs; null for each where none are told. Throws InputError. */
function roomsOf(room: string | undefined, runs: number): (number | null)[] {
  if (room === undefined) return Array.from({ length: runs }, () => null);
  const read = z
    .array(roomSchema)
    .length(runs)
    .safeParse(room.split(',').map((t) => (t.trim() === '' ? NaN : Number(t))));
  if (!read.success)
    throw new InputError(
      `--room is ${runs} temperatures from -30 to 60 °C with commas between them: those before, then those after`,
    );
  return read.data;
}

/** What `zb tune compare` prints: every quantity that all runs have, judged together. Throws InputError. */
export function compareOutput(before: readonly File[], after: readonly File[], asked: CompareAsked): object {
  const ask = askOf(asked);
  const wanted = z.enum(quantityCodes).optional().safeParse(asked.quantity);
  if (!wanted.success) throw new InputError(`--quantity is one of: ${quantityCodes.join(', ')}`);
  const matters = numberOf(asked.matters, '--matters');
  const [pa, pb] = placesOf(asked.order, before.length, after.length);
  const run = (arm: string, files: readonly File[], places: readonly number[]) =>
    files.map((f, i) => ({
      arm,
      at: places[i] ?? i,
      file: f.name,
      reading: readRun(logOf(f.name, f.bytes), ask),
    }));
  const read = [...run('A', before, pa), ...run('B', after, pb)];
  const rooms = roomsOf(asked.room, read.length);
  const { runs, room } = withoutRoom(
    read.map((r, i) => ({ ...r, values: r.reading.values, room: rooms[i] ?? null })),
  );
  const codes = quantityCodes.filter(
    (c): c is QuantityCode =>
      (wanted.data === undefined || wanted.data === c) && runs.every((r) => r.values[c] !== undefined),
  );
  if (codes.length === 0) throw new InputError('no quantity is in all of these logs');
  const judged = judgeTogether(
    runs.map((r) => ({ arm: r.arm, at: r.at, values: codes.map((c) => r.values[c]) })),
    'A',
    codes.map((c) => {
      const was = mean(runs.filter((r) => r.arm === 'A').map((r) => r.values[c] ?? 0));
      return {
        better: quantities[c].better,
        matters: matters !== null && codes.length === 1 ? matters : mattersOf(c, was),
        usual: usualSpread(c, was),
      };
    }),
  );
  return {
    runs: runs.map((r) => ({
      side: r.arm === 'A' ? 'before' : 'after',
      place: r.at,
      file: r.file,
      steady: r.reading.steady,
      room: r.room,
      values: Object.fromEntries(codes.map((c) => [c, r.reading.values[c]])),
    })),
    room: { ...room, says: roomWords(room) },
    order: asked.order === undefined ? 'not told: all before are taken to come first' : asked.order,
    comparisons: judged.flatMap(({ column, judged: j }) => {
      const code = codes[column];
      return code === undefined
        ? []
        : [
            {
              quantity: code,
              unit: quantities[code].unit,
              ...j,
              says: `${outcomeWords(code, j.outcome)} ${differenceWords(code, j)} ${judgedWords(code, j)}`.trim(),
            },
          ];
    }),
  };
}

/** What `zb tune plan` prints. Throws InputError. */
export function designOutput(text: string): object {
  const design = designOf(readPlan(text, tuneQuestionSchema));
  return { ...design, says: chanceWords(design) };
}

/** What `zb tune steady` prints: every temperature of a log. Throws InputError. */
export function steadyOutput(name: string, bytes: Uint8Array) {
  const log = logOf(name, bytes);
  const heats = log.series.filter((s) => s.kind === 'temperature');
  if (heats.length === 0) throw new InputError(`no temperature is in ${name}`);
  return {
    file: name,
    series: heats.map((s) => {
      const steadiness = steadinessOf(log, s) ?? { code: 'too short' as const };
      return { part: s.part, ...steadiness, says: steadinessWords(steadiness) };
    }),
    faults: log.faults.map((f) => ({ ...f, says: logFaultWords(f) })),
  };
}

/** What `zb tune result` prints. Throws InputError. */
export function resultOutput(text: string, boxId: string, as: string): object | string {
  const bench = readBench(text);
  const box = boxOf(bench, boxId);
  if (as === 'csv') return tuneCsv(bench, box);
  if (as === 'runs') return tuneJson(bench, box);
  if (as !== 'json') throw new InputError('--as is json, csv or runs');
  const found = tuneOf(bench, box);
  return {
    experiments: found.results.map((state) => {
      const result = resultOf(state);
      const { trade } = result;
      return {
        id: state.experiment.id,
        says: tuneHeadline(box.name, state, result),
        question: state.experiment.question,
        order: state.experiment.order,
        made: state.made,
        planned: state.planned,
        next: state.next,
        kept: state.experiment.kept,
        states: state.arms.map((a) => ({
          state: a.arm,
          sets: a.sets,
          runs: a.counted.length,
          values: a.values,
        })),
        comparisons: result.comparisons.map((c) => ({
          state: c.arm,
          quantity: c.quantity,
          ...c.judged,
          says: `${outcomeWords(c.quantity, c.judged.outcome)} ${differenceWords(c.quantity, c.judged)}`.trim(),
        })),
        effects: result.effects,
        trade: trade && {
          cost: trade.cost,
          gain: trade.gain,
          points: trade.points.map(({ key, cost, gain }) => ({
            state: key,
            cost,
            gain,
            beaten: trade.beaten.has(key),
          })),
          knee: trade.knee,
        },
      };
    }),
    running: found.running,
    battery: found.battery,
    fan: found.fan,
    pace: found.pace,
    findings: found.findings.map((f) => ({ ...f, says: tuneFaultWords(f.fault) })),
  };
}

/** What is asked of the stand-in machine. */
export interface StandInAsked {
  limit: string;
  boost: string;
  lines: string;
  cap?: string | undefined;
  paste: string;
  seed: string;
  place: string;
  settle: string;
  measure: string;
  as: string;
}

/** What `zb tune stand-in` prints. Throws InputError. */
export function standInOutput(asked: StandInAsked): object | string {
  const set = {
    limit: numberOf(asked.limit, '--limit', 3) ?? 31,
    boost: asked.boost !== 'off',
    lines: numberOf(asked.lines, '--lines', 200) ?? 1080,
    cap: numberOf(asked.cap, '--cap', 1),
    paste: asked.paste === 'fresh' ? 1 : 0,
  };
  const settle = Math.min(20_000, numberOf(asked.settle, '--settle') ?? 900);
  const measure = Math.min(20_000, numberOf(asked.measure, '--measure', 1) ?? 60);
  const run = runStandIn(standInTruth(), set, {
    seed: numberOf(asked.seed, '--seed') ?? 1,
    place: numberOf(asked.place, '--place') ?? 0,
    settle,
    measure,
  });
  if (asked.as === 'frames') return [...run.frames].join('\n') + '\n';
  if (asked.as === 'csv') {
    const heads =
      'seconds,processor package (°C),fan (rpm),processor package power (W),wall power (W),processor clock (MHz)';
    const rows = [...run.t].map((t, i) =>
      [
        t,
        run.die[i],
        run.fan[i],
        run.chipWatts[i]?.toFixed(3),
        run.wallWatts[i]?.toFixed(3),
        run.clock[i],
      ].join(','),
    );
    return [heads, ...rows].join('\n') + '\n';
  }
  if (asked.as !== 'json') throw new InputError('--as is json, frames or csv');
  const { values, within, steady, heat, frames } = readRun(standInLog(run), {
    measureSeconds: measure,
    panel: null,
  });
  return { set, values, within, steady, heat, frames, truth: settledTruth(standInTruth(), set) };
}
