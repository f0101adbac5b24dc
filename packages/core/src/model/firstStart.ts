import { z } from 'zod';

/** What a system asks at its first start. Common practice, no source. */
export const firstQuestions = [
  'language',
  'zone',
  'keyboard',
  'set of software',
  'user',
  'password',
  'network',
  'keyring',
] as const;

/** Where updates come from. */
export const channelKinds = ['open', 'community', 'subscription', 'advanced'] as const;

/** How a system behaves when it is first started; the defaults are what most do (common practice, no source). Minutes. */
export const firstMannerSchema = z.object({
  asks: z
    .array(z.enum(firstQuestions))
    .max(firstQuestions.length)
    .default(['language', 'zone', 'keyboard', 'user', 'password']),
  /** It does not go on without a network. */
  wantsNetwork: z.boolean().default(false),
  /** The way round that, in words; empty where nobody knows one. */
  wayRound: z.string().max(500).default(''),
  /** How long its screen may stay black, and how long the whole of the first start takes. */
  blackMinutes: z.tuple([z.number().nonnegative(), z.number().nonnegative()]).default([0, 1]),
  minutes: z.tuple([z.number().nonnegative(), z.number().nonnegative()]).default([2, 8]),
  /** Where its updates come from when it is new, and what hobbyists switch that to; null where it needs no switching. */
  channel: z.enum(channelKinds).default('open'),
  switchTo: z.enum(channelKinds).nullable().default(null),
  /** Places in which the channel is switched on; an advanced one has two. */
  switchPlaces: z.array(z.string().max(200)).max(5).default([]),
  /** Rounds of updates with restarts between them. */
  rounds: z.tuple([z.number().int().nonnegative(), z.number().int().nonnegative()]).default([1, 3]),
  /** It has a desktop, whose wallet or keyring asks once. */
  desktop: z.boolean().default(false),
  /** It is steered by gamepads. */
  gamepads: z.boolean().default(false),
});
export type FirstManner = z.infer<typeof firstMannerSchema>;

/** What a system does at its first start of which nobody has said anything. */
export const usualFirst = (): FirstManner => firstMannerSchema.parse({});

const seconds = z.number().nonnegative().max(1e6);

/** What was done and measured at the first start of a box. */
export const firstRecordSchema = z.object({
  /** Lines that are done, and such as are left out, by their keys. */
  done: z.array(z.string().max(80)).max(200).default([]),
  left: z.array(z.string().max(80)).max(200).default([]),
  /** What was set, by the key of its line: a language, an output by its name. Never a password. */
  set: z.record(z.string().max(80), z.string().max(300)).default({}),
  /** The first start itself: when it began, and the seconds until it answered. */
  began: z.string().nullable().default(null),
  seconds: seconds.nullable().default(null),
  /** Rounds of updates, each with how much was offered (null where nobody counted) and how long it took. */
  rounds: z
    .array(
      z.object({
        at: z.string(),
        seconds: seconds.nullable(),
        offered: z.number().int().nonnegative().nullable(),
      }),
    )
    .max(50)
    .default([]),
  /** Drivers that were fetched beforehand: files with their sizes in bytes, and the stick they lie on. */
  bundle: z
    .array(
      z.object({
        driver: z.string().max(200),
        file: z.string().max(300),
        bytes: z.number().int().nonnegative(),
        sha256: z
          .string()
          .regex(/^[\da-f]{64}$/)
          .nullable(),
        /** What a published list says of it; null where none was held against it. */
        matches: z.boolean().nullable(),
      }),
    )
    .max(200)
    .default([]),
  stickId: z.string().nullable().default(null),
  /** Where the password is written down and who knows it; the password itself is nowhere. */
  password: z
    .object({
      kept: z.string().max(200),
      knows: z.string().max(200),
      /** The one it came with no longer opens it. */
      replaced: z.boolean(),
      at: z.string(),
    })
    .nullable()
    .default(null),
});
export type FirstRecord = z.infer<typeof firstRecordSchema>;

/** A first start that has not happened yet. */
export const noFirst = (): FirstRecord => firstRecordSchema.parse({});
