import { z } from 'zod';
import { canonicalHardware } from '../units/hardware';
import { writeSize } from '../units/typedSize';
import {
  guestNetSchema,
  guestPoolSchema,
  guestSchema,
  handedDeviceSchema,
  potSchema,
  seedSchema,
  type Guest,
  type GuestNet,
  type GuestPlan,
  type GuestPool,
  type HandedDevice,
  type PotPlan,
} from './guests';
import {
  amountOrNull,
  number,
  numberOrNull,
  size,
  sizeOrNull,
  through,
  trimmed,
  wordsIn,
} from './typedFields';

const text = (n: number | null): string => (n === null ? '' : String(n));
const sized = (n: number | null): string => (n === null ? '' : writeSize(n));

/** Fields of a form that are named otherwise than what they say; what lies within them keeps its place. */
const named =
  (names: Record<string, string>) =>
  ([first = '', ...rest]: readonly PropertyKey[]): PropertyKey[] => [names[String(first)] ?? first, ...rest];

/** A disk in the form of its guest. */
export interface DiskDraft {
  id: string;
  bytes: string;
  poolId: string;
  thin: boolean;
  used: string;
  grows: string;
}

/** What a form says of a guest. */
export interface GuestDraft {
  name: string;
  purpose: string;
  cores: string;
  memory: string;
  floor: string;
  least: string;
  disks: DiskDraft[];
  nets: string[];
  hardware: string;
  order: string;
  delay: string;
  autostart: boolean;
  weight: string;
  window: boolean;
  firmware: Guest['firmware'];
  imageId: string;
  devices: string[];
  nested: boolean;
}

/** A guest for its form. */
export const guestDraftOf = (g: Guest): GuestDraft => ({
  name: g.name,
  purpose: g.purpose,
  cores: String(g.cores),
  memory: sized(g.memoryBytes),
  floor: sized(g.floorBytes),
  least: sized(g.leastBytes),
  disks: g.disks.map((d) => ({
    id: d.id,
    bytes: sized(d.bytes),
    poolId: d.poolId,
    thin: d.thin,
    used: sized(d.usedBytes),
    grows: d.growsPerDay === 0 ? '' : sized(d.growsPerDay),
  })),
  nets: g.nics.map((n) => n.netId),
  hardware: g.nics[0]?.hardware ?? '',
  order: String(g.order),
  delay: String(g.delaySeconds),
  autostart: g.autostart,
  weight: String(g.weight),
  window: g.screen === 'window',
  firmware: g.firmware,
  imageId: g.imageId ?? '',
  devices: g.devices,
  nested: g.nested,
});

/** Reads the form back into the guest; what it does not show stays. */
export const guestOfDraft = (before: Guest): z.ZodType<Guest, GuestDraft> =>
  z
    .object({
      name: trimmed,
      purpose: trimmed,
      cores: number(z.number().int().min(1).max(512)),
      memory: size,
      floor: amountOrNull,
      least: amountOrNull,
      disks: z.array(
        z.object({
          id: z.string(),
          bytes: size,
          poolId: z.string().min(1, 'a pool is needed'),
          thin: z.boolean(),
          used: amountOrNull,
          grows: amountOrNull,
        }),
      ),
      nets: z.array(z.string()),
      hardware: trimmed.refine(
        (t) => t === '' || canonicalHardware(t) !== undefined,
        'is a hardware address such as 02:00:5e:10:00:01',
      ),
      order: number(z.number().int().min(0).max(999)),
      delay: number(z.number().int().min(0).max(3600)),
      autostart: z.boolean(),
      weight: number(z.number().int().min(1).max(10)),
      window: z.boolean(),
      firmware: z.enum(['bios', 'uefi', 'secure']),
      imageId: z.string(),
      devices: z.array(z.string()),
      nested: z.boolean(),
    })
    .transform((d, ctx) =>
      through(
        guestSchema,
        {
          ...before,
          name: d.name,
          purpose: d.purpose,
          cores: d.cores,
          memoryBytes: d.memory,
          floorBytes: d.floor,
          leastBytes: d.least,
          disks: d.disks.map((k) => ({
            id: k.id,
            bytes: k.bytes,
            poolId: k.poolId,
            thin: k.thin,
            usedBytes: k.used,
            growsPerDay: k.grows ?? 0,
          })),
          nics: d.nets.map((netId, i) => ({
            netId,
            hardware:
              i === 0
                ? d.hardware === ''
                  ? null
                  : d.hardware
                : (before.nics.find((n) => n.netId === netId)?.hardware ?? null),
          })),
          order: d.order,
          delaySeconds: d.delay,
          autostart: d.autostart,
          weight: d.weight,
          screen: d.window ? 'window' : 'none',
          firmware: d.firmware,
          imageId: d.imageId === '' ? null : d.imageId,
          devices: d.devices,
          nested: d.nested,
        },
        ctx,
        named({ memoryBytes: 'memory', floorBytes: 'floor', leastBytes: 'least', delaySeconds: 'delay' }),
      ),
    );

/** What a form says of a first boot. */
export interface SeedDraft {
  hostName: string;
  user: string;
  keys: string;
  hash: string;
  cidr: string;
  gateway: string;
  nameServers: string;
  packages: string;
}
/** A seed for its form. */
export const seedDraftOf = (g: Guest): SeedDraft => ({
  hostName: g.seed?.hostName ?? g.name.toLowerCase().replace(/[^a-z0-9-]+/g, '-'),
  user: g.seed?.user ?? 'keeper',
  keys: g.seed?.keys.join('\n') ?? '',
  hash: g.seed?.hash ?? '',
  cidr: g.seed?.address?.cidr ?? '',
  gateway: g.seed?.address?.gateway ?? '',
  nameServers: g.seed?.address?.nameServers.join(' ') ?? '',
  packages: g.seed?.packages.join(' ') ?? '',
});
/** Reads a seed from the form. */
export const seedOfDraft: z.ZodType<NonNullable<Guest['seed']>, SeedDraft> = z
  .object({
    hostName: trimmed,
    user: trimmed,
    keys: z.string(),
    hash: trimmed,
    cidr: trimmed,
    gateway: trimmed,
    nameServers: trimmed,
    packages: trimmed,
  })
  .transform((d, ctx) =>
    through(
      seedSchema,
      {
        hostName: d.hostName,
        user: d.user,
        keys: d.keys
          .split('\n')
          .map((k) => k.trim())
          .filter(Boolean),
        hash: d.hash === '' ? null : d.hash,
        address:
          d.cidr === '' ? null : { cidr: d.cidr, gateway: d.gateway, nameServers: wordsIn(d.nameServers) },
        packages: wordsIn(d.packages),
      },
      ctx,
      named({ address: 'gateway' }),
    ),
  );

/** What a form says of a pool of guests. */
export interface GuestPoolDraft {
  name: string;
  bytes: string;
  other: string;
  thin: boolean;
  path: string;
}
/** Reads a pool from the form. */
export const guestPoolOfDraft = (id: string): z.ZodType<GuestPool, GuestPoolDraft> =>
  z
    .object({ name: trimmed, bytes: size, other: amountOrNull, thin: z.boolean(), path: trimmed })
    .transform((d, ctx) => through(guestPoolSchema, { ...d, id, otherBytes: d.other ?? 0 }, ctx));

/** What a form says of a network of guests. */
export interface GuestNetDraft {
  name: string;
  mode: GuestNet['mode'];
  bridge: string;
  networkId: string;
  prefix: string;
}
/** Reads a network from the form. */
export const guestNetOfDraft = (id: string): z.ZodType<GuestNet, GuestNetDraft> =>
  z
    .object({
      name: trimmed,
      mode: z.enum(['bridge', 'behind', 'apart']),
      bridge: trimmed,
      networkId: z.string(),
      prefix: trimmed,
    })
    .transform((d, ctx) =>
      through(
        guestNetSchema,
        {
          ...d,
          id,
          networkId: d.networkId === '' ? null : d.networkId,
          prefix: d.prefix === '' ? null : d.prefix,
        },
        ctx,
      ),
    );

/** What a form says of a device. */
export interface DeviceDraft {
  name: string;
  address: string;
  group: string;
  node: string;
  host: boolean;
}
/** Reads a device from the form. */
export const deviceOfDraft = (id: string): z.ZodType<HandedDevice, DeviceDraft> =>
  z
    .object({
      name: trimmed,
      address: trimmed.toLowerCase(),
      group: numberOrNull(z.number().int().min(0).max(100_000)),
      node: numberOrNull(z.number().int().min(0).max(63)),
      host: z.boolean(),
    })
    .transform((d, ctx) => through(handedDeviceSchema, { id, ...d }, ctx));

/** What a form says of the host itself. */
export interface PotDraft {
  sockets: string;
  threads: string;
  memory: string;
  nodes: string;
  base: string;
  cache: string;
  perGuest: string;
  cacheKind: PotPlan['cacheKind'];
  handing: '' | 'yes' | 'no';
}
/** The host for its form. */
export const potDraftOf = ({ pot }: GuestPlan): PotDraft => ({
  sockets: String(pot.sockets),
  threads: text(pot.threads),
  memory: sized(pot.memoryBytes),
  nodes: pot.nodeBytes.map(writeSize).join(', '),
  base: sized(pot.baseBytes),
  cache: sized(pot.cacheBytes),
  perGuest: sized(pot.perGuestBytes),
  cacheKind: pot.cacheKind,
  handing: pot.handing === null ? '' : pot.handing ? 'yes' : 'no',
});
/** Reads the host from the form; what it does not show stays. */
export const potOfDraft = (before: PotPlan): z.ZodType<PotPlan, PotDraft> =>
  z
    .object({
      sockets: number(z.number().int().min(1).max(8)),
      threads: numberOrNull(z.number().int().min(1).max(2048)),
      memory: sizeOrNull,
      nodes: z
        .string()
        .transform((t) =>
          t
            .split(',')
            .map((p) => p.trim())
            .filter(Boolean),
        )
        .pipe(z.array(size)),
      base: amountOrNull,
      cache: amountOrNull,
      perGuest: amountOrNull,
      cacheKind: z.enum(['page cache', 'own cache']),
      handing: z.enum(['', 'yes', 'no']),
    })
    .transform((d, ctx) =>
      through(
        potSchema,
        {
          ...before,
          sockets: d.sockets,
          threads: d.threads,
          memoryBytes: d.memory,
          nodeBytes: d.nodes,
          baseBytes: d.base,
          cacheBytes: d.cache,
          perGuestBytes: d.perGuest,
          cacheKind: d.cacheKind,
          handing: d.handing === '' ? null : d.handing === 'yes',
        },
        ctx,
        named({}),
      ),
    );

/** What a form says of the system's own volume. */
export interface VolumeDraft {
  bytes: string;
  used: string;
  at: string;
}
/** Reads a reading of the system's own volume from the form. */
export const volumeOfDraft = (id: string) =>
  z.object({ bytes: size, used: size, at: trimmed.pipe(z.iso.date()) }).transform((d, ctx) => {
    if (d.used <= d.bytes) return { bytes: d.bytes, reading: { id, at: d.at, usedBytes: d.used } };
    ctx.addIssue({ code: 'custom', path: ['used'], message: 'is more than the volume holds' });
    return z.NEVER;
  });
