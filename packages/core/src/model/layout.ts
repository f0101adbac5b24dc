import { z } from 'zod';
import { sizeManners } from './installer';
import {
  attributesSchema,
  mountPointSchema,
  partitionIdSchema,
  partitionTypeSchema,
  tableIdSchema,
} from './named';

const bytes = z.number().int().nonnegative().max(Number.MAX_SAFE_INTEGER);
const line = z.string().max(200);

/** Tables a drive can be given; none: the whole drive is one file system. */
export const layoutTables = ['gpt', 'mbr', 'none'] as const;
/** What a part is for. A start part is what UEFI starts from; a BIOS boot part holds a second stage on GPT. */
export const partUses = [
  'start',
  'BIOS boot',
  'system',
  'swap',
  '/var',
  '/home',
  'data',
  'second system',
] as const;
/** What a part is for. */
export type PartUse = (typeof partUses)[number];
/** File systems a part can be made with; none: it is left as it is. */
export const layoutFilesystems = [
  'ext4',
  'xfs',
  'btrfs',
  'f2fs',
  'vfat',
  'exfat',
  'ntfs',
  'swap',
  'none',
] as const;
/** A file system a part can be made with, or none. */
export type LayoutFilesystem = (typeof layoutFilesystems)[number];

/** How large a part shall be: bytes, a share of what no part has a fixed claim on (0 to 1), or what is left. */
export const wantSizeSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('fixed'), bytes: bytes.min(1) }),
  z.object({ kind: z.literal('share'), share: z.number().gt(0).max(1) }),
  z.object({ kind: z.literal('rest') }),
]);
export type WantSize = z.infer<typeof wantSizeSchema>;

/** A part that shall be there. `minimum` in bytes; null where any size will do. */
export const partWantSchema = z.object({
  id: z.string().min(1).max(80),
  use: z.enum(partUses),
  /** Its label; labels tell parts apart at the first start. */
  name: line,
  filesystem: z.enum(layoutFilesystems),
  mount: mountPointSchema.nullable().default(null),
  size: wantSizeSchema,
  minimum: bytes.nullable().default(null),
  /** Marked as the one that BIOS boot code starts (MBR). */
  active: z.boolean().default(false),
});
export type PartWant = z.infer<typeof partWantSchema>;

/** Does it start the machine? Such a part is as large as its standard or its maker says. */
export const startsMachine = ({ use }: Pick<PartWant, 'use'>): boolean =>
  use === 'start' || use === 'BIOS boot';

/** A part that lies on the drive. Bytes; its type as the table has it: a GUID, or two hexadecimal digits. */
export const partThereSchema = z.object({
  number: z.number().int().min(1).max(1024),
  start: bytes,
  bytes,
  type: partitionTypeSchema,
  name: line.default(''),
  filesystem: line.nullable().default(null),
  label: line.nullable().default(null),
  /** What its table knows it by: a GUID, or on MBR the table's identity and its number. */
  uuid: partitionIdSchema.nullable().default(null),
  /** Attributes of its entry (UEFI 2.10 §5.3.3), as sfdisk(8) names them; null where nobody told. */
  attributes: attributesSchema.nullable().default(null),
  active: z.boolean().default(false),
});
export type PartThere = z.infer<typeof partThereSchema>;

/** A drive as it is. */
export const driveThereSchema = z.object({
  name: line.default(''),
  bytes: bytes.min(1),
  /** Bytes of a sector as the drive answers them. */
  sectorSize: z.union([z.literal(512), z.literal(4096)]).default(512),
  table: z.enum([...layoutTables, 'unknown']).default('none'),
  /** What its table is known by: a GUID, or on MBR a number such as 0x1a2b3c4d; null where nobody told. */
  tableId: tableIdSchema.nullable().default(null),
  parts: z.array(partThereSchema).max(200).default([]),
});
export type DriveThere = z.infer<typeof driveThereSchema>;

const keptSchema = z
  .array(z.object({ number: z.number().int().min(1), shrinkTo: bytes.nullable().default(null) }))
  .max(200);

/** What a drive shall become. What is not kept is lost. */
export const driveWantSchema = z.object({
  table: z.enum(layoutTables),
  /** Parts that stay, by their number; bytes they are made smaller to, null where they stay as they are. */
  kept: keptSchema.default([]),
  wants: z.array(partWantSchema).max(24),
  /** Left free at the end: an installer that refuses the full size takes a little less. */
  reserve: bytes.default(0),
});
export type DriveWant = z.infer<typeof driveWantSchema>;

/** Schools of one system's parts: one for all, or what grows by itself apart. */
export const partSchools = ['one system part', '/var and /home apart'] as const;
/** One of them. */
export type PartSchool = (typeof partSchools)[number];
/** Schools of swap. */
export const swapSchools = ['1 GB', 'equal to memory', 'swap file', 'none'] as const;
/** One of them. */
export type SwapSchool = (typeof swapSchools)[number];

/** What a box has decided about the drive of its system; null where the usual holds. */
export const boxLayoutSchema = z.object({
  driveId: z.string().nullable().default(null),
  parts: z.enum(partSchools).nullable().default(null),
  swap: z.enum(swapSchools).nullable().default(null),
  /** Sizes that a person gave parts, by their use. */
  sizes: z.record(z.string().max(80), wantSizeSchema).default({}),
  reserve: bytes.default(0),
  /** Parts that stay beside the new system; empty: all that is on the drive goes. */
  kept: keptSchema.default([]),
});
/** What a box has decided about its drive. */
export type BoxLayout = z.infer<typeof boxLayoutSchema>;
/** Nothing is decided yet. */
export const noBoxLayout = (): BoxLayout => ({
  driveId: null,
  parts: null,
  swap: null,
  sizes: {},
  reserve: 0,
  kept: [],
});

/** A plan of one drive, as `zb layout` takes it. */
export const layoutPlanSchema = z.object({
  drive: driveThereSchema,
  want: driveWantSchema,
  typed: z.enum(sizeManners).default('MB that are MiB'),
  shown: z.enum(sizeManners).default('GB that are GiB'),
  /** The path of the drive in commands; parts follow it as the system names them. */
  device: line.default('/dev/disk/by-id/DRIVE'),
});
export type LayoutPlan = z.infer<typeof layoutPlanSchema>;
