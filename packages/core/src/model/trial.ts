import { z } from 'zod';
import { containerKinds } from './inspection';

/** Firmware under which an image is tried: of a PC, without and with Secure Boot. */
export const trialFirmwares = ['bios', 'uefi-x64', 'uefi-x64-secure'] as const;
/** Firmware under which an image is tried. */
export type TrialFirmware = (typeof trialFirmwares)[number];
/** How it is attached. */
export const trialAttached = ['disk', 'optical'] as const;

/**
 * What a trial came to. Found nothing: firmware says that there is nothing to start. Refused: Secure Boot does not let it.
 * Gave up: what was started says that it cannot go on. Started: firmware handed over, and nothing spoke against it since.
 * Silent: it handed over, and nothing was seen or heard since. Not seen: firmware was still at work when it was over.
 */
export const trialHappened = [
  'found nothing',
  'refused',
  'gave up',
  'started',
  'silent',
  'not seen',
] as const;
/** What a trial came to. */
export type TrialHappened = (typeof trialHappened)[number];

/** Why a trial is over. */
export const trialEnds = [
  'stopped',
  'page closed',
  'time is up',
  'machine ended',
  'emulator failed',
  'file did not come',
  'wrote too much',
  'no room left',
] as const;
/** Why a trial is over. */
export type TrialEnd = (typeof trialEnds)[number];

const fileName = z.string().min(1).max(255);
const imageBytes = z
  .number()
  .int()
  .min(512)
  .max(64 * 2 ** 30);
/** A trial to begin. Bytes, MiB, seconds. */
export const trialRequestSchema = z.object({
  image: z.discriminatedUnion('from', [
    z.object({ from: z.literal('depot'), file: fileName }),
    z.object({
      from: z.literal('upload'),
      name: fileName,
      /** Of the file that is sent. */
      bytes: z
        .number()
        .int()
        .min(1)
        .max(64 * 2 ** 30),
      /** How it is packed, and the size of what is inside, which is started; null of a plain image. */
      container: z.enum(containerKinds).default('none'),
      innerBytes: imageBytes.nullable().default(null),
    }),
  ]),
  firmware: z.enum(trialFirmwares),
  attached: z.enum(trialAttached),
  memoryMiB: z.number().int().min(128).max(4096).default(512),
  seconds: z.number().int().min(5).max(900).default(180),
});
export type TrialRequest = z.infer<typeof trialRequestSchema>;

/** A trial as the server tells it. */
export const trialSchema = z.object({
  id: z.string(),
  imageName: z.string(),
  firmware: z.enum(trialFirmwares),
  attached: z.enum(trialAttached),
  state: z.enum(['waits for its file', 'unpacks', 'runs', 'over']),
  /** Bytes of the file that have come, or of what is inside that is unpacked; and all of them. */
  come: z.number(),
  bytes: z.number(),
  end: z.enum(trialEnds).nullable(),
  /** Of an emulator that failed: what it said. */
  fault: z.string().nullable(),
  /** Seconds since the machine was switched on. */
  seconds: z.number(),
  happened: z.enum(trialHappened),
  /** Counts pictures of the screen that differ; 0: none was taken yet. */
  picture: z.number().int(),
  /** The end of what came over the serial line, and the screen where it shows text. */
  serial: z.string(),
  screen: z.string().nullable(),
});
export type Trial = z.infer<typeof trialSchema>;

/** Whether trials can be had here, what is wanting for them, and the one that runs. */
export const trialDeskSchema = z.object({
  missing: z.array(z.object({ what: z.string(), package: z.string() })),
  current: trialSchema.nullable(),
});
export type TrialDesk = z.infer<typeof trialDeskSchema>;

/** Keys by the names of the emulator (QKeyCode, QMP reference), pressed together. */
export const trialKeysSchema = z.object({
  keys: z
    .array(z.string().regex(/^[a-z0-9_]{1,20}$/))
    .min(1)
    .max(4),
});

/** A trial as an image keeps it. */
export const keptTrialSchema = z.object({
  id: z.string().min(1).max(80),
  at: z.iso.datetime(),
  firmware: z.enum(trialFirmwares),
  attached: z.enum(trialAttached),
  happened: z.enum(trialHappened),
  /** What was foretold then, by which rules; null where nothing was. */
  foretold: z.enum(['yes', 'no', 'unknown']).nullable(),
  rules: z.number().int().nullable(),
  seconds: z.number().nonnegative(),
  /** The last picture, among the photos. */
  photoId: z.string().nullable(),
  serial: z.string().max(2000).default(''),
});
export type KeptTrial = z.infer<typeof keptTrialSchema>;
