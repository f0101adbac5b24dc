import { z } from 'zod';
import { placesOf } from '../units/addressLine';
import { about } from './coded';
import { hardwareSchema } from './hardware';
import { interfaceSchema } from './named';
import { ipSchema, networkPlanSchema } from './network';

const id = z
  .string()
  .min(1)
  .max(60)
  .regex(/^[\w.-]+$/, 'takes letters, digits, dots, hyphens and underscores');
const name = z.string().trim().min(1).max(80);

/** What lies on a side of a gate. */
export const zoneKinds = ['outside', 'inside', 'guests', 'things', 'other'] as const;
/** One of them. */
export type ZoneKind = (typeof zoneKinds)[number];

/** The gate itself, as a side of its own. */
export const GATE = 'gate';

/** A side of a gate: whoever is in it is treated alike. */
export const zoneSchema = z.object({
  id: id.refine((i) => i !== GATE, 'is what the gate itself is called'),
  name,
  kind: z.enum(zoneKinds),
  /** Whoever is refused from here is told so; otherwise nothing answers. */
  tells: z.boolean().default(false),
});
export type Zone = z.infer<typeof zoneSchema>;

/** An interface of the gate: a socket, or a number on its wire (IEEE 802.1Q). */
export const gatePortSchema = z.object({
  id,
  /** As the system calls the socket. */
  device: interfaceSchema,
  vlan: z.number().int().min(1).max(4094).nullable().default(null),
  zoneId: id,
  /** The network behind it, by its id in the Network area; null towards the outside or where none is laid out. */
  networkId: z.string().max(80).nullable().default(null),
  hardware: hardwareSchema.nullable().default(null),
  /** Which socket of the machine that is, in words. */
  socket: z.string().max(120).default(''),
  /** Addresses of the gate there, where they are not those of its network. */
  own: z.array(ipSchema()).max(8).default([]),
  /** Megabits a second of the port; null where nobody knows. */
  megabits: z.number().positive().max(1_000_000).nullable().default(null),
});
export type GatePortPlan = z.infer<typeof gatePortSchema>;

/** The name of an interface as rules have it. */
export const interfaceOf = (p: Pick<GatePortPlan, 'device' | 'vlan'>): string =>
  p.vlan === null ? p.device : `${p.device}.${p.vlan}`;

/** An address, a range with a hyphen, or a prefix. */
export const placesSchema = z
  .string()
  .trim()
  .refine(
    (t) => placesOf(t) !== undefined,
    'is an address, a range such as 192.0.2.1-192.0.2.9, or a prefix',
  );

/** Addresses under one name. */
export const addressSetSchema = z.object({ id, name, entries: z.array(placesSchema).max(2000) });
export type AddressSet = z.infer<typeof addressSetSchema>;

const port = z.number().int().min(0).max(65_535);

/** Packets of one kind: ports first and last, or ICMP types. None of either: every packet of the protocol. */
export const serviceEntrySchema = z
  .object({
    protocol: z.enum(['tcp', 'udp', 'sctp', 'icmp', 'icmpv6']),
    ports: z.tuple([port, port]).nullable().default(null),
    types: z.array(z.number().int().min(0).max(255)).max(64).default([]),
  })
  .refine((e) => !e.ports || e.ports[0] <= e.ports[1], 'has its first port behind its last');
export type ServiceEntry = z.infer<typeof serviceEntrySchema>;

/** Services under one name. */
export const serviceSetSchema = z.object({ id, name, entries: z.array(serviceEntrySchema).min(1).max(200) });
export type ServiceSet = z.infer<typeof serviceSetSchema>;

const minute = z.number().int().min(0).max(1439);

/** Hours at which something holds: minutes of the day, days from Sunday = 0. An end before its begin runs past midnight. */
export const hoursSchema = z.object({
  from: minute,
  to: minute,
  days: z.array(z.number().int().min(0).max(6)).max(7).default([]),
});
export type Hours = z.infer<typeof hoursSchema>;

/** A rate in packets that begin something. */
export const rateSchema = z.object({
  count: z.number().int().min(1).max(1_000_000),
  per: z.enum(['second', 'minute', 'hour', 'day']),
  burst: z.number().int().min(1).max(1_000_000).default(5),
});

const sideOf = { zone: z.union([id, z.literal(GATE)]), addresses: z.array(id).max(50).default([]) };
/** A side of a conversation: a zone, and of it certain addresses or all. */
export const sideSchema = z.object(sideOf);
export type Side = z.infer<typeof sideSchema>;

/** Who may begin a conversation with whom, for what. */
export const permitSchema = z.object({
  id,
  name: z.string().trim().max(120).default(''),
  from: sideSchema,
  to: sideSchema,
  /** Service sets; none: everything. */
  services: z.array(id).max(50).default([]),
  /** Let in, or refused before what comes after it. */
  does: z.enum(['let in', 'refuse']).default('let in'),
  family: z
    .union([z.literal(4), z.literal(6)])
    .nullable()
    .default(null),
  hours: hoursSchema.nullable().default(null),
  rate: rateSchema.nullable().default(null),
  log: z.boolean().default(false),
  on: z.boolean().default(true),
});
export type Permit = z.infer<typeof permitSchema>;

/** A port of the gate's outside that leads to a host behind it. */
export const forwardSchema = z.object({
  id,
  name,
  protocol: z.enum(['tcp', 'udp']),
  ports: z.tuple([port, port]),
  /** IPv4 address of the host. */
  to: ipSchema(4),
  /** Its port; null keeps the one that was asked for. */
  toPort: port.nullable().default(null),
  /** Sets of addresses that may; none: anybody. */
  sources: z.array(id).max(50).default([]),
  on: z.boolean().default(true),
});
export type Forward = z.infer<typeof forwardSchema>;

/** What a gate is asked to keep. */
export const promiseKinds = ['reaches', 'closed', 'answers', 'own sources', 'icmp6'] as const;
/** One of them. */
export type PromiseKind = (typeof promiseKinds)[number];

const promiseBase = { id, on: z.boolean().default(true) };
/**
 * A sentence with a meaning. `reaches`: whoever is in `from` always reaches `to` for these services. `closed`: nobody in `from`
 * begins anything of these services (none: of any) with `to`, but what is forwarded where `forwards` says so. `answers`: what
 * may begin is answered. `own sources`: out of a zone come only addresses that lie in it. `icmp6`: what RFC 4890 says must
 * pass does.
 */
export const promiseSchema = z.discriminatedUnion('kind', [
  z.object({
    ...promiseBase,
    kind: z.literal('reaches'),
    from: sideSchema,
    to: sideSchema,
    services: z.array(id).max(50),
    family: z
      .union([z.literal(4), z.literal(6)])
      .nullable()
      .default(null),
  }),
  z.object({
    ...promiseBase,
    kind: z.literal('closed'),
    from: sideSchema,
    to: z.array(sideSchema).min(1).max(20),
    services: z.array(id).max(50).default([]),
    /** What is forwarded is meant to come in. */
    forwards: z.boolean().default(true),
    /** All but this: addresses with services, each none for any. */
    but: z
      .array(
        z.object({ addresses: z.array(id).max(50).default([]), services: z.array(id).max(50).default([]) }),
      )
      .max(20)
      .default([]),
  }),
  z.object({ ...promiseBase, kind: z.literal('answers') }),
  z.object({ ...promiseBase, kind: z.literal('own sources'), zone: id }),
  z.object({ ...promiseBase, kind: z.literal('icmp6') }),
]);
export type GatePromise = z.infer<typeof promiseSchema>;

/** A figure of how much goes through: bits a second, read or typed. */
export const paceSchema = z.object({
  id,
  what: z.string().max(120),
  bitsPerSecond: z.number().positive(),
  /** Bytes of a packet; null where full ones went. */
  packetBytes: z.number().int().min(64).max(9216).nullable().default(null),
  encrypted: z.boolean().default(false),
  at: z.string().max(40),
});
export type Pace = z.infer<typeof paceSchema>;

/** Where whoever gives the rules away sits, and what must stay in reach from there. */
export const seatSchema = z.object({
  zone: id,
  /** The address sat at; null: anywhere in the zone. */
  address: ipSchema().nullable().default(null),
  /** TCP ports of the administration page and the shell. */
  ports: z.array(z.number().int().min(1).max(65_535)).min(1).max(8).default([443, 22]),
});
export type Seat = z.infer<typeof seatSchema>;

/** Rules of a gate as they were decided. */
export const gatePlanSchema = z.object({
  zones: z.array(zoneSchema).max(40).default([]),
  ports: z.array(gatePortSchema).max(100).default([]),
  addresses: z.array(addressSetSchema).max(200).default([]),
  services: z.array(serviceSetSchema).max(200).default([]),
  permits: z.array(permitSchema).max(3000).default([]),
  forwards: z.array(forwardSchema).max(200).default([]),
  promises: z.array(promiseSchema).max(200).default([]),
  seat: seatSchema.nullable().default(null),
  /** IPv4 addresses of the inside are translated on their way out. */
  translates: z.boolean().default(true),
  /** Sources that cannot be where they come from, and addresses that never go in the open, are dropped (RFC 2827, RFC 6890). */
  strictSources: z.boolean().default(true),
  /** Whom the gate asks for names. */
  upstream: z.array(ipSchema()).max(8).default([]),
  /** Seconds after which the old rules come back unless somebody confirms. */
  confirmSeconds: z.number().int().min(10).max(3600).default(60),
  paces: z.array(paceSchema).max(50).default([]),
});
export type GatePlan = z.infer<typeof gatePlanSchema>;

/** A plan nobody has decided anything of. */
export const noGate = (): GatePlan => gatePlanSchema.parse({});

/** A gate by itself, as the command line takes it: its rules with the networks around it. */
export const gateFileSchema = z.object({
  format: z.literal('zealous-box-gate').default('zealous-box-gate'),
  gate: gatePlanSchema,
  networks: networkPlanSchema.shape.networks.default([]),
  hosts: networkPlanSchema.shape.hosts,
});
export type GateFile = z.infer<typeof gateFileSchema>;

/** A packet that is asked about. */
export const packetSchema = z.object({
  /** The interface it comes in at, a zone with one, or `gate`. */
  from: z.string().min(1).max(80),
  source: ipSchema(),
  destination: z.union([ipSchema(), z.literal('from the line')]),
  protocol: z.union([
    z.enum(['tcp', 'udp', 'sctp', 'dccp', 'udplite', 'icmp', 'icmpv6']),
    z.number().int().min(0).max(255),
  ]),
  sourcePort: port.default(40_000),
  destinationPort: port.default(0),
  type: z.number().int().min(0).max(255).default(0),
  code: z.number().int().min(0).max(255).default(0),
  /** What the tracker knows of it; null: it is the first of its conversation. */
  state: z.enum(['new', 'established', 'related', 'invalid', 'untracked']).nullable().default(null),
  day: z.number().int().min(0).max(6).default(3),
  second: z.number().int().min(0).max(86_399).default(43_200),
});
export type Packet = z.infer<typeof packetSchema>;

/** What is wrong with a plan of rules before any packet is looked at. */
export const gateFaultSchema = z.discriminatedUnion('code', [
  about('not judged', { permits: z.number() }),
  about('no outside', {}),
  about('no inside', {}),
  about('zone without port', { zone: z.string() }),
  about('port twice', { port: z.string() }),
  about('port without network', { port: z.string(), zone: z.string() }),
  about('networks overlap', { networks: z.array(z.string()) }),
  about('not there', { what: z.string(), missing: z.string() }),
  about('empty set', { set: z.string() }),
  about('set of one family', { permit: z.string() }),
  about('forward twice', { forwards: z.array(z.string()) }),
  about('forward to nowhere', { forward: z.string(), to: z.string() }),
  about('forward of the page', { forward: z.string(), port: z.number() }),
  about('no seat', {}),
  about('locked out', { zone: z.string(), port: z.number() }),
  about('seat not told', { zone: z.string(), port: z.number() }),
  about('promises broken', { broken: z.number(), of: z.number() }),
  about('promises not told', { open: z.number() }),
  about('rules without work', { rules: z.array(z.string()) }),
  about('hours by the clock', { permit: z.string() }),
  about('nothing promised', {}),
  about('too many classes', {}),
]);
export type GateFault = z.infer<typeof gateFaultSchema>;
