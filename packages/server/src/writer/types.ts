import { z } from 'zod';
import { containerKinds } from '@zb/core/model/inspection';
import { jobSchema } from '@zb/core/model/job';

const sha256 = z.string().regex(/^[0-9a-f]{64}$/);

export const startSchema = z.object({
  stickId: z.string().min(1).max(120),
  serialTail: z.string().length(4),
  tag: z.string().max(200).default(''),
  image: z.discriminatedUnion('from', [
    z.object({ from: z.literal('depot'), file: z.string().min(1).max(255) }),
    z.object({
      from: z.literal('upload'),
      name: z.string().min(1).max(255),
      bytes: z.number().int().positive(),
      /** Of what is to reach the stick: of a packed file, of what is inside. The write is proven against it. */
      sha256: sha256.nullable().default(null),
      /** How the file is packed; it is unpacked while it is written, and `innerBytes` is what reaches the stick. */
      container: z.enum(containerKinds).default('none'),
      innerBytes: z.number().int().positive().nullable().default(null),
    }),
  ]),
});
export type StartRequest = z.infer<typeof startSchema>;

/** What a write is told to do: the content by its size and digest, whatever way its bytes come. */
export interface Announced {
  stickId: string;
  serialTail: string;
  tag: string;
  imageName: string;
  /** Bytes of the content. */
  total: number;
  /** SHA-256 of the content, in hex. */
  sha256: string;
}

export const faultSchema = z
  .object({
    realBytes: z.number().int().positive(),
    weakAt: z.number().int().nonnegative(),
    pulledAt: z.number().min(0).max(1),
  })
  .partial();

export const plugSchema = z.object({
  bytes: z
    .number()
    .int()
    .min(1024 * 1024)
    .max(4e12),
  serial: z.string().min(1).max(80),
  model: z.string().max(120),
});

/** A stick that was plugged in by hand, as it is kept over a restart. */
const pluggedSchema = plugSchema.extend({ id: z.uuid(), place: z.number().int() });
export type Plugged = z.infer<typeof pluggedSchema>;

/** What the writer keeps over a restart. */
export const stateSchema = z.object({
  jobs: z.array(jobSchema),
  plugged: z.array(pluggedSchema).default([]),
  faults: z.record(z.string(), faultSchema).default({}),
});
