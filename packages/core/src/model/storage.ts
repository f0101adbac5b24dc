import { z } from 'zod';
import { about } from './coded';

/**
 * How a pool spreads bytes over drives. `plain`: rows of equal parts, as Linux md does, volumes over them. `padded`:
 * stripes as wide as what is written, each with its own parity, as RAID-Z does. `groups`: pieces of about 1 GiB, each on
 * the drives that have most room, as Btrfs does.
 */
export const poolManners = ['plain', 'padded', 'groups'] as const;
/** How a pool spreads bytes over drives. */
export type PoolManner = (typeof poolManners)[number];

/** `single`: one drive. `joined`: all as one. `mirror`: the same on all. `pairs`: mirrors of two, side by side. `copies`: on any so many. `parity`. */
export const poolShapes = ['single', 'joined', 'mirror', 'pairs', 'copies', 'parity'] as const;
/** What a pool keeps twice, and how. */
export type PoolShape = (typeof poolShapes)[number];

/** One way to make a pool. */
export const poolWaySchema = z.object({
  manner: z.enum(poolManners),
  shape: z.enum(poolShapes),
  /** Drives' worth of parity (1–3), or how often everything is kept (2–4); 1 where it is kept once. */
  level: z.number().int().min(1).max(24),
  /** One drive waits beside it, to take the place of one that fails. */
  spare: z.boolean().default(false),
});
export type PoolWay = z.infer<typeof poolWaySchema>;

const serial = z.string().max(200);
const bytes = z.number().int().nonnegative();

/** A drive as a pool sees it. Bytes, bytes a second, watts, money in the bench's currency. */
export const poolDriveSchema = z.object({
  id: z.string().min(1).max(80),
  name: z.string().min(1).max(200),
  bytes: bytes.refine((n) => n <= Number.MAX_SAFE_INTEGER, 'is more than any drive holds'),
  serial: serial.nullable().default(null),
  model: z.string().max(200).nullable().default(null),
  rotational: z.boolean().nullable().default(null),
  /** Sector that the drive writes as one: 512 or 4096 bytes; null where nobody looked. */
  sectorBytes: z
    .union([z.literal(512), z.literal(4096)])
    .nullable()
    .default(null),
  /** Unreadable bits as rated: at most one in ten to this power; null where nobody looked it up. */
  errorExponent: z.number().int().min(12).max(18).nullable().default(null),
  /** Reads and writes in one go, slow and fast; null takes what is usual for its kind. */
  readRate: z.tuple([z.number().positive(), z.number().positive()]).nullable().default(null),
  writeRate: z.tuple([z.number().positive(), z.number().positive()]).nullable().default(null),
  /** What its link carries at most; null where it is not known. */
  linkRate: z.number().positive().nullable().default(null),
  wear: z.number().min(0).max(255).nullable().default(null),
  /** It writes in overlapping tracks (SMR); null where nobody looked it up. */
  shingled: z.boolean().nullable().default(null),
  /** Hours it has run, and sectors it gave up; null where it did not tell. */
  hours: z.number().nonnegative().nullable().default(null),
  badSectors: z.number().int().nonnegative().nullable().default(null),
  price: z.number().nonnegative().nullable().default(null),
  watts: z.number().nonnegative().nullable().default(null),
  removable: z.boolean().default(false),
});
export type PoolDrive = z.infer<typeof poolDriveSchema>;

/** What `zb pool` takes: drives, and what is asked of them. */
export const poolAskSchema = z.object({
  drives: z.array(poolDriveSchema).max(24),
  /** Bytes that are written as one; 128 KiB is what systems take where nobody says. */
  recordBytes: z.number().int().min(4096).max(16_777_216).default(131_072),
  /** How full it will be, 0 to 1: some manners make only that anew. */
  filled: z.number().min(0).max(1).default(1),
});
export type PoolAsk = z.infer<typeof poolAskSchema>;

const day = z.iso.date();

/** The pool of a box: which drives of the shelf, and what was decided of it. */
export const boxPoolSchema = z.object({
  /** Drives that take part, by their ids; null takes all that may. */
  drives: z.array(z.string().max(80)).max(24).nullable().default(null),
  way: poolWaySchema.nullable().default(null),
  name: z
    .string()
    .regex(/^[a-z][a-z0-9_-]{0,30}$/, 'takes small letters, digits, - and _, a letter first')
    .default('pool'),
  recordBytes: poolAskSchema.shape.recordBytes,
  filled: poolAskSchema.shape.filled,
  /** Snapshots: so many of so many hours’ distance, and what changes in a day. Null: none are taken. */
  snapshots: z
    .object({
      everyHours: z.number().int().min(1).max(8760),
      keepDays: z.number().int().min(1).max(3650),
      changedPerDay: bytes,
    })
    .nullable()
    .default(null),
  /** Days from one reading of everything to the next; null: it is not read through. */
  scrubDays: z.number().int().min(1).max(730).nullable().default(30),
  /** When it was last read through. */
  scrubbed: day.nullable().default(null),
  /** Serials of drives whose content was wiped, typed before it. */
  wiped: z.array(serial).max(24).default([]),
});
export type BoxPool = z.infer<typeof boxPoolSchema>;

/** Where a copy of something lies. */
export const copyPlaces = [
  'this pool',
  'another machine',
  'a drive apart',
  'another house',
  'paper',
] as const;

/** Something that must not be lost, and every copy of it. */
export const keptThingSchema = z.object({
  id: z.string().min(1).max(80),
  what: z.string().min(1).max(200),
  bytes: bytes.nullable().default(null),
  copies: z
    .array(
      z.object({
        where: z.enum(copyPlaces),
        /** Its name: a drive, a cupboard, a person. */
        name: z.string().max(200).default(''),
        /** When it was last brought up to date. */
        at: day.nullable().default(null),
      }),
    )
    .max(20)
    .default([]),
  /** Days after which a copy is too old for it. */
  everyDays: z.number().int().min(1).max(3650).default(30),
  /** When something was last brought back from a copy, and looked at. */
  restored: day.nullable().default(null),
});
export type KeptThing = z.infer<typeof keptThingSchema>;

/** Why a pool may disappoint. Names of drives; bytes. */
export const poolFaultSchema = z.discriminatedUnion('code', [
  about('drives alike', { drives: z.array(z.string()) }),
  about('worn', { drive: z.string(), wear: z.number() }),
  about('bad sectors', { drive: z.string(), sectors: z.number() }),
  about('old drive', { drive: z.string(), years: z.number() }),
  about('cannot mend', {}),
  about('shingled', { drives: z.array(z.string()) }),
  about('shingled not known', { drives: z.array(z.string()) }),
  /** Parity that a power cut leaves half written, and by what it can be closed. */
  about('write hole', { closed: z.enum(['partial parity log', 'journal']) }),
  about('survives none', { drives: z.number() }),
  about('lost to smaller', { bytes: z.number(), share: z.number() }),
  about('too many for ports', { drives: z.number(), ports: z.number() }),
  about('too many for bays', { drives: z.number(), bays: z.number() }),
  about('too many leads', { drives: z.number(), leads: z.number() }),
  about('boot drive in pool', { drive: z.string() }),
  about('removable in pool', { drive: z.string() }),
  about('claims more', { drive: z.string(), bytes: z.number() }),
  about('sectors of two sizes', { drives: z.array(z.string()) }),
  about('sector not known', { drives: z.array(z.string()) }),
  about('read fault likely', { chance: z.number() }),
  about('parity of groups', {}),
  about('little memory', { has: z.number(), wants: z.number() }),
  about('kept drive in pool', { drive: z.string(), holds: z.string() }),
  about('held drive in pool', { drive: z.string(), box: z.string(), as: z.enum(['reserved', 'in use']) }),
  about('not decided in pool', { drive: z.string(), holds: z.string() }),
  about('not wiped', { drive: z.string(), holds: z.string() }),
  about('slow drive', { drive: z.string(), rate: z.number() }),
  about('never read through', {}),
  about('read through late', { days: z.number(), every: z.number() }),
]);
export type PoolFault = z.infer<typeof poolFaultSchema>;

/** What is wanting in the copies of something. */
export const copyFaultSchema = z.discriminatedUnion('code', [
  about('no other copy', { what: z.string() }),
  about('pool is no copy', { what: z.string() }),
  about('all in one house', { what: z.string() }),
  about('copy old', { what: z.string(), days: z.number(), where: z.string() }),
  about('copy of no day', { what: z.string(), where: z.string() }),
  about('never brought back', { what: z.string() }),
  about('brought back long ago', { what: z.string(), days: z.number() }),
  about('fewer than three', { what: z.string(), copies: z.number() }),
  about('nothing named', {}),
]);
export type CopyFault = z.infer<typeof copyFaultSchema>;

/** A pool nobody has decided anything of. */
export const noPool = (): BoxPool => boxPoolSchema.parse({});
