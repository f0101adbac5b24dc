import { z } from 'zod';

/** What inspecting an image answers; kept with the image on the shelf, so it is a schema. Offsets and sizes in bytes. */
export const firmwareKinds = ['bios', 'uefi-x64', 'uefi-ia32', 'uefi-aa64'] as const;
export const firmwareKind = z.enum(firmwareKinds);
export type FirmwareKind = z.infer<typeof firmwareKind>;

export const outcomeSchema = z.object({
  firmware: firmwareKind,
  attached: z.enum(['disk', 'optical']),
  starts: z.enum(['yes', 'no', 'unknown']),
  because: z.string(),
  /** Where in the file the deciding bytes stand, and which standard gives them their meaning. */
  evidence: z.string().optional(),
  /** For UEFI: does the loader carry a signature? Undefined where there is no loader. */
  signed: z.boolean().optional(),
});
export type Outcome = z.infer<typeof outcomeSchema>;

export const partSchema = z.object({
  index: z.number().int(),
  start: z.number(),
  bytes: z.number(),
  type: z.string(),
  filesystem: z.string().nullable(),
  label: z.string().nullable(),
});
export type ImagePart = z.infer<typeof partSchema>;

export const regionSchema = z.object({
  start: z.number(),
  bytes: z.number(),
  /** Drawn by pattern: code, table, part, gap, beyond (named by a table but not in the file). */
  kind: z.enum(['code', 'table', 'part', 'gap', 'beyond']),
  title: z.string(),
  detail: z.string(),
  starts: z.boolean(),
});
export type ImageRegion = z.infer<typeof regionSchema>;

export const findingSchema = z.object({
  grade: z.enum(['stop', 'check', 'note']),
  what: z.string(),
  offset: z.number().optional(),
});
export type Finding = z.infer<typeof findingSchema>;

export const inspectionSchema = z.object({
  bytes: z.number(),
  container: z.object({ kind: z.enum(['none', 'gzip', 'xz', 'zstd', 'bzip2', 'zip']) }),
  layout: z.string(),
  parts: z.array(partSchema),
  outcomes: z.array(outcomeSchema),
  regions: z.array(regionSchema),
  findings: z.array(findingSchema),
});
export type Inspection = z.infer<typeof inspectionSchema>;

export const firmwareTitle: Record<FirmwareKind, string> = {
  bios: 'BIOS',
  'uefi-x64': 'UEFI x64',
  'uefi-ia32': 'UEFI ia32',
  'uefi-aa64': 'UEFI aa64',
};
