import { z } from 'zod';
import { writeSize } from '../units/typedSize';
import { number, numberOrNull, size, sizeOrNull } from './typedFields';
import type { Store } from './shelf';
import { movedKinds, movingSchema, type Moving } from './moving';
import { boxPoolSchema, copyPlaces, type BoxPool, type KeptThing } from './storage';

const dayOrNull: z.ZodType<string | null, string> = z
  .string()
  .transform((t) => (t.trim() === '' ? null : t.trim()))
  .pipe(z.iso.date().nullable());

/** What a data sheet or a look at a drive tells of it, as the form has it. */
export const toldDriveSchema = z.object({
  sectorBytes: numberOrNull(z.union([z.literal(512), z.literal(4096)])) as z.ZodType<
    512 | 4096 | null,
    string
  >,
  errorExponent: numberOrNull(z.number().int().min(12).max(18)),
  wear: numberOrNull(z.number().min(0).max(255)),
  shingled: z.enum(['', 'yes', 'no']).transform((t) => (t === '' ? null : t === 'yes')),
  price: numberOrNull(z.number().nonnegative()),
});
/** What is told of a drive, read from its form. */
export type ToldDrive = z.infer<typeof toldDriveSchema>;
/** The same as its form has it. */
export type ToldDriveDraft = z.input<typeof toldDriveSchema>;

const text = (n: number | string | null): string => (n === null ? '' : String(n));

/** What is told of a drive, for its form. */
export const toldDraftOf = (store: Store): ToldDriveDraft => ({
  sectorBytes: text(store.sectorBytes),
  errorExponent: text(store.errorExponent),
  wear: text(store.wear),
  shingled: store.shingled === null ? '' : store.shingled ? 'yes' : 'no',
  price: text(store.price),
});

/** How a pool is kept, as the form has it. */
export const keepingSchema = z
  .object({
    name: boxPoolSchema.shape.name.unwrap(),
    filled: number(z.number().min(1).max(100)),
    scrubDays: numberOrNull(z.number().int().min(1).max(730)),
    scrubbed: dayOrNull,
    everyHours: numberOrNull(z.number().int().min(1).max(8760)),
    keepDays: number(z.number().int().min(1).max(3650)),
    changedPerDay: size,
  })
  .transform((d): Pick<BoxPool, 'name' | 'filled' | 'scrubDays' | 'scrubbed' | 'snapshots'> => ({
    name: d.name,
    filled: d.filled / 100,
    scrubDays: d.scrubDays,
    scrubbed: d.scrubbed,
    snapshots:
      d.everyHours === null
        ? null
        : { everyHours: d.everyHours, keepDays: d.keepDays, changedPerDay: d.changedPerDay },
  }));
/** How a pool is kept, read from its form. */
export type Keeping = z.output<typeof keepingSchema>;
/** The same as its form has it. */
export type KeepingDraft = z.input<typeof keepingSchema>;

/** How a pool is kept, for its form. */
export const keepingDraftOf = (pool: BoxPool): KeepingDraft => ({
  name: pool.name,
  filled: String(Math.round(pool.filled * 100)),
  scrubDays: text(pool.scrubDays),
  scrubbed: text(pool.scrubbed),
  everyHours: text(pool.snapshots?.everyHours ?? null),
  keepDays: text(pool.snapshots?.keepDays ?? 30),
  changedPerDay: writeSize(pool.snapshots?.changedPerDay ?? 2 ** 30),
});

/** Something that must not be lost, as the form has it; its id stays. */
export const thingOfDraft = (id: string): z.ZodType<KeptThing, ThingDraft> =>
  z
    .object({
      what: z.string().trim().min(1).max(200),
      bytes: sizeOrNull,
      everyDays: number(z.number().int().min(1).max(3650)),
      restored: dayOrNull,
      copies: z
        .array(z.object({ where: z.enum(copyPlaces), name: z.string().trim().max(200), at: dayOrNull }))
        .max(20),
    })
    .transform((d) => ({ id, ...d }));
/** Something that must not be lost, as its form has it. */
export interface ThingDraft {
  what: string;
  bytes: string;
  everyDays: string;
  restored: string;
  copies: { where: (typeof copyPlaces)[number]; name: string; at: string }[];
}

/** Something that must not be lost, for its form; a new one lies on the pool. */
export const thingDraftOf = (thing: KeptThing | null): ThingDraft => ({
  what: thing?.what ?? '',
  bytes: thing?.bytes == null ? '' : writeSize(thing.bytes),
  everyDays: text(thing?.everyDays ?? 30),
  restored: text(thing?.restored ?? null),
  copies: (thing?.copies ?? [{ where: 'this pool' as const, name: '', at: null }]).map((c) => ({
    where: c.where,
    name: c.name,
    at: text(c.at),
  })),
});

/** Something that moves here, as its form has it. */
export interface MovingDraft {
  what: string;
  kind: Moving['kind'];
  from: string;
  keepDays: string;
  made: string;
  arrived: string;
  counts: { of: string; before: string; after: string }[];
}

/** A sum as people paste it: with the name of its file, in capitals; empty where nobody took it. */
const sum: z.ZodType<string, string> = z
  .string()
  .transform((t) => (t.trim().split(/\s+/)[0] ?? '').toLowerCase())
  .pipe(z.string().regex(/^([\da-f]{64})?$/, 'is 64 hexadecimal digits, as sha256sum prints them'));

/** Reads something that moves from its form; what was done stays. */
export const movingOfDraft = (moved: Pick<Moving, 'id' | 'done'>): z.ZodType<Moving, MovingDraft> =>
  z
    .object({
      what: movingSchema.shape.what,
      kind: z.enum(movedKinds),
      from: z.string().trim().max(200),
      keepDays: number(z.number().int().min(1).max(365)),
      made: sum,
      arrived: sum,
      counts: z
        .array(
          z.object({
            of: movingSchema.shape.what,
            before: numberOrNull(z.number().int().nonnegative()),
            after: numberOrNull(z.number().int().nonnegative()),
          }),
        )
        .max(200),
    })
    .transform(({ made, arrived, ...d }) => ({ ...d, ...moved, sums: { made, arrived } }));

/** Something that moves, for its form. */
export const movingDraftOf = (m: Moving | null): MovingDraft => ({
  what: m?.what ?? '',
  kind: m?.kind ?? 'PostgreSQL',
  from: m?.from ?? '',
  keepDays: text(m?.keepDays ?? 30),
  made: m?.sums.made ?? '',
  arrived: m?.sums.arrived ?? '',
  counts: (m?.counts ?? []).map((c) => ({ of: c.of, before: text(c.before), after: text(c.after) })),
});
