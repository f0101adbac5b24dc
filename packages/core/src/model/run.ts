import { z } from 'zod';
import { factKeys, factRecordSchema, type FactKey } from './facts';
import { mediumBeforeSchema } from './medium';
import { machineSchema } from './shelf';

/** Ids and names of drivers, which a bench holds to 200 characters, stand in keys. */
const key = z.string().min(1).max(400);
/** So long is a step as data at most. */
export const STEP_LENGTH = 50_000;

const seconds = z.number().nonnegative().max(1e8);
const range = z.object({ low: seconds, high: seconds }).refine((r) => r.low <= r.high, 'low is above high');

/** What a time says of the next one: on what it was measured, what is usual, what was foretold. Seconds, eight of ten. */
export const timedSchema = z.object({
  act: z.string().min(1).max(200),
  kind: z.string().max(80).nullable(),
  system: z.string().max(200).nullable(),
  table: range,
  foretold: range.extend({ median: seconds }),
});

const { bootFirst, portsOff, keysEnrolled } = machineSchema.shape;
/** What a step may change of a machine’s firmware, as it was before. */
export const firmwareBeforeSchema = z.object({
  bootFirst,
  portsOff,
  /** Not there of a time before it was kept. */
  keysEnrolled: keysEnrolled.unwrap().optional(),
});
/** What a step may change of a machine’s firmware, as it was before. */
export type FirmwareBefore = z.infer<typeof firmwareBeforeSchema>;

/** A step that was done. */
export const stepRecordSchema = z.object({
  /** When it was done (ISO 8601, UTC). */
  at: z.iso.datetime(),
  /** Seconds it took, by the clock that ran meanwhile; null where none ran. */
  seconds: z.number().nonnegative().max(1e7).nullable(),
  /** What was done, as data in JSON: a step that is something else today has changed since. */
  as: z.string().max(STEP_LENGTH),
  /** The same as it was read, for people alone. */
  said: z.string().max(500),
  /** What was noted: a setting as it was found, a serial, a figure. */
  noted: z.string().max(500).default(''),
  /** What its time was measured on; null where no clock ran, or it is of a time before this was kept. */
  timed: timedSchema.nullable().default(null),
  /** The fact of the machine that it changed, and what had been entered there before; null where it changed none. */
  fact: z
    .object({
      key: z.enum(factKeys as [FactKey, ...FactKey[]]),
      entered: factRecordSchema.shape.entered.nullable(),
    })
    .nullable()
    .default(null),
  /** Media that it changed, as they were before; not there where it changed none. */
  media: z.array(mediumBeforeSchema).max(50).optional(),
  /** Boot order and ports of the machine as they were before; not there where it changed neither. */
  firmware: firmwareBeforeSchema.optional(),
});
/** A step that was done. */
export type StepRecord = z.infer<typeof stepRecordSchema>;

/** A step that is left out, and why. */
export const leftOutSchema = z.object({ at: z.iso.datetime(), because: z.string().min(1).max(500) });

/** What a box keeps of its run sheet, by the keys of the steps. */
export const runRecordSchema = z.object({
  steps: z.record(key, stepRecordSchema).default({}),
  left: z.record(key, leftOutSchema).default({}),
  /** What something that looked different was put down to, at which step: its cure comes before that step. */
  cures: z
    .array(z.object({ id: key, step: key, cause: z.string().min(1).max(80), at: z.iso.datetime() }))
    .max(200)
    .default([]),
  /** Photographs that were taken of a step, by their ids. */
  photos: z.record(key, z.array(z.string().max(80)).max(50)).default({}),
  /** The step whose clock runs, and since when; null where none does. */
  clock: z.object({ key, since: z.iso.datetime() }).nullable().default(null),
});
/** What a box keeps of its run sheet. */
export type RunRecord = z.infer<typeof runRecordSchema>;

/** Nothing was done yet. */
export const noRun = (): RunRecord => ({ steps: {}, left: {}, cures: [], photos: {}, clock: null });
