import { z } from 'zod';
import { about } from './coded';

/** What is moved from an old server to the new one. */
export const movedKinds = ['PostgreSQL', 'MariaDB', 'SQLite', 'files', 'other'] as const;
/** What is moved. */
export type MovedKind = (typeof movedKinds)[number];

/** Steps of a move, in the order in which they are done. */
export const moveSteps = ['freeze', 'back up', 'copy', 'restore', 'count', 'switch', 'keep'] as const;
/** A step of a move. */
export type MoveStep = (typeof moveSteps)[number];

const count = z.number().int().nonnegative().nullable();
const name = z
  .string()
  .trim()
  .min(1)
  .max(100)
  .regex(/^[\w][\w .:/-]*$/, 'is letters, digits, and _ . : / -');

/** A database, or files, on the way from an old server to a box. */
export const movingSchema = z.object({
  id: z.string().min(1).max(80),
  what: name,
  kind: z.enum(movedKinds),
  /** Where it comes from. */
  from: z.string().max(200).default(''),
  /** When each step was done. */
  done: z.partialRecord(z.enum(moveSteps), z.string()).default({}),
  /** SHA-256 of the backup, as it was made and as it arrived. */
  sums: z
    .object({ made: z.string().max(64), arrived: z.string().max(64) })
    .default({ made: '', arrived: '' }),
  /** How much of each table, or of each folder, there is here and there. */
  counts: z
    .array(z.object({ of: name, before: count.default(null), after: count.default(null) }))
    .max(200)
    .default([]),
  /** Days for which the old one stays whole and off once the new one has taken over. */
  keepDays: z.number().int().min(1).max(365).default(30),
});
export type Moving = z.infer<typeof movingSchema>;

/** What stands against the next step. */
export const moveFaultSchema = z.discriminatedUnion('code', [
  about('still written to', { what: z.string() }),
  about('sums differ', { what: z.string() }),
  about('sum not known', { what: z.string() }),
  about('counts differ', { what: z.string(), of: z.array(z.string()) }),
  about('nothing counted', { what: z.string() }),
  about('out of order', { what: z.string(), step: z.enum(moveSteps), before: z.enum(moveSteps) }),
  about('old one may go', { what: z.string(), day: z.string() }),
]);
export type MoveFault = z.infer<typeof moveFaultSchema>;
