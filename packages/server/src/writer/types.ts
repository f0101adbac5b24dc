import { z } from 'zod';

export const jobStates = [
  'waiting for the file',
  'writing',
  'reading back',
  'proven',
  'failed',
  'cancelled',
  'interrupted',
] as const;

/** A write as the page sees it. Bytes and seconds throughout. */
export const jobSchema = z.object({
  id: z.string(),
  stickId: z.string(),
  serial: z.string(),
  imageName: z.string(),
  total: z.number(),
  state: z.enum(jobStates),
  written: z.number(),
  readBack: z.number(),
  seconds: z.number(),
  pattern: z.string().nullable(),
  /** Byte offset of the first difference the read-back found; null where it found none. */
  firstDifference: z.number().nullable(),
  explanation: z.string(),
  startedAt: z.string(),
  /** The page's own word for what the write belongs to; kept and given back as it is. */
  tag: z.string(),
});
export type Job = z.infer<typeof jobSchema>;

export const isOver = (job: Pick<Job, 'state'>): boolean =>
  !['waiting for the file', 'writing', 'reading back'].includes(job.state);

export const startSchema = z.object({
  stickId: z.string().min(1),
  serialTail: z.string().length(4),
  tag: z.string().max(200).default(''),
  image: z.discriminatedUnion('from', [
    z.object({ from: z.literal('depot'), file: z.string().min(1) }),
    z.object({
      from: z.literal('upload'),
      name: z.string().min(1).max(255),
      bytes: z.number().int().positive(),
    }),
  ]),
});
export type StartRequest = z.infer<typeof startSchema>;

export const faultSchema = z.object({
  realBytes: z.number().int().positive().optional(),
  weakAt: z.number().int().nonnegative().optional(),
  pulledAt: z.number().min(0).max(1).optional(),
});

export const plugSchema = z.object({
  bytes: z
    .number()
    .int()
    .min(1024 * 1024)
    .max(4e12),
  serial: z.string().min(1).max(80),
  model: z.string().max(120),
});
