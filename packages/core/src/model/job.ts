import { z } from 'zod';
import { findImage, type Bench, type Box } from './bench';

export const jobStates = [
  'waiting for the file',
  'waiting for its turn',
  'writing',
  'reading back',
  'proven',
  'failed',
  'cancelled',
  'interrupted',
] as const;

/** A write as the writer keeps it and the page sees it. Bytes and seconds throughout. */
export const jobSchema = z.object({
  id: z.string(),
  stickId: z.string(),
  serial: z.string(),
  imageName: z.string(),
  total: z.number(),
  /** The medium as the writer sees it; null in records before it was kept. Bytes. */
  target: z.object({ bytes: z.number(), model: z.string() }).nullable().default(null),
  /** SHA-256 of the content that was announced, in hex; what is proven is proven for this. Null in records before it was asked for. */
  sha256: z.string().nullable().default(null),
  /** Has anything gone to the stick? Recorded before the first byte does. */
  touched: z.boolean().default(true),
  state: z.enum(jobStates),
  written: z.number(),
  readBack: z.number(),
  seconds: z.number(),
  /** Seconds until the last byte was written; null before. */
  writeSeconds: z.number().nullable().default(null),
  pattern: z.string().nullable(),
  /** Byte offset of the first difference the read-back found; null where it found none. */
  firstDifference: z.number().nullable(),
  explanation: z.string(),
  startedAt: z.string(),
  /** The page's own word for what the write belongs to; the writer keeps it and gives it back as it is. */
  tag: z.string(),
});
export type Job = z.infer<typeof jobSchema>;

/** Whether a write has ended, however it did. */
export const isOver = (job: Pick<Job, 'state'>): boolean =>
  !['waiting for the file', 'waiting for its turn', 'writing', 'reading back'].includes(job.state);

/** What a write belongs to, in one word that goes along with it: "boxId:imageId". */
export const tagOf = (box: Box, imageId: string): string => `${box.id}:${imageId}`;
/** The box and image a write was begun for, from its tag. */
export function belongsTo(job: Pick<Job, 'tag'>): { boxId: string; imageId: string } {
  const at = job.tag.indexOf(':');
  return { boxId: job.tag.slice(0, at), imageId: job.tag.slice(at + 1) };
}

/** The writes of this bench: the writer may know of others, from another bench or browser. */
export const jobsOf = (bench: Bench, jobs: readonly Job[]): Job[] =>
  jobs.filter((j) => findImage(bench, belongsTo(j).imageId) !== undefined);
