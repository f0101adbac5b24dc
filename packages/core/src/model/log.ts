import { z } from 'zod';
import { stopSchema } from './stops';

const base = {
  id: z.string().min(1).max(80),
  at: z.string(),
  boxId: z.string().nullable(),
  stop: stopSchema.nullable(),
  text: z.string(),
};
const range = z.object({ low: z.number(), high: z.number() });

/** One line of the logbook. Seconds for times. */
export const logEntrySchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('note'), ...base }),
  /** The photo is a record of its own; null where it is gone. */
  z.object({ kind: z.literal('photo'), ...base, photoId: z.string().nullable() }),
  z.object({ kind: z.literal('setting'), ...base, from: z.string(), to: z.string() }),
  z.object({ kind: z.literal('survey'), ...base }),
  z.object({ kind: z.literal('decision'), ...base }),
  z.object({
    kind: z.literal('hash'),
    ...base,
    verdict: z.enum(['same', 'differs', 'not-listed', 'other-size', 'computed']),
    seconds: z.number(),
  }),
  z.object({
    kind: z.literal('write'),
    ...base,
    serial: z.string(),
    result: z.enum(['proven', 'failed', 'cancelled']),
    bytes: z.number(),
    predicted: range.nullable(),
    seconds: z.number(),
    /** Of these, until the last byte was written; null where it was not measured. */
    writeSeconds: z.number().nullable().default(null),
  }),
  z.object({ kind: z.literal('signoff'), ...base }),
]);
export type LogEntry = z.infer<typeof logEntrySchema>;
