import { z } from 'zod';
import { imageFindingSchema } from './imageFinding';
import { chainRungs, rungStates, rungWhySchema } from './chain';
import { imageIdentitySchema } from './imageIdentity';
import { imagePlaceSchema } from './imagePlace';
import { loaderFaultSchema, startReasonSchema, startWays } from './startReason';

/** What inspecting an image answers; kept with the image on the shelf, so it is a schema. Offsets and sizes in bytes. */
export const firmwareKinds = ['bios', 'uefi-x64', 'uefi-ia32', 'uefi-aa64', 'board'] as const;
export const firmwareKind = z.enum(firmwareKinds);
export type FirmwareKind = z.infer<typeof firmwareKind>;

export const startsSchema = z.enum(['yes', 'no', 'unknown']);
export type Starts = z.infer<typeof startsSchema>;

/** A field of the image that decides something: where it stands, what is in it, who gives it that meaning. */
export const evidenceSchema = z.object({
  /** The field and its value, in words: "entry 1, active flag 80". */
  what: z.string(),
  offset: z.number().nullable(),
  /** The bytes themselves in hexadecimal, 16 at most; empty where the field is longer or not there. */
  bytes: z.string(),
  /** Standard and section, or "common practice". */
  source: z.string(),
});
export type Evidence = z.infer<typeof evidenceSchema>;

/** One rung of a start, with what shows it. */
export const rungSchema = z.object({
  rung: z.enum(chainRungs),
  state: z.enum(rungStates),
  why: rungWhySchema,
  evidence: z.array(evidenceSchema),
});
export type Rung = z.infer<typeof rungSchema>;

export const verdictSchema = z.object({
  starts: startsSchema,
  reason: startReasonSchema,
  through: z.enum(startWays).nullable().default(null),
  evidence: z.array(evidenceSchema),
});

export const outcomeSchema = verdictSchema.extend({
  firmware: firmwareKind,
  attached: z.enum(['disk', 'optical']),
  /** What the firmware's loader goes on to, as far as the formats tell; none where no loader is started. */
  chain: z.array(rungSchema).default([]),
  /** The same start with Secure Boot on; null where the firmware has none or nothing starts without it either. */
  secureBoot: verdictSchema.nullable().default(null),
});
export type Outcome = z.infer<typeof outcomeSchema>;

/** An EFI program found on a FAT volume of the image. */
export const loaderSchema = z.object({
  /** Path on its volume, with slashes, as the directory spells it. */
  path: z.string(),
  /** Architecture of the PE header; null where the header is damaged or empty. */
  machine: z.string().nullable(),
  signed: z.boolean(),
  /** Who signed it, from the certificates in the file; empty where it is not signed or cannot be read. */
  signers: z.array(z.string()),
  /** What of its header or code cannot run; null where nothing speaks against it. */
  fault: loaderFaultSchema.nullable(),
  /** The volume it is on, and its first byte in the image. */
  place: imagePlaceSchema,
  offset: z.number(),
  bytes: z.number(),
  /** True for the name that firmware looks for by itself on removable media. */
  removable: z.boolean(),
});
export type Loader = z.infer<typeof loaderSchema>;

export const partSchema = z.object({
  index: z.number().int(),
  start: z.number(),
  bytes: z.number(),
  type: z.string(),
  filesystem: z.string().nullable(),
  label: z.string().nullable(),
  /** UUID or serial of the file system, as the usual tools print it. */
  uuid: z.string().nullable().default(null),
  /** What the file system itself says it spans; null where it does not say. */
  filesystemBytes: z.number().nullable().default(null),
  active: z.boolean().default(false),
  /** Name in the partition table. */
  name: z.string().default(''),
});
export type ImagePart = z.infer<typeof partSchema>;

/** One decoded field of a region: its place from the start of the image, its value in words. */
export const fieldSchema = z.object({ offset: z.number(), name: z.string(), value: z.string() });
export type Field = z.infer<typeof fieldSchema>;

export const regionSchema = z.object({
  start: z.number(),
  bytes: z.number(),
  /** Drawn by pattern: code, table, part, gap, beyond (named by a table but not in the file). */
  kind: z.enum(['code', 'table', 'part', 'gap', 'beyond']),
  title: z.string(),
  detail: z.string(),
  starts: z.boolean(),
  fields: z.array(fieldSchema).default([]),
  /** Its first bytes in hexadecimal, 128 at most, so that they can be seen when the file is not at hand. */
  hex: z.string().default(''),
});
export type ImageRegion = z.infer<typeof regionSchema>;

export const containerKinds = ['none', 'gzip', 'xz', 'zstd', 'bzip2', 'zip'] as const;
/** How a file is packed. */
export type ContainerKind = (typeof containerKinds)[number];
/** How a file that is packed is packed. */
export type Packing = Exclude<ContainerKind, 'none'>;

/** A packed file: what it is and what is inside. Sizes and digest are null until the whole of it was unpacked. */
export const containerSchema = z.object({
  kind: z.enum(containerKinds),
  /** Name of the image inside, where the container keeps one. */
  innerName: z.string().nullable().default(null),
  innerBytes: z.number().nullable().default(null),
  innerSha256: z.string().nullable().default(null),
});
export type Container = z.infer<typeof containerSchema>;

/** What copying the files of an optical volume to a FAT stick would start, and the largest file that has to fit there. */
export const fileCopySchema = z.object({
  /** Firmware that comes to a kernel from such a stick. */
  starts: z.array(firmwareKind),
  /** The label the stick must be given for it; null where any will do. */
  label: z.string().nullable().default(null),
  largest: z.object({ path: z.string(), bytes: z.number() }).nullable(),
  files: z.number().int(),
});
export type FileCopy = z.infer<typeof fileCopySchema>;

const imageFacts = z.object({
  bytes: z.number(),
  layout: z.string(),
  sectorSize: z.number().default(512),
  parts: z.array(partSchema),
  loaders: z.array(loaderSchema).default([]),
  outcomes: z.array(outcomeSchema),
  regions: z.array(regionSchema),
  findings: z.array(imageFindingSchema),
  /** Null where the image has no optical volume. */
  fileCopy: fileCopySchema.nullable().default(null),
  /** Null where the bytes were not looked at for it: packed, or read before there was such a reading. */
  identity: imageIdentitySchema.nullable().default(null),
});

/**
 * Version of the rules by which images are read and judged; raise it where a verdict may come out otherwise. 1 knew BIOS
 * boot code by its messages alone, 2 follows the rest; 3 answers in codes; 4 follows a loader to the kernel it names;
 * 5 knows boot code that is itself the program.
 */
export const READING_RULES = 5;

export const inspectionSchema = imageFacts.extend({
  /** The rules that decided; readings that do not say are of the first. */
  rules: z.number().int().default(1),
  container: containerSchema,
  /** What is inside a container, read as an image of its own; null where it was not unpacked or is no container. */
  inner: imageFacts.nullable().default(null),
});
export type Inspection = z.infer<typeof inspectionSchema>;
export type ImageReading = z.infer<typeof imageFacts>;

export const firmwareTitle: Record<FirmwareKind, string> = {
  bios: 'BIOS',
  'uefi-x64': 'UEFI x64',
  'uefi-ia32': 'UEFI ia32',
  'uefi-aa64': 'UEFI aa64',
  board: 'Board loader',
};

/** Was this reading made by earlier rules? Its verdicts may come out otherwise; the file’s bytes are needed to know. */
export const isOldReading = (inspection: Inspection): boolean => inspection.rules < READING_RULES;

/** What would start from this file: of a container that was unpacked, what is inside it. */
export const contentOf = (inspection: Inspection): ImageReading => inspection.inner ?? inspection;
