import { z } from 'zod';

/** What is measured in a run. Units stand in tune/quantities.ts. */
export const quantityCodes = [
  'hottest',
  'fan',
  'noise',
  'rate',
  'low percentile',
  'low average',
  'pace',
  'stutters',
  'wall',
  'battery',
  'write',
  'read',
  'network',
  'score',
] as const;
/** A quantity of a run, by its code. */
export type QuantityCode = (typeof quantityCodes)[number];

/** What somebody wants to know. */
export const questionCodes = [
  'cooler',
  'quieter',
  'more even',
  'faster',
  'longer on battery',
  'less at the wall',
  'faster disk',
  'faster network',
] as const;
/** A question, by its code. */
export type QuestionCode = (typeof questionCodes)[number];

/** Settings a builder turns. Common practice, no source. */
export const settingKinds = [
  'power limit',
  'boost',
  'resolution',
  'frame cap',
  'graphics memory',
  'fan curve',
  'governor',
  'paste and pads',
  'undervolting',
  'refresh rate',
  'variable refresh',
  'other',
] as const;
/** A kind of setting, by its code. */
export type SettingKind = (typeof settingKinds)[number];

/** Where a setting lives: “machine” is what is done with a screwdriver. */
export const settingPlaces = ['firmware', 'system', 'program', 'machine'] as const;
/** A place where settings live. */
export type SettingPlace = (typeof settingPlaces)[number];

const id = z.string().min(1).max(80);
const words = z.string().trim().max(200);
const seconds = z.number().nonnegative().max(1e6);
const figure = z.number().refine(Number.isFinite, 'is no number');

/** A setting with its values as people say them: “24 W”, “off”, “1280 × 720”. */
export const settingSchema = z.object({
  id,
  kind: z.enum(settingKinds),
  name: words.min(1),
  place: z.enum(settingPlaces),
  /** As it came, and as it is; empty where nobody noted it. */
  came: words.default(''),
  now: words.default(''),
  why: z.string().trim().max(1000).default(''),
  /** How it is taken back. */
  back: z.string().trim().max(500).default(''),
});
export type Setting = z.infer<typeof settingSchema>;

export const arms = ['A', 'B', 'C', 'D', 'E', 'F', 'G', 'H'] as const;
/** One of the states that an experiment compares; A is the one it begins from. */
export type ArmName = (typeof arms)[number];

const armSchema = z.object({
  arm: z.enum(arms),
  /** The value each changed setting has there, by the setting’s id. */
  sets: z.record(id, words.min(1)),
});

/** The first value that stands more than once in a list. */
const twice = <T>(values: readonly T[]): T | undefined => values.find((v, i) => values.indexOf(v) !== i);

/** One question put to the machine: which states, in which order, how long. */
export const experimentSchema = z
  .object({
    id,
    question: z.enum(questionCodes),
    /** Settings that are changed: one, or two by those who planned it so. */
    changes: z.array(id).min(1).max(2),
    arms: z.array(armSchema).min(2).max(8),
    /** The change of the first quantity that would matter, in its unit. */
    matters: z.number().positive().max(1e15),
    /** States in the order of their runs, “ABBA…”. */
    order: z.string().regex(/^[A-H]{2,200}$/),
    seed: z
      .number()
      .int()
      .min(0)
      .max(2 ** 31),
    settleSeconds: seconds,
    measureSeconds: seconds.min(1),
    coolSeconds: seconds,
    at: z.string(),
    /** The state that was kept; null where nothing was decided. */
    kept: z.enum(arms).nullable().default(null),
    because: z.string().trim().max(1000).default(''),
  })
  .superRefine((e, ctx) => {
    const refuse = (path: PropertyKey[], message: string): void =>
      ctx.addIssue({ code: 'custom', path, message });
    if (twice(e.changes) !== undefined) refuse(['changes'], 'names one setting twice');
    const named = e.arms.map((a) => a.arm);
    const double = twice(named);
    if (double !== undefined) refuse(['arms'], `has two states ${double}`);
    if (!named.includes('A')) refuse(['arms'], 'has no state A to begin from');
    for (const [i, a] of e.arms.entries())
      for (const c of e.changes)
        if (a.sets[c] === undefined) refuse(['arms', i, 'sets'], `says no value of setting ${c}`);
    const same = twice(e.arms.map((a) => JSON.stringify(e.changes.map((c) => a.sets[c]))));
    if (same !== undefined) refuse(['arms'], 'has two states that do not differ');
    const stray = [...e.order].find((o) => !named.some((n) => n === o));
    if (stray !== undefined) refuse(['order'], `names state ${stray}, which there is not`);
    if (e.kept !== null && !named.includes(e.kept)) refuse(['kept'], 'is no state of it');
  });
export type Experiment = z.infer<typeof experimentSchema>;

/** Readings of one quantity over a run, thinned where there were more. */
export const traceSchema = z
  .object({
    what: z.string().min(1).max(120),
    unit: z.string().max(20),
    /** Seconds since the run began, and the value then. */
    t: z.array(figure).max(2000),
    v: z.array(figure).max(2000),
  })
  .refine((t) => t.t.length === t.v.length, 'has not as many times as values');
export type Trace = z.infer<typeof traceSchema>;

/** What a thermometer in the room shows; °C. */
export const roomSchema = z.number().min(-30).max(60);

/** One run of an experiment, with what it gave. */
export const tuneRunSchema = z.object({
  id,
  /** Null where the box is gone. */
  boxId: z.string().nullable(),
  experimentId: id,
  arm: z.enum(arms),
  /** Its place in the order of the experiment, from 0. */
  place: z.number().int().min(0).max(10_000),
  at: z.string(),
  /** Whether it had settled when it was measured; null where nobody can tell. */
  steady: z.boolean().nullable().default(null),
  /** Seconds of its slowest time constant, where heat was recorded. */
  tau: z.number().positive().max(1e7).nullable().default(null),
  /** How warm the room was, °C; null where nobody noted it. */
  room: roomSchema.nullable().default(null),
  /** Why it is not counted; empty where it is. */
  leftOut: words.default(''),
  values: z.partialRecord(z.enum(quantityCodes), figure),
  /** The interval of a figure within this run, at 95 %. */
  within: z.partialRecord(z.enum(quantityCodes), z.tuple([figure, figure])).default({}),
  source: z.enum(['typed', 'read', 'stand-in']),
  /** File it was read from, or the stand-in’s seed. */
  from: words.default(''),
  traces: z.array(traceSchema).max(12).default([]),
  /** Frame times in ms as they were read; of a long run its first ones. */
  frames: z.array(z.number().nonnegative()).max(20_000).default([]),
  /** How many frames there were. */
  frameCount: z.number().int().nonnegative().default(0),
});
export type TuneRun = z.infer<typeof tuneRunSchema>;

/** Two verdicts that are not the same: whether it works, and whether one would recommend it, and to whom. */
export const tuneVerdictSchema = z.object({
  is: z.enum(['yes', 'partly', 'no']),
  /** For whom, or what is missing. */
  words: z.string().trim().max(1000),
  at: z.string(),
});
export type TuneVerdict = z.infer<typeof tuneVerdictSchema>;

/** The picture’s rate: fixed, or between two rates where it can vary. Hz. */
export const panelSchema = z
  .object({
    hz: z.number().min(10).max(1000),
    low: z.number().min(1).max(1000).nullable().default(null),
    high: z.number().min(1).max(1000).nullable().default(null),
  })
  .superRefine((p, ctx) => {
    if ((p.low === null) !== (p.high === null))
      ctx.addIssue({ code: 'custom', path: ['high'], message: 'needs both ends of the range, or none' });
    else if (p.low !== null && p.high !== null && p.low >= p.high)
      ctx.addIssue({ code: 'custom', path: ['high'], message: 'is not above the lower end' });
  });
export type Panel = z.infer<typeof panelSchema>;

/** What a box keeps at stop 11. */
export const tunePlanSchema = z.object({
  panel: panelSchema.nullable().default(null),
  /** Watt-hours its battery holds when it is full. */
  batteryWattHours: z.number().positive().max(10_000).nullable().default(null),
  settings: z
    .array(settingSchema)
    .max(100)
    .default([])
    .refine((s) => twice(s.map((x) => x.id)) === undefined, 'names one setting twice'),
  experiments: z
    .array(experimentSchema)
    .max(100)
    .default([])
    .refine((s) => twice(s.map((x) => x.id)) === undefined, 'names one experiment twice'),
  works: tuneVerdictSchema.nullable().default(null),
  recommended: tuneVerdictSchema.nullable().default(null),
});
export type TunePlan = z.infer<typeof tunePlanSchema>;

/** A box of which nothing was measured yet. */
export const noTune = (): TunePlan => tunePlanSchema.parse({});

/** A question with what is known, as `zb tune plan` takes it. */
export const tuneQuestionSchema = z.object({
  question: z.enum(questionCodes),
  arms: z.number().int().min(2).max(8).default(2),
  factorial: z.boolean().default(false),
  /** The change that would matter, in the first quantity’s unit; without it what is usual. */
  matters: z.number().positive().optional(),
  /** How runs vary, one standard deviation; without it what is usual. */
  spread: z.number().nonnegative().optional(),
  runs: z.number().int().min(2).max(60).optional(),
  /** Seconds of the slowest time constant, where it is known. */
  tau: z.number().positive().max(1e6).optional(),
  seed: z.number().int().min(0).default(1),
});
export type TuneQuestion = z.infer<typeof tuneQuestionSchema>;
