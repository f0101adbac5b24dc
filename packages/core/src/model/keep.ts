import { z } from 'zod';

const day = z.iso.date();
const name = z.string().max(200);

/** Ways in which a drive leaves a box, and how sure it is that nobody reads it again (NIST SP 800-88 Rev. 1 §2.5). */
export const driveEnds = ['clear', 'purge', 'destroy', 'kept as it is', 'stays in it'] as const;
/** How a drive left a box. */
export type DriveEnd = (typeof driveEnds)[number];
/** Where a machine goes when its work is over. */
export const machineEnds = ['back to the shelf', 'given away', 'recycling'] as const;
/** Where a machine went. */
export type MachineEnd = (typeof machineEnds)[number];
/** What its cells looked like. */
export const cellStates = ['none', 'sound', 'swollen'] as const;
/** What cells look like. */
export type CellState = (typeof cellStates)[number];

/** How a box ended. */
export const retiredSchema = z.object({
  at: z.iso.datetime(),
  because: z.string().trim().min(1).max(500),
  machine: z.enum(machineEnds),
  cells: z.enum(cellStates),
  drives: z
    .array(
      z.object({
        id: z.string().max(80),
        name,
        serial: name.nullable(),
        end: z.enum(driveEnds),
        /** How it was done, and whether places of it were read back. */
        how: z.string().max(300).default(''),
        readBack: z.boolean().default(false),
      }),
    )
    .max(60),
});
/** How a box ended. */
export type Retired = z.infer<typeof retiredSchema>;

/** What a box keeps of its years in use. */
export const keepRecordSchema = z.object({
  /** What comes round again, by its key: days between, where not as usual; whether it is done here at all; the days it was done. */
  chores: z
    .record(
      z.string().min(1).max(400),
      z.object({
        everyDays: z.number().int().min(1).max(3650).nullable().default(null),
        off: z.boolean().default(false),
        done: z.array(day).max(400).default([]),
      }),
    )
    .default({}),
  /** A finished box that was opened again, and why; null while it is closed. */
  opened: z
    .object({ at: z.iso.datetime(), because: z.string().trim().min(1).max(500) })
    .nullable()
    .default(null),
  retired: retiredSchema.nullable().default(null),
});
/** What a box keeps of its years in use. */
export type KeepRecord = z.infer<typeof keepRecordSchema>;

/** Nothing was kept yet. */
export const noKeep = (): KeepRecord => ({ chores: {}, opened: null, retired: null });
