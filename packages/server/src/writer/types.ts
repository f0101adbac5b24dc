import { z } from 'zod';
import { jobSchema } from '@zb/core/model/job';
import { plugSchema, stickFaultSchema, type WriteRequest } from '@zb/core/model/standIns';

/** What a write is told to do: the content by its size and digest, whatever way its bytes come. */
export interface Announced {
  stickId: string;
  serialTail: string;
  tag: string;
  /** What the shelf of the page says of the stick; null where it has no record of it. */
  shelf?: WriteRequest['shelf'];
  imageName: string;
  /** Bytes of the content. */
  total: number;
  /** SHA-256 of the content, in hex. */
  sha256: string;
}

/** A stick that was plugged in by hand, as it is kept over a restart. */
const pluggedSchema = plugSchema.extend({ id: z.uuid(), place: z.number().int() });
export type Plugged = z.infer<typeof pluggedSchema>;

/** What the writer keeps over a restart. */
export const stateSchema = z.object({
  jobs: z.array(jobSchema),
  plugged: z.array(pluggedSchema).default([]),
  faults: z.record(z.string(), stickFaultSchema).default({}),
});
