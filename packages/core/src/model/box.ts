import { z } from 'zod';
import { purposeSchema } from './profile';

export const stops = [
  'survey',
  'choose',
  'gather',
  'verify',
  'write',
  'firmware',
  'install',
  'first-start',
  'network',
  'load',
  'tune',
  'keep',
] as const;
export const stopSchema = z.enum(stops);
export type Stop = z.infer<typeof stopSchema>;

export const stopTitle: Record<Stop, string> = {
  survey: 'Survey',
  choose: 'Choose',
  gather: 'Gather',
  verify: 'Verify',
  write: 'Write',
  firmware: 'Firmware',
  install: 'Install',
  'first-start': 'First start',
  network: 'Network',
  load: 'Load',
  tune: 'Tune',
  keep: 'Keep',
};

export const decisionSchema = z.object({
  id: z.string(),
  stop: stopSchema,
  what: z.string(),
  value: z.string(),
  because: z.string(),
  at: z.string(),
});
export type Decision = z.infer<typeof decisionSchema>;

/** What became of the last write; kept so that the boot ladder knows what is on the stick. */
export const writtenSchema = z.object({
  at: z.string(),
  imageId: z.string(),
  serial: z.string(),
  result: z.enum(['proven', 'failed']),
  explanation: z.string(),
  bytes: z.number(),
  seconds: z.number(),
});
export type Written = z.infer<typeof writtenSchema>;

/** A stop signed off; `despite` is the reason given where a Stop hazard stood against it. */
export const signoffSchema = z.object({ stop: stopSchema, at: z.string(), despite: z.string().optional() });

export const boxSchema = z.object({
  id: z.string().min(1).max(80),
  name: z.string().min(1).max(200),
  purpose: purposeSchema,
  machineId: z.string().nullable(),
  profileId: z.string().nullable(),
  /** The release and the variant of the profile; null takes the one the bench would choose. */
  releaseId: z.string().nullable().default(null),
  variantId: z.string().nullable().default(null),
  /** The wish this box answers. */
  wishId: z.string().nullable().default(null),
  /** Parts of the shelf put aside for it. */
  parts: z.array(z.string()).default([]),
  /** What of the gathering list lies on the bench, by the keys of its lines. */
  gathered: z.array(z.string()).default([]),
  /** Hours a day it runs; null takes what is usual for its purpose. */
  hoursPerDay: z.number().min(0).max(24).nullable().default(null),
  imageId: z.string().nullable(),
  /** Serial of the stick, card or drive picked for the next write. */
  targetSerial: z.string().nullable(),
  written: writtenSchema.nullable(),
  /** How the stick is to be started: through the one-time menu, or by leaving it to the boot order. */
  startBy: z.enum(['menu', 'order']),
  decisions: z.array(decisionSchema),
  signoffs: z.array(signoffSchema),
  createdAt: z.string(),
});
export type Box = z.infer<typeof boxSchema>;
