import { z } from 'zod';
import { about } from './coded';
import { hardwareSchema } from './hardware';
import { interfaceSchema } from './named';
import { ipSchema, prefixSchema } from './network';

const id = z.string().min(1).max(80);
const bytes = z
  .number()
  .int()
  .nonnegative()
  .refine((n) => Number.isSafeInteger(n), 'is more than can be counted');

/** Where disks of guests lie: a volume of the host with its room. */
export const guestPoolSchema = z.object({
  id,
  name: z.string().trim().min(1).max(80),
  /** Bytes in all, and what is not the guests' on it. */
  bytes,
  otherBytes: bytes.default(0),
  /** Disks may take only what was written to them. */
  thin: z.boolean().default(true),
  /** The folder of its files, or the volume group. */
  path: z
    .string()
    .regex(/^\/[\w./-]*$/, 'is a path such as /srv/guests')
    .max(300)
    .default('/srv/guests'),
});
export type GuestPool = z.infer<typeof guestPoolSchema>;

/** A device that may be handed to a guest whole. */
export const handedDeviceSchema = z.object({
  id,
  name: z.string().trim().min(1).max(120),
  /** Domain, bus, slot, function (PCI). */
  address: z
    .string()
    .regex(/^[\da-f]{4}:[\da-f]{2}:[01][\da-f]\.[0-7]$/, 'is an address such as 0000:03:00.0'),
  /** What cannot be parted from it: devices of one group go together; null where nobody looked. */
  group: z.number().int().min(0).max(100_000).nullable().default(null),
  /** The socket it hangs on. */
  node: z.number().int().min(0).max(63).nullable().default(null),
  /** The host itself cannot do without it. */
  host: z.boolean().default(false),
});
export type HandedDevice = z.infer<typeof handedDeviceSchema>;

/** How guests reach a network. */
export const guestNetSchema = z.object({
  id,
  name: z.string().regex(/^[A-Za-z0-9][\w.-]{0,40}$/, 'takes letters, digits, dots, hyphens and underscores'),
  /** `bridge`: with the host in a network; `behind`: behind the host's own address; `apart`: among themselves. */
  mode: z.enum(['bridge', 'behind', 'apart']),
  /** The bridge of the host. */
  bridge: interfaceSchema.default('br0'),
  networkId: z.string().max(80).nullable().default(null),
  prefix: prefixSchema(4).nullable().default(null),
});
export type GuestNet = z.infer<typeof guestNetSchema>;

/** A disk of a guest. */
export const guestDiskSchema = z.object({
  id,
  bytes: bytes.refine((n) => n > 0, 'is nothing'),
  poolId: id,
  /** It takes only what was written to it. */
  thin: z.boolean().default(true),
  /** What was written to it so far; null where nobody looked. */
  usedBytes: bytes.nullable().default(null),
  growsPerDay: bytes.default(0),
});
export type GuestDisk = z.infer<typeof guestDiskSchema>;

/** What a first boot is told (cloud-init, NoCloud). */
export const seedSchema = z.object({
  hostName: z
    .string()
    .regex(
      /^[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?$/,
      'is a name of small letters, digits and hyphens (RFC 1123)',
    ),
  user: z
    .string()
    .regex(/^[a-z_][a-z0-9_-]{0,31}$/, 'takes small letters, digits, - and _, a letter first')
    .default('keeper'),
  /** Public keys that sign in, one on each line (OpenSSH authorized_keys). */
  keys: z
    .array(
      z
        .string()
        .regex(
          /^(ssh-|ecdsa-|sk-)[\w@.-]+ [A-Za-z0-9+/=]+( .*)?$/,
          'is a public key, such as ssh-ed25519 AAAA…',
        ),
    )
    .max(20)
    .default([]),
  /** What a password became (crypt(5)): never the password. */
  hash: z
    .string()
    .regex(
      /^\$(y|6|5|2[aby]|gy)\$\S{10,}$/,
      'is no hash as crypt(5) makes it; a password in clear is not kept',
    )
    .nullable()
    .default(null),
  /** Null: whatever its network gives. */
  address: z
    .object({ cidr: z.string().max(60), gateway: ipSchema(), nameServers: z.array(ipSchema()).max(6) })
    .nullable()
    .default(null),
  packages: z
    .array(z.string().regex(/^[a-z0-9][a-z0-9+.-]+$/))
    .max(100)
    .default([]),
});
export type Seed = z.infer<typeof seedSchema>;

/** One guest. Bytes, seconds. */
export const guestSchema = z.object({
  id,
  name: z.string().regex(/^[A-Za-z0-9][\w.-]{0,60}$/, 'takes letters, digits, dots, hyphens and underscores'),
  purpose: z.string().trim().max(200).default(''),
  /** It is to run; otherwise it only keeps its disks. */
  on: z.boolean().default(true),
  cores: z.number().int().min(1).max(512),
  memoryBytes: bytes.refine((n) => n >= 16 * 1024 ** 2, 'is less than 16 MiB'),
  /** It gives memory back down to this; null: it keeps all of it. */
  floorBytes: bytes.nullable().default(null),
  /** It does not work with less; null: with nothing less than it has. */
  leastBytes: bytes.nullable().default(null),
  disks: z.array(guestDiskSchema).max(24).default([]),
  nics: z
    .array(z.object({ netId: id, hardware: hardwareSchema.nullable().default(null) }))
    .max(16)
    .default([]),
  /** Lower ones start first. */
  order: z.number().int().min(0).max(999).default(100),
  /** Seconds waited behind it before the next. */
  delaySeconds: z.number().int().min(0).max(3600).default(30),
  autostart: z.boolean().default(true),
  /** How much it matters, 1 to 10; the least goes first. */
  weight: z.number().int().min(1).max(10).default(5),
  screen: z.enum(['none', 'window']).default('none'),
  firmware: z.enum(['bios', 'uefi', 'secure']).default('uefi'),
  /** The image it is installed from, by its id on the bench. */
  imageId: z.string().max(80).nullable().default(null),
  /** Devices handed to it. */
  devices: z.array(id).max(16).default([]),
  /** Guests run in it. */
  nested: z.boolean().default(false),
  seed: seedSchema.nullable().default(null),
});
export type Guest = z.infer<typeof guestSchema>;

/** How much of the system's own volume was full, and when. */
export const volumeReadingSchema = z.object({ id, at: z.iso.date(), usedBytes: bytes });
export type VolumeReading = z.infer<typeof volumeReadingSchema>;

/** What a host has for its guests. Null: as its machine was surveyed, or as is usual. */
export const potSchema = z.object({
  sockets: z.number().int().min(1).max(8).default(1),
  cores: z.number().int().min(1).max(1024).nullable().default(null),
  threads: z.number().int().min(1).max(2048).nullable().default(null),
  memoryBytes: bytes.nullable().default(null),
  /** Memory of each socket; empty: equal parts. */
  nodeBytes: z.array(bytes).max(8).default([]),
  virtualisation: z.boolean().nullable().default(null),
  /** Devices can be handed over (an input-output memory unit is there and on). */
  handing: z.boolean().nullable().default(null),
  /** Kept for the host. */
  baseBytes: bytes.nullable().default(null),
  cacheBytes: bytes.nullable().default(null),
  perGuestBytes: bytes.nullable().default(null),
  /** Its volumes take as cache what they can. */
  cacheKind: z.enum(['page cache', 'own cache']).default('page cache'),
});
export type PotPlan = z.infer<typeof potSchema>;

/** Guests of a host as they were decided. */
export const guestPlanSchema = z.object({
  pot: potSchema.default(() => potSchema.parse({})),
  pools: z.array(guestPoolSchema).max(40).default([]),
  nets: z.array(guestNetSchema).max(100).default([]),
  devices: z.array(handedDeviceSchema).max(100).default([]),
  guests: z.array(guestSchema).max(500).default([]),
  /** The volume of the host's own system. */
  volume: z
    .object({ bytes, readings: z.array(volumeReadingSchema).max(200) })
    .nullable()
    .default(null),
});
export type GuestPlan = z.infer<typeof guestPlanSchema>;

/** Guests by themselves, as the command line takes them. */
export const guestFileSchema = z.object({
  format: z.literal('zealous-box-guests').default('zealous-box-guests'),
  plan: guestPlanSchema,
});

/** A host nobody has decided anything of. */
export const noGuests = (): GuestPlan => guestPlanSchema.parse({});

/** What is wrong with guests. Names; bytes. */
export const guestFaultSchema = z.discriminatedUnion('code', [
  about('memory not known', {}),
  about('too little memory', { has: z.number(), wants: z.number() }),
  about('fits only given back', { short: z.number() }),
  about('all at once do not fit', { short: z.number() }),
  about('in turn do not fit', { guest: z.string(), short: z.number() }),
  about('cores over-committed', { cores: z.number(), threads: z.number(), grade: z.string() }),
  about('more cores than threads', { guest: z.string(), cores: z.number(), threads: z.number() }),
  about('pool too small', { pool: z.string(), has: z.number(), wants: z.number() }),
  about('promised twice', { pool: z.string(), promised: z.number(), has: z.number() }),
  about('pool fills', { pool: z.string(), days: z.number(), guests: z.array(z.string()) }),
  about('used not known', { pool: z.string(), disks: z.number() }),
  about('no thin disks there', { pool: z.string(), guest: z.string() }),
  about('name twice', { name: z.string() }),
  about('not there', { guest: z.string(), missing: z.string() }),
  about('device twice', { device: z.string(), guests: z.array(z.string()) }),
  about('group parted', { group: z.number(), devices: z.array(z.string()), guests: z.array(z.string()) }),
  about('device of the host', { device: z.string(), guest: z.string() }),
  about('device of host group', { device: z.string(), with: z.string(), guest: z.string() }),
  about('group not known', { device: z.string() }),
  about('handing not known', {}),
  about('no handing', {}),
  about('gives nothing back', { guest: z.string() }),
  about('no virtualisation', {}),
  about('virtualisation not known', {}),
  about('nested', { guest: z.string() }),
  about('spans sockets', { guest: z.string(), node: z.number() }),
  about('sockets do not fit', { guests: z.array(z.string()) }),
  about('floor above memory', { guest: z.string() }),
  about('nobody signs in', { guest: z.string() }),
  about('address by itself', { guest: z.string(), prefix: z.string() }),
  about('hardware twice', { guests: z.array(z.string()), hardware: z.string() }),
  about('volume fills', { days: z.number() }),
  about('volume nearly full', { share: z.number() }),
  about('one reading', {}),
  about('image does not start', { guest: z.string(), image: z.string() }),
  about('image not read', { guest: z.string(), image: z.string() }),
  about('no guest', {}),
]);
export type GuestFault = z.infer<typeof guestFaultSchema>;
