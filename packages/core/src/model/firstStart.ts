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

const share = z.number().min(-1).max(1);

/** A gamepad that was tried: buttons by index, sticks and triggers by how far they go (Gamepad, W3C). */
export const padSchema = z.object({
  /** What it calls itself. */
  name: z.string().min(1).max(300),
  /** Whether its layout is the standard one. */
  standard: z.boolean(),
  buttons: z.number().int().min(0).max(64),
  /** Buttons that were pressed. */
  pressed: z.array(z.number().int().min(0).max(63)).max(64),
  /** How far each button that is a trigger went, 0 to 1, by index. */
  triggers: z.record(z.string().regex(/^\d{1,2}$/), z.number().min(0).max(1)),
  /** How far each axis went, and where it rests. */
  axes: z
    .array(z.object({ least: share, most: share, rest: share, drift: z.number().min(0).max(2) }))
    .max(32),
  /** Which index each named button answers with. */
  layout: z.record(z.string().max(40), z.number().int().min(0).max(63)),
  at: z.string(),
});
export type Pad = z.infer<typeof padSchema>;

/** The key of a line; that of a driver has its name, of 200 characters at most. */
const lineKey = z.string().max(220);

/** What was done and measured at the first start of a box. */
export const firstRecordSchema = z.object({
  /** Lines that are done, and such as are left out, by their keys. */
  done: z.array(lineKey).max(200).default([]),
  left: z.array(lineKey).max(200).default([]),
  /** What was set, by the key of its line: a language, an output by its name. Never a password. */
  set: z.record(lineKey, z.string().max(300)).default({}),
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
  /** Gamepads that were tried. */
  pads: z.array(padSchema).max(16).default([]),
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
