import { z } from 'zod';
import { containerKinds } from '@zb/core/image/types';

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
      /** How the file is packed; it is unpacked while it is written, and `innerBytes` is what reaches the stick. */
      container: z.enum(containerKinds).default('none'),
      innerBytes: z.number().int().positive().nullable().default(null),
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
