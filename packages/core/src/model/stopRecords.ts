import { z } from 'zod';
import { carriedSchema, type Carried } from './contentRules';
import { gatePlanSchema, type GatePlan } from './gate';
import { guestPlanSchema, type GuestPlan } from './guests';
import { boxLayoutSchema, type BoxLayout } from './layout';
import { keepRecordSchema, type KeepRecord } from './keep';
import { firstRecordSchema, type FirstRecord } from './firstStart';
import { reachSchema, type Reach } from './reach';
import { movingSchema, type Moving } from './moving';
import { openingRecordSchema, type OpeningRecord } from './opening';
import { boxPoolSchema, keptThingSchema, type BoxPool, type KeptThing } from './storage';
import { sharingSchema, type Sharing } from './sharing';
import { tunePlanSchema, type TunePlan } from './tune';
import type { Stop } from './stops';

/** What became of the last write; kept so that the boot ladder knows what is on the stick. Bytes and seconds. */
export const writtenSchema = z.object({
  at: z.string(),
  /** Null: the bench does not have the image. */
  imageId: z.string().nullable(),
  serial: z.string(),
  /** By word: a person says that it was written, and nobody has compared it. */
  result: z.enum(['proven', 'failed', 'by word']),
  explanation: z.string(),
  bytes: z.number(),
  seconds: z.number(),
});
export type Written = z.infer<typeof writtenSchema>;

const id = z.string().nullable();

/** The fields of a box in which a stop keeps what was decided there. Those of later versions have a default. */
export const stopRecords = {
  survey: { machineId: id },
  choose: {
    profileId: id,
    /** The release and the variant of the profile; null takes the one the bench would choose. */
    releaseId: id.default(null),
    variantId: id.default(null),
    /** The wish this box answers. */
    wishId: id.default(null),
    /** Hours a day it runs; null takes what is usual for its purpose. */
    hoursPerDay: z.number().min(0).max(24).nullable().default(null),
  },
  gather: {
    /** Parts of the shelf put aside for it. */
    parts: z.array(z.string()).default([]),
    /** What of the gathering list lies on the bench, by the keys of its lines. */
    gathered: z.array(z.string()).default([]),
  },
  verify: { imageId: id },
  write: {
    /** Serial of the stick, card or drive picked for the next write. */
    targetSerial: id,
    written: writtenSchema.nullable(),
  },
  firmware: {
    /** How the stick is to be started: through the one-time menu, or by leaving it to the boot order. */
    startBy: z.enum(['menu', 'order']),
    /** A stick that stays in and starts a drive which the firmware cannot start; seconds its menu waits. */
    chain: z
      .object({ stickId: z.string(), seconds: z.number().int().min(0).max(600) })
      .nullable()
      .default(null),
  },
  install: {
    /** What was decided about the drive of its system. */
    layout: boxLayoutSchema.nullable().default(null),
    /** Precautions that are taken, and those that the person will not take, by their ids. */
    precautions: z.array(z.string().max(200)).max(100).default([]),
    refused: z.array(z.string().max(200)).max(100).default([]),
    /** What was done while the machine was open; null where it never was. */
    opening: openingRecordSchema.nullable().default(null),
  },
  'first-start': {
    /** What was done and measured at its first start; null where it has not been. */
    first: firstRecordSchema.nullable().default(null),
  },
  network: {
    /** How it is reached; null where nothing was noted. Its addresses are those of its hosts. */
    reach: reachSchema.nullable().default(null),
  },
  load: {
    /** Its pool; null where nothing was decided of one. */
    pool: boxPoolSchema.nullable().default(null),
    /** What must not be lost, and where its copies are. */
    things: z.array(keptThingSchema).max(100).default([]),
    /** Folders that others reach; null where nothing was decided of any. */
    sharing: sharingSchema.nullable().default(null),
    /** Databases and files that move here from an old server. */
    moving: z.array(movingSchema).max(50).default([]),
    /** What goes on it; null where nothing was looked through. */
    carried: carriedSchema.nullable().default(null),
    /** Rules of a gate; null where nothing was decided of any. */
    gate: gatePlanSchema.nullable().default(null),
    /** Guests of a host; null where nothing was decided of any. */
    guests: guestPlanSchema.nullable().default(null),
  },
  tune: {
    /** Settings, experiments and verdicts; null where nothing was measured. Its runs are a collection. */
    tune: tunePlanSchema.nullable().default(null),
  },
  keep: {
    /** What came round in its years of use, and how it ended; null where nothing was kept. */
    kept: keepRecordSchema.nullable().default(null),
  },
} satisfies Record<Stop, z.ZodRawShape>;

/** What a new box has in them. */
export const emptyStopRecords = () => ({
  machineId: null,
  profileId: null,
  releaseId: null,
  variantId: null,
  wishId: null,
  hoursPerDay: null,
  parts: [] as string[],
  gathered: [] as string[],
  imageId: null,
  targetSerial: null,
  written: null,
  startBy: 'menu' as const,
  chain: null as { stickId: string; seconds: number } | null,
  layout: null as BoxLayout | null,
  precautions: [] as string[],
  refused: [] as string[],
  opening: null as OpeningRecord | null,
  first: null as FirstRecord | null,
  reach: null as Reach | null,
  pool: null as BoxPool | null,
  things: [] as KeptThing[],
  sharing: null as Sharing | null,
  carried: null as Carried | null,
  gate: null as GatePlan | null,
  guests: null as GuestPlan | null,
  moving: [] as Moving[],
  tune: null as TunePlan | null,
  kept: null as KeepRecord | null,
});
