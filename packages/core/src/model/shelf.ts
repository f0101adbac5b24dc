import { z } from 'zod';
import { digestAlgorithms } from '../formats/checksumList';
import { inspectionSchema } from './inspection';
import { contentSchema, fates } from './content';
import { keptTrialSchema } from './trial';
import { detailsSchema } from './details';
import { factsSchema, memoryKinds } from './facts';
import { hardwareSchema } from './hardware';
import { mediumFields } from './medium';

const id = z.string().min(1).max(80);
const bytes = z.number().int().nonnegative();
const name = z.string().min(1).max(200);

export const machineForms = [
  'handheld',
  'mini PC',
  'tower',
  'office desktop',
  'laptop',
  'board',
  'rack server',
  'old desktop',
] as const;

export const networkPortSchema = z.object({
  name: z.string(),
  kind: z.enum(['wired', 'wireless']),
  driver: z.string().nullable(),
  speedMbps: z.number().nullable(),
  /** Whether its driver comes with the kernel; null where that is not known. */
  family: z.enum(['in-kernel', 'out-of-tree']).nullable().default(null),
  /** Its hardware address; null where the survey did not tell it. */
  hardware: hardwareSchema.nullable().default(null),
});

/** False: it could be bought at `price`; nothing of it is here yet. Amounts are in the bench's currency. */
const owning = {
  owned: z.boolean().default(true),
  price: z.number().nonnegative().nullable().default(null),
};

/** A limit of the trade that was set aside for one system, with the reason. */
export const overruleSchema = z.object({
  profileId: z.string(),
  rule: z.string(),
  reason: z.string().min(1).max(500),
  at: z.string(),
});

export const machineSchema = z.object({
  kind: z.literal('machine'),
  id,
  name,
  ...owning,
  overruled: z.array(overruleSchema).default([]),
  /** What the last survey found beyond the facts; null where none told. */
  details: detailsSchema.nullable().default(null),
  form: z.enum(machineForms),
  notes: z.string(),
  facts: factsSchema,
  surveyedAt: z.string().nullable(),
  /** What the last survey could not tell, in words. */
  missing: z.array(z.string()),
  networkPorts: z.array(networkPortSchema),
  /** The medium that a person has put before all others in its boot order; null: the order is as it was surveyed. */
  bootFirst: z.string().nullable().default(null),
  /** Media whose ports are switched off in setup. */
  portsOff: z.array(z.string()).max(50).default([]),
  /** Systems whose keys its firmware was told to trust, by their ids; a system that is gone from the bench is trusted still. */
  keysEnrolled: z.array(z.string()).max(50).default([]),
});

/** How a store is connected. */
export const transports = ['sata', 'nvme', 'usb', 'mmc', 'ide', 'sas', 'other'] as const;

/** Anything that keeps bytes: a drive, a stick or a card. `in` names the machine it sits in. */
const store = {
  id,
  name,
  bytes,
  serial: z.string().max(200).nullable(),
  /** What it really holds where a read-back found that it claims more; null where nothing speaks against its size. */
  realBytes: bytes.nullable(),
  model: z.string().max(120).nullable(),
  /** The file-system label or what is written on it. */
  label: z.string().max(120),
  transport: z.enum(transports),
  rotational: z.boolean().nullable(),
  removable: z.boolean(),
  in: z.string().nullable(),
  /** What is on it, in a person's own words, for people alone: nothing is decided by it. */
  holds: z.string(),
  /** What lies on it; null where nobody has looked. */
  content: contentSchema.nullable().default(null),
  /** May what is on it be lost? Nothing is written to it while it must be kept, or is not decided. */
  fate: z.enum(fates).default('not decided'),
  ...mediumFields,
  notes: z.string(),
  ...owning,
  /** The drive's shape; null where nobody said. */
  shape: z.enum(['2.5 inch', '3.5 inch', 'M.2']).nullable().default(null),
  /** Edge connector of an M.2 drive: length in mm as in the type code, key, and PCIe lanes (0 for SATA). PCI Express M.2 Specification. */
  m2: z
    .object({
      length: z.enum(['2230', '2242', '2260', '2280', '22110']),
      key: z.enum(['B', 'M', 'B+M']),
      lanes: z.union([z.literal(0), z.literal(1), z.literal(2), z.literal(4)]),
    })
    .nullable()
    .default(null),
  /** Share of its rated life used, per cent. */
  wear: z.number().min(0).max(255).nullable().default(null),
  /** Sector it writes as one, in bytes; null where nobody looked. */
  sectorBytes: z
    .union([z.literal(512), z.literal(4096)])
    .nullable()
    .default(null),
  /** Bits it may fail to read, as its data sheet has it: at most one in ten to this power; null where nobody looked. */
  errorExponent: z.number().int().min(12).max(18).nullable().default(null),
  /** It writes in overlapping tracks (SMR), by its data sheet; null where nobody looked it up. */
  shingled: z.boolean().nullable().default(null),
};
export const driveSchema = z.object({ kind: z.literal('drive'), ...store });
export const stickSchema = z.object({ kind: z.literal('stick'), ...store });
export const cardSchema = z.object({ kind: z.literal('card'), ...store });

export const adapterSchema = z.object({
  kind: z.literal('adapter'),
  id,
  name,
  from: z.string(),
  to: z.string(),
  notes: z.string(),
  ...owning,
  /** Where it goes in; `outside` needs no port of the machine that anything else wants. */
  goesIn: z.enum(['expansion slot', 'USB port', 'outside']).default('outside'),
  /** Wired network ports and SATA ports it adds. */
  wiredPorts: z.number().int().nonnegative().max(16).default(0),
  sataPorts: z.number().int().nonnegative().max(16).default(0),
});
export const memorySchema = z.object({
  kind: z.literal('memory'),
  id,
  name,
  bytes,
  type: z.string(),
  form: z.enum(['DIMM', 'SO-DIMM']),
  /** Plain, with check bits (ECC), or registered as well; null where nobody looked. */
  checked: z.enum(memoryKinds).nullable().default(null),
  in: z.string().nullable(),
  notes: z.string(),
  ...owning,
});

const digestAlgorithm = z.enum(digestAlgorithms);
export const comparisonSchema = z.object({
  verdict: z.enum(['same', 'differs', 'not-listed', 'other-size']),
  algorithm: digestAlgorithm,
  published: z.string(),
  computed: z.string(),
  /** What the sum is of: the file as it is, or what is packed in it. */
  of: z.enum(['file', 'content']).default('file'),
  /** Size the list names, in bytes; null where it names none. */
  publishedBytes: z.number().nullable().default(null),
  from: z.string(),
  at: z.string(),
});
export type Comparison = z.infer<typeof comparisonSchema>;

export const imageSchema = z.object({
  kind: z.literal('image'),
  id,
  name,
  bytes,
  digests: z.partialRecord(digestAlgorithm, z.string()),
  inspection: inspectionSchema.nullable(),
  comparison: comparisonSchema.nullable(),
  /** The depot's file name where the stand-in depot has it; null for a file of the user's own. */
  depotFile: z.string().nullable(),
  notes: z.string(),
  /** What happened when it was started in the emulator, oldest first. */
  trials: z.array(keptTrialSchema).max(40).default([]),
});

export const shelfItemSchema = z.discriminatedUnion('kind', [
  machineSchema,
  driveSchema,
  stickSchema,
  cardSchema,
  adapterSchema,
  memorySchema,
  imageSchema,
]);
export type ShelfItem = z.infer<typeof shelfItemSchema>;
export type Machine = z.infer<typeof machineSchema>;
export type Store = z.infer<typeof driveSchema> | z.infer<typeof stickSchema> | z.infer<typeof cardSchema>;
export type Memory = z.infer<typeof memorySchema>;
export type Adapter = z.infer<typeof adapterSchema>;
export type ImageItem = z.infer<typeof imageSchema>;
export type NetworkPort = z.infer<typeof networkPortSchema>;

/** Whether an item of the shelf is a machine. */
export const isMachine = (item: ShelfItem): item is Machine => item.kind === 'machine';
/** Whether an item of the shelf is an image. */
export const isImage = (item: ShelfItem): item is ImageItem => item.kind === 'image';
/** Whether an item of the shelf is a drive, a card or a stick. */
export const isStore = (item: ShelfItem): item is Store =>
  item.kind === 'drive' || item.kind === 'stick' || item.kind === 'card';
