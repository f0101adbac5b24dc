import { isOpen, runSheetOf, type RunStep } from '../box/runSheet';
import { hazards } from '../box/summary';
import { gatherList } from '../gather/list';
import { findBox, type Bench, type Box, type LogEntry } from '../model/bench';
import { applyChanges, edited, type Act, type Change } from '../model/changes';
import { noFirst } from '../model/firstStart';
import { noOpening } from '../model/opening';
import { openingOf } from '../opening/forBox';
import { noRun, type RunRecord, type StepRecord } from '../model/run';
import { stops, stopTitle, type Stop } from '../model/stops';
import type { CauseCode } from '../diagnose/causes';
import type { Answered, Moment, Symptom } from '../diagnose/codes';
import { applyEffects, takeEffectsBack, type Applied } from '../runsheet/apply';
import { lasting } from '../runsheet/lasting';
import { formatDuration } from '../units/duration';
import { causeWords } from '../words/diagnose/causes';
import { lookWords, momentWords, symptomWords } from '../words/diagnose/looks';
import { openingStepWords } from '../words/opening';
import { runStepWords } from '../words/runsheet/step';
import { within } from '../words/text';
import { logBase, logged } from './base';
import { addEntry } from './box';
import type { Stamp } from './stamp';

const recordOf = (box: Box): RunRecord => box.run ?? noRun();

/** A clock that ran longer than this was forgotten, and times nothing. Seconds; common practice, no source. */
const FORGOTTEN_SECONDS = 12 * 3600;

/** Seconds by the clock of a step; null where it ran for another, not at all, or was forgotten. */
function clockSeconds({ clock }: Pick<RunRecord, 'clock'>, key: string, now: string): number | null {
  if (clock?.key !== key) return null;
  const seconds = (Date.parse(now) - Date.parse(clock.since)) / 1000;
  return seconds >= 0 && seconds <= FORGOTTEN_SECONDS ? seconds : null;
}

/** What the time of a step is kept with; null where nothing was timed. */
function timedAs({ foretold, table, work }: RunStep, seconds: number | null): StepRecord['timed'] {
  if (seconds === null || !foretold) return null;
  const { median, range } = foretold;
  return { ...work, table, foretold: { ...range, median } };
}

const toggled = (all: readonly string[], keys: readonly string[], on: boolean): string[] =>
  on ? [...new Set([...all, ...keys])] : all.filter((k) => !keys.includes(k));

/** What stands behind the first colon of a step's key. */
const restOf = (key: string): string => key.slice(key.indexOf(':') + 1);

/** Where a stop keeps ticks of its own, they follow the run sheet: the two cannot say otherwise. */
function mirrored(
  bench: Bench,
  box: Box,
  { key, what }: Pick<RunStep, 'key' | 'what'>,
  on: boolean,
): Partial<Box> {
  const rest = restOf(key);
  switch (what.code) {
    case 'lay out': {
      const keys = gatherList(bench, box).lines.flatMap((l) => (l.group === what.group ? [l.key] : []));
      return { gathered: toggled(box.gathered, keys, on) };
    }
    case 'open': {
      const opening = box.opening ?? noOpening();
      return { opening: { ...opening, done: toggled(opening.done, [rest], on) } };
    }
    case 'first start': {
      const first = box.first ?? noFirst();
      return { first: { ...first, done: toggled(first.done, [rest], on) } };
    }
    default:
      return {};
  }
}

/** What was answered at the installer, where it was noted: what later stages show. */
function answered(box: Box, { what }: Pick<RunStep, 'what'>, noted: string): Partial<Box> {
  if (what.code !== 'answer' || noted === '' || what.question === 'password') return {};
  const key = what.question === 'edition' ? 'set of software' : what.question;
  const first = box.first ?? noFirst();
  return { first: { ...first, set: { ...first.set, [key]: noted } } };
}

/** A step as it is done, with what was noted at it: bench and box afterwards, and what its record keeps of it. */
function performed(bench: Bench, box: Box, step: RunStep, noted: string, at: string): Applied {
  const after = applyEffects(bench, box, step.effects, at);
  const to = { ...after.box, ...mirrored(bench, after.box, step, true) };
  return { ...after, box: { ...to, ...answered(to, step, noted) } };
}

/** What the record of a step keeps so that the step can be taken back. */
const recorded = ({
  before: { media, fact, firmware },
}: Applied): Pick<StepRecord, 'fact' | 'media' | 'firmware'> => ({
  fact,
  ...(media.length > 0 ? { media } : {}),
  ...(firmware ? { firmware } : {}),
});

/** A box whose stops are signed off where all their steps are settled and no Stop stands against it. */
function signedOff(
  bench: Bench,
  box: Box,
  stamp: Stamp,
): { box: Box; lines: LogEntry[]; stops: Stop[]; next: string | null } {
  const after = applyChanges(bench, [{ in: 'boxes', id: box.id, to: box }]);
  const now = findBox(after, box.id) ?? box;
  const { steps, next } = runSheetOf(after, now);
  const against = hazards(after, now).filter((h) => h.grade === 'stop');
  const settled = stops.filter(
    (stop) =>
      !box.signoffs.some((s) => s.stop === stop) &&
      !against.some((h) => h.stop === stop) &&
      steps.some((s) => s.stop === stop) &&
      !steps.some((s) => s.stop === stop && isOpen(s)),
  );
  return {
    box: { ...box, signoffs: [...box.signoffs, ...settled.map((stop) => ({ stop, at: stamp.now }))] },
    lines: settled.map((stop) => ({
      kind: 'signoff',
      ...logBase(box, stop, stamp),
      text: `${stopTitle[stop]} signed off`,
    })),
    stops: settled,
    // What is signed off had no step left: the next one stays the next.
    next: next?.key ?? null,
  };
}

/**
 * A step is done: kept with its time, with what was noted, and as what it was. A stop is signed off with its last step
 * where nothing stands against that; the clock goes on with the next. `since`: from when on it was worked on, where no step
 * before led to it (ISO 8601, UTC).
 */
export function doneStep(
  bench: Bench,
  box: Box,
  step: RunStep,
  noted: string,
  stamp: Stamp,
  since: string | null = null,
): Act & { signed: Stop[] } {
  const record = recordOf(box);
  const { title } = runStepWords(step.what);
  const clock = record.clock ?? (since === null ? null : { key: step.key, since });
  const seconds = clockSeconds({ clock }, step.key, stamp.now);
  const { [step.key]: _, ...left } = record.left;
  const kept = noted.trim().slice(0, 500);
  const after = performed(bench, box, step, kept, stamp.now);
  const done: Box = {
    ...after.box,
    run: {
      ...record,
      left,
      clock: null,
      steps: {
        ...record.steps,
        [step.key]: {
          at: stamp.now,
          seconds,
          as: lasting(step.what),
          said: title.slice(0, 500),
          noted: kept,
          timed: timedAs(step, seconds),
          ...recorded(after),
        },
      },
    },
  };
  const { box: signed, lines, stops: signedStops, next } = signedOff(after.bench, done, stamp);
  const run: RunRecord = {
    ...(signed.run ?? noRun()),
    clock: next === null ? null : { key: next, since: stamp.now },
  };
  const told = noteOf(box, step, noted.trim(), title, seconds, stamp);
  return {
    label: `Done: ${title}`,
    changes: [
      ...after.changes,
      edited('boxes', box, { ...signed, run }),
      ...[...(told ? [told] : []), ...lines].map((l): Change => logged(l)),
    ],
    signed: signedStops,
  };
}

/** What the log says of a step: a setting with what it was and became, or what was noted. */
function noteOf(
  box: Box,
  step: RunStep,
  noted: string,
  title: string,
  seconds: number | null,
  stamp: Stamp,
): LogEntry | null {
  const base = logBase(box, step.stop, stamp);
  const { what } = step;
  if (what.code === 'set')
    return {
      kind: 'setting',
      ...base,
      text: what.of === null ? what.setting : `${what.setting} (${what.of})`,
      from: noted || what.from || 'not noted',
      to: what.to,
    };
  if (noted === '') return null;
  const took = seconds === null ? '' : `, ${formatDuration(seconds)}`;
  return { kind: 'note', ...base, text: `${title}: ${noted}${took}` };
}

/** A step is not done after all. */
export function undoneStep(bench: Bench, box: Box, step: RunStep): Act {
  const record = recordOf(box);
  const { [step.key]: was, ...steps } = record.steps;
  const { title } = runStepWords(step.what);
  const back = takeEffectsBack(bench, box, step.effects, was ?? {});
  return {
    label: `Not done after all: ${title}`,
    changes: [
      ...back.changes,
      edited('boxes', box, {
        ...back.box,
        ...mirrored(bench, back.box, step, false),
        run: { ...record, steps, clock: null },
      }),
    ],
  };
}

/**
 * Ticks a step of opening the machine, or takes the tick back: the same act as on the run sheet. What a precaution keeps out
 * until the system is on stands at Opening alone, and moves on the shelf all the same.
 */
export function tickOpening(bench: Bench, box: Box, key: string, on: boolean, stamp: Stamp): Act {
  const step = runSheetOf(bench, box).steps.find((s) => s.key === `open:${key}`);
  if (step) return on ? doneStep(bench, box, step, '', stamp) : undoneStep(bench, box, step);
  const found = openingOf(bench, box);
  const later = 'code' in found ? undefined : found.steps.find((s) => s.key === key);
  const effects = later?.effects ?? [];
  const title = later ? openingStepWords(later.what).title : 'Opening the machine';
  const after = on ? applyEffects(bench, box, effects, stamp.now) : takeEffectsBack(bench, box, effects, {});
  const opening = after.box.opening ?? noOpening();
  return {
    label: on ? `Done: ${title}` : `Not done after all: ${title}`,
    changes: [
      ...after.changes,
      edited('boxes', box, { ...after.box, opening: { ...opening, done: toggled(opening.done, [key], on) } }),
    ],
  };
}

/** Keeps a photograph of a step: it lies in the log, and shows that the step was done. `photo`: a data URL. */
export function photographStep(box: Box, step: RunStep, photo: string, stamp: Stamp): Act {
  const { title } = runStepWords(step.what);
  const { changes } = addEntry(box, step.stop, { kind: 'photo', text: title, photo }, stamp);
  const ids = changes.flatMap((c) => (c.in === 'photos' ? [c.id] : []));
  const record = recordOf(box);
  const photos = { ...record.photos, [step.key]: [...(record.photos[step.key] ?? []), ...ids] };
  return {
    label: `Photo: ${title}`,
    changes: [...changes, edited('boxes', box, { ...box, run: { ...record, photos } })],
  };
}

/** A step is left out, with the reason; null takes it in again. */
export function leaveStep(box: Box, step: RunStep, because: string | null, stamp: Stamp): Act {
  const record = recordOf(box);
  const { [step.key]: _, ...left } = record.left;
  const { title } = runStepWords(step.what);
  if (because === null)
    return {
      label: `Taken in again: ${title}`,
      changes: [edited('boxes', box, { ...box, run: { ...record, left } })],
    };
  const text = `Left out: ${title}: ${because}`;
  return {
    label: `Left out: ${title}`,
    changes: [
      edited('boxes', box, {
        ...box,
        run: {
          ...record,
          clock: null,
          left: { ...left, [step.key]: { at: stamp.now, because: because.slice(0, 500) } },
        },
      }),
      logged({ kind: 'note', ...logBase(box, step.stop, stamp), text }),
    ],
  };
}

/** What was seen, looked at and found where something looked different. */
export interface Diagnosis {
  moment: Moment;
  seen: readonly Symptom[];
  answered: readonly Answered[];
  cause: CauseCode;
}

/** Keeps in the log what was seen and found; the cure becomes a step before the one at which it happened. */
export function noteDiagnosis(box: Box, step: RunStep, found: Diagnosis, stamp: Stamp): Act {
  const record = recordOf(box);
  const { title } = causeWords(found.cause);
  const looked = found.answered.flatMap(({ look, answer }) =>
    answer === null ? [] : [`${lookWords(look)} ${answer}`],
  );
  const text = [
    `It looked different ${momentWords(found.moment)}: ${found.seen.map((s) => within(symptomWords(s))).join(', ')}`,
    ...looked,
    `put down to: ${within(title)}`,
  ].join('. ');
  return {
    label: `Put down to: ${within(title)}`,
    changes: [
      edited('boxes', box, {
        ...box,
        run: {
          ...record,
          cures: [...record.cures, { id: stamp.id(), step: step.key, cause: found.cause, at: stamp.now }],
        },
      }),
      logged({ kind: 'note', ...logBase(box, step.stop, stamp), text }),
    ],
  };
}

/**
 * Ticks that were made on a sheet that travelled, taken into the box: what is done here already stays as it is. The answer
 * says how many are new, how many were known, and which name no step of this box.
 */
export function takeTicks(
  bench: Bench,
  box: Box,
  ticks: RunRecord['steps'],
): { act: Act; fresh: number; known: number; strange: string[] } {
  const byKey = new Map(runSheetOf(bench, box).steps.map((s) => [s.key, s]));
  const record = recordOf(box);
  const all = Object.entries(ticks);
  const strange = all.map(([key]) => key).filter((key) => !byKey.has(key));
  const fresh = all.filter(([key]) => byKey.has(key) && byKey.get(key)?.state !== 'done');
  let to = box;
  const taken: RunRecord['steps'] = {};
  // Each is done after the one before it: all are of one machine.
  let known = bench;
  const changes: Change[] = [];
  for (const [key, tick] of fresh) {
    const step = byKey.get(key);
    if (!step) continue;
    const after = performed(known, to, step, tick.noted, tick.at);
    ({ bench: known, box: to } = after);
    changes.push(...after.changes);
    taken[key] = { ...tick, timed: timedAs(step, tick.seconds), ...recorded(after) };
  }
  return {
    act: {
      label: `${fresh.length} steps of ${box.name} taken from the sheet that travelled`,
      changes: [
        ...changes,
        edited('boxes', box, {
          ...to,
          run: { ...record, clock: null, steps: { ...record.steps, ...taken } },
        }),
      ],
    },
    fresh: fresh.length,
    known: all.length - fresh.length - strange.length,
    strange,
  };
}
