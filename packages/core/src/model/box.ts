import { z } from 'zod';
import { mediumBeforeSchema } from './medium';
import { purposeSchema } from './profile';
import { runRecordSchema } from './run';
import { stopRecords } from './stopRecords';
import { stopSchema } from './stops';

export const decisionSchema = z.object({
  id: z.string(),
  stop: stopSchema,
  what: z.string(),
  value: z.string(),
  because: z.string(),
  at: z.string(),
});

/** A stop signed off; `despite` is the reason given where a Stop hazard stood against it. */
export const signoffSchema = z.object({
  stop: stopSchema,
  at: z.string(),
  despite: z.string().optional(),
  /** Media that it changed, as they were before. */
  media: z.array(mediumBeforeSchema).max(50).optional(),
});

/** One build: what every box has, and what each stop keeps in it. */
export const boxSchema = z.object({
  id: z.string().min(1).max(80),
  name: z.string().min(1).max(200),
  purpose: purposeSchema,
  ...stopRecords.survey,
  ...stopRecords.choose,
  ...stopRecords.gather,
  ...stopRecords.verify,
  ...stopRecords.write,
  ...stopRecords.firmware,
  ...stopRecords.install,
  ...stopRecords['first-start'],
  ...stopRecords.network,
  ...stopRecords.load,
  ...stopRecords.tune,
  ...stopRecords.keep,
  /** What was done of its run sheet; null where nothing was. */
  run: runRecordSchema.nullable().default(null),
  decisions: z.array(decisionSchema),
  signoffs: z.array(signoffSchema),
  createdAt: z.string(),
});
export type Box = z.infer<typeof boxSchema>;
