import { z } from 'zod';
import { canonicalIp, type Family } from '../units/ip';
import { formatPrefix, parsePrefix } from '../units/prefix';
import { brought, hardwareSchema } from './hardware';
import { domainSchema, hostLabelSchema, interfaceSchema } from './named';

const id = z.string().min(1).max(80);

const WORD: Record<Family, string> = { 4: 'IPv4 address', 6: 'IPv6 address' };
/** An address of a family, or of either, in its canonical form. */
export const ipSchema = (family?: Family) =>
  brought((t) => canonicalIp(t, family), family === undefined ? 'address' : WORD[family]);
/** A prefix whose bits behind it are zero. */
export const prefixSchema = (family: Family) =>
  brought(
    (t) => {
      const found = parsePrefix(t);
      return found?.family === family ? formatPrefix(found) : undefined;
    },
    family === 4 ? 'IPv4 prefix such as 192.0.2.0/24' : 'IPv6 prefix such as 2001:db8::/64',
  );
/** How a server chooses among the addresses of its pool. */
export const poolManners = ['by hardware address', 'in order', 'not known'] as const;
/** One of them. */
export type PoolManner = (typeof poolManners)[number];

/** By which scheme boxes get their addresses. */
export const schemes = ['dense', 'by purpose', 'by place'] as const;
/** One of them. */
export type Scheme = (typeof schemes)[number];

/** One network: where its addresses begin and end, who leads out of it, and what is given away by itself. Times in seconds. */
export const networkSchema = z.object({
  id,
  name: z.string().min(1).max(120),
  /** Its number where several share a wire (IEEE 802.1Q). */
  vlan: z.number().int().min(1).max(4094).nullable().default(null),
  prefix: prefixSchema(4).nullable(),
  prefix6: prefixSchema(6).nullable().default(null),
  gateway: ipSchema(4).nullable().default(null),
  gateway6: ipSchema(6).nullable().default(null),
  nameServers: z.array(ipSchema()).max(16).default([]),
  /** What the server hands out to whoever asks; first and last. */
  pool: z
    .object({ from: ipSchema(4), to: ipSchema(4) })
    .nullable()
    .default(null),
  leaseSeconds: z
    .number()
    .int()
    .min(120)
    .max(10 * 365 * 86_400)
    .nullable()
    .default(null),
  manner: z.enum(poolManners).default('not known'),
  /** Whether its server still knows its leases after a power cut; null where nobody knows. */
  remembers: z.boolean().nullable().default(null),
  /** Behind every name in it. */
  domain: domainSchema.nullable().default(null),
  /** The domain is registered to whoever runs this. */
  ownDomain: z.boolean().default(false),
  /** The prefix on the far side of its gateway. */
  outside: prefixSchema(4).nullable().default(null),
  /** From here on boxes get theirs. */
  boxesFrom: ipSchema(4).nullable().default(null),
  scheme: z.enum(schemes).default('dense'),
  notes: z.string().max(2000).default(''),
});
export type Network = z.infer<typeof networkSchema>;

/** How a host has its address. */
export const hostManners = ['reservation', 'fixed', 'pool', 'not known'] as const;
/** One of them. */
export type HostManner = (typeof hostManners)[number];
/** How it has its IPv6 address: made from its prefix by itself, set by hand, or kept for it by a server. */
export const hostManners6 = ['made by itself', 'fixed', 'reservation'] as const;

/** One card in a network: a box, or whatever else lives there. */
export const hostSchema = z.object({
  id,
  name: z.string().min(1).max(200),
  networkId: z.string().nullable(),
  /** The box that answers there. */
  boxId: z.string().nullable().default(null),
  hardware: hardwareSchema.nullable().default(null),
  manner: z.enum(hostManners).default('not known'),
  /** The address it is to have, or from the pool the one it last had. */
  address: ipSchema(4).nullable().default(null),
  /** The prefix length it was told, where that is not its network's. */
  bits: z.number().int().min(0).max(32).nullable().default(null),
  address6: ipSchema(6).nullable().default(null),
  manner6: z.enum(hostManners6).nullable().default(null),
  /** Its name without the domain. */
  label: hostLabelSchema.nullable().default(null),
  /** The interface of its machine, by the name its system gives it. */
  port: interfaceSchema.nullable().default(null),
  link: z.enum(['wired', 'wireless']).nullable().default(null),
  /** Room or rack it stands in, by number. */
  place: z.number().int().min(1).max(200).nullable().default(null),
  /** Whether it asks for its last address again when it comes back; null where nobody knows. */
  asksAgain: z.boolean().nullable().default(null),
  /** Where and when it was last seen, and by what. */
  seen: z
    .object({ address: ipSchema(), at: z.string(), by: z.string().max(120) })
    .nullable()
    .default(null),
  /** Until when its lease runs; null where it has none, or none is known. */
  leaseUntil: z.string().nullable().default(null),
  /** Somebody knows that it has this address. False where only a reading found it. */
  known: z.boolean().default(true),
  notes: z.string().max(2000).default(''),
});
export type Host = z.infer<typeof hostSchema>;

/** Networks and hosts by themselves, as the command line takes them. */
export const networkPlanSchema = z.object({
  networks: z.array(networkSchema).max(200),
  hosts: z.array(hostSchema).max(20_000).default([]),
});
export type NetworkPlan = z.infer<typeof networkPlanSchema>;

/** A network of which nothing but its name is said. */
export const blankNetwork = (id: string, name: string): Network =>
  networkSchema.parse({ id, name, prefix: null });
/** A host of which nothing but its name is said. */
export const blankHost = (id: string, name: string, networkId: string | null): Host =>
  hostSchema.parse({ id, name, networkId });
