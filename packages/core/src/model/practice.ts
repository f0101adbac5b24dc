import { z } from 'zod';

const id = z.string().min(1).max(80);

/** One act of somebody who practises: what is done, and to what. */
export const practiceActSchema = z.object({
  do: z.string().min(1).max(40),
  on: id.optional(),
  /** Beats let go by are kept as one act. */
  times: z.number().int().min(1).max(9999).optional(),
});
export type PracticeAct = z.infer<typeof practiceActSchema>;

/** So many acts, beats counted one by one, nobody does; a list of somebody else's must not be played for ever. */
const MOST_ACTS = 20_000;
/** Acts as they are kept and as the command line takes them. */
export const practiceActsSchema = z
  .array(practiceActSchema)
  .max(MOST_ACTS)
  .refine((acts) => acts.reduce((sum, a) => sum + (a.times ?? 1), 0) <= MOST_ACTS, {
    message: `more than ${MOST_ACTS} acts, beats counted one by one`,
  });

/** What an exercise is drawn by. */
export const practiceSeedSchema = z.number().int().min(0).max(0xffffffff);

/** How an attempt ended: the goal reached, something lost, or left in the middle. */
export const attemptEnds = ['done', 'lost', 'left'] as const;
/** One of them. */
export type AttemptEnd = (typeof attemptEnds)[number];

/** One attempt at an exercise: with its seed and its acts it can be told again, blow by blow. */
export const attemptSchema = z.object({
  id,
  exercise: id,
  /** The box it was made from; null for those that ship. */
  boxId: z.string().max(80).nullable().default(null),
  seed: practiceSeedSchema,
  acts: practiceActsSchema,
  at: z.iso.datetime(),
  /** Seconds it took by the clock on the wall. */
  seconds: z.number().nonnegative().max(1e6),
  end: z.enum(attemptEnds),
  /** 0 to 100, as it was scored then. */
  score: z.number().int().min(0).max(100),
  hints: z.number().int().nonnegative().max(1000),
  faults: z.number().int().nonnegative().max(1000),
});
export type Attempt = z.infer<typeof attemptSchema>;
