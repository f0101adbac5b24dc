import { fates } from './content';
import { z } from 'zod';
import { containerKinds } from './inspection';

/*
 * What the page and the stand-in server say to each other; both sides check it. Bytes and bytes per second throughout.
 */

/** Is this the demo, and what the stand-ins cannot keep at present, in words. */
export const healthSchema = z.object({
  ok: z.literal(true),
  demo: z.boolean(),
  /** Whether the server may ask one address of the real network. */
  lan: z.boolean().default(false),
  troubles: z.array(z.string()),
});
export type Health = z.infer<typeof healthSchema>;

/** A file that the depot offers; its digest is that of the file as it is offered, in hex. */
export const depotFileSchema = z.object({
  file: z.string(),
  title: z.string(),
  about: z.string(),
  profile: z.string().nullable(),
  bytes: z.number(),
  sha256: z.string(),
});
export type DepotFile = z.infer<typeof depotFileSchema>;

/** USB links by what they carry at most: 480 Mb/s, 5, 10 and 20 Gb/s (USB 2.0; USB 3.2). */
export const usbLinkIds = ['usb2', 'usb5', 'usb10', 'usb20'] as const;
/** What a USB port of the writer carries. */
export type UsbLink = (typeof usbLinkIds)[number];

/** What is made to go wrong with a virtual stick. */
export const stickFaultSchema = z
  .object({
    /** Bytes the stick really has; everything beyond is lost. */
    realBytes: z.number().int().positive(),
    /** Offset of a place that returns one wrong bit. */
    weakAt: z.number().int().nonnegative(),
    /** Share of the image (0–1) after which the stick is pulled out. */
    pulledAt: z.number().min(0).max(1),
  })
  .partial();
export type StickFault = z.infer<typeof stickFaultSchema>;

export const virtualStickSchema = z.object({
  id: z.string(),
  bytes: z.number(),
  serial: z.string(),
  model: z.string(),
  port: z.string(),
  /** What the port can carry, and which other ports share its way: writes on one way take turns. */
  link: z.enum(usbLinkIds),
  bus: z.string(),
  /** Bytes per second of the speed model. */
  writeRate: z.number(),
  readRate: z.number(),
  fault: stickFaultSchema,
});
export type VirtualStick = z.infer<typeof virtualStickSchema>;

/** A stick to plug in by hand. */
export const plugSchema = z.object({
  bytes: z
    .number()
    .int()
    .min(1024 * 1024)
    .max(4e12),
  serial: z.string().min(1).max(80),
  model: z.string().max(120),
});

const sha256 = z.string().regex(/^[0-9a-f]{64}$/);

/** A write to begin: which stick, the last four of its serial as the user typed them, and where the bytes come from. */
export const writeRequestSchema = z.object({
  stickId: z.string().min(1).max(120),
  serialTail: z.string().length(4),
  tag: z.string().max(200).default(''),
  /** What the shelf of the page says of that stick; null where it has no record of it. The writer has no shelf of its own. */
  shelf: z
    .object({
      name: z.string().max(200),
      fate: z.enum(fates),
      holds: z.string().max(2000),
      claim: z.object({ boxName: z.string().max(300), as: z.enum(['reserved', 'in use']) }).nullable(),
    })
    .nullable()
    .default(null),
  image: z.discriminatedUnion('from', [
    z.object({ from: z.literal('depot'), file: z.string().min(1).max(255) }),
    z.object({
      from: z.literal('upload'),
      name: z.string().min(1).max(255),
      bytes: z.number().int().positive(),
      /** Of what is to reach the stick: of a packed file, of what is inside. The write is proven against it. */
      sha256: sha256.nullable().default(null),
      /** How the file is packed; it is unpacked while it is written, and `innerBytes` is what reaches the stick. */
      container: z.enum(containerKinds).default('none'),
      innerBytes: z.number().int().positive().nullable().default(null),
    }),
  ]),
});
export type WriteRequest = z.infer<typeof writeRequestSchema>;

/** What a probe of a stick's real size found. */
export const probeResultSchema = z.object({
  claimed: z.number(),
  /** What it holds for certain; equal to `claimed` where nothing speaks against it. */
  real: z.number(),
  writes: z.number(),
  bytesWritten: z.number(),
});
export type ProbeResult = z.infer<typeof probeResultSchema>;
