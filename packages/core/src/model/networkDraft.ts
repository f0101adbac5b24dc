import { z } from 'zod';
import { hardwareSchema } from './hardware';
import {
  hostManners,
  hostManners6,
  hostSchema,
  ipSchema,
  networkSchema,
  poolManners,
  prefixSchema,
  schemes,
  type Host,
  type Network,
} from './network';
import { domainSchema, hostLabelSchema, interfaceSchema } from './named';
import { wordsIn } from './typedFields';

const empty = (text: string): string | null => (text.trim() === '' ? null : text.trim());
/** A line that may be left empty, and then says nothing. */
const maybe = <T>(schema: z.ZodType<T, string>) =>
  z
    .string()
    .transform(empty)
    .pipe(z.union([z.null(), schema]));
/** A whole number within bounds that may be left empty. */
const maybeNumber = (min: number, max: number, what: string) =>
  maybe(
    z
      .string()
      .regex(/^\d+$/, `${what} is a whole number from ${min} to ${max}.`)
      .transform(Number)
      .refine((n) => n >= min && n <= max, `${what} is a whole number from ${min} to ${max}.`),
  );
/** Yes, no, or nobody knows. */
const maybeSo = z.enum(['', 'yes', 'no']).transform((t) => (t === '' ? null : t === 'yes'));
const soText = (is: boolean | null): '' | 'yes' | 'no' => (is === null ? '' : is ? 'yes' : 'no');

const HOUR = 3600;
const name = z.string().trim().min(1, 'A name is needed.').max(120);

/** A network as it is typed: every field a text, empty where nothing is said. */
export const networkDraftSchema = z.object({
  name,
  vlan: maybeNumber(1, 4094, 'The number on the wire'),
  prefix: maybe(prefixSchema(4)),
  gateway: maybe(ipSchema(4)),
  prefix6: maybe(prefixSchema(6)),
  gateway6: maybe(ipSchema(6)),
  nameServers: z.string().transform(wordsIn).pipe(z.array(ipSchema()).max(16)),
  poolFrom: maybe(ipSchema(4)),
  poolTo: maybe(ipSchema(4)),
  leaseHours: maybe(
    z
      .string()
      .transform((t) => Number(t.replace(',', '.')))
      .refine((n) => n >= 0.034 && n <= 87_600, 'A lease is so many hours, from 0.04 to 87600.'),
  ),
  manner: z.enum(poolManners),
  remembers: maybeSo,
  domain: maybe(domainSchema),
  ownDomain: z.boolean(),
  outside: maybe(prefixSchema(4)),
  boxesFrom: maybe(ipSchema(4)),
  scheme: z.enum(schemes),
  notes: z.string().max(2000),
});
/** What is typed of a network. */
export type NetworkDraft = z.input<typeof networkDraftSchema>;

/** A network as texts. */
export const networkDraftOf = (n: Network): NetworkDraft => ({
  name: n.name,
  vlan: n.vlan === null ? '' : String(n.vlan),
  prefix: n.prefix ?? '',
  gateway: n.gateway ?? '',
  prefix6: n.prefix6 ?? '',
  gateway6: n.gateway6 ?? '',
  nameServers: n.nameServers.join(', '),
  poolFrom: n.pool?.from ?? '',
  poolTo: n.pool?.to ?? '',
  leaseHours: n.leaseSeconds === null ? '' : String(n.leaseSeconds / HOUR),
  manner: n.manner,
  remembers: soText(n.remembers),
  domain: n.domain ?? '',
  ownDomain: n.ownDomain,
  outside: n.outside ?? '',
  boxesFrom: n.boxesFrom ?? '',
  scheme: n.scheme,
  notes: n.notes,
});

/** The whole of what is typed, put into the network it is about. A pool wants both of its ends. */
export const networkOfDraft = (before: Network) =>
  networkDraftSchema
    .refine((d) => (d.poolFrom === null) === (d.poolTo === null), {
      path: ['poolTo'],
      message: 'A pool has a first and a last address.',
    })
    .transform(({ poolFrom, poolTo, leaseHours, ...rest }): Network =>
      networkSchema.parse({
        ...before,
        ...rest,
        pool: poolFrom === null || poolTo === null ? null : { from: poolFrom, to: poolTo },
        leaseSeconds: leaseHours === null ? null : Math.round(leaseHours * HOUR),
      }),
    );

/** A host as it is typed. */
export const hostDraftSchema = z.object({
  name,
  label: maybe(hostLabelSchema),
  manner: z.enum(hostManners),
  address: maybe(ipSchema(4)),
  bits: maybeNumber(0, 32, 'The length of its mask'),
  hardware: maybe(hardwareSchema),
  address6: maybe(ipSchema(6)),
  manner6: z.enum(['', ...hostManners6]).transform((t) => (t === '' ? null : t)),
  boxId: z.string().transform(empty),
  port: maybe(interfaceSchema),
  link: z.enum(['', 'wired', 'wireless']).transform((t) => (t === '' ? null : t)),
  place: maybeNumber(1, 200, 'Room or rack'),
  asksAgain: maybeSo,
  notes: z.string().max(2000),
});
/** What is typed of a host. */
export type HostDraft = z.input<typeof hostDraftSchema>;

/** A host as texts. */
export const hostDraftOf = (h: Host): HostDraft => ({
  name: h.name,
  label: h.label ?? '',
  manner: h.manner,
  address: h.address ?? '',
  bits: h.bits === null ? '' : String(h.bits),
  hardware: h.hardware ?? '',
  address6: h.address6 ?? '',
  manner6: h.manner6 ?? '',
  boxId: h.boxId ?? '',
  port: h.port ?? '',
  link: h.link ?? '',
  place: h.place === null ? '' : String(h.place),
  asksAgain: soText(h.asksAgain),
  notes: h.notes,
});

/** The whole of what is typed, put into the host it is about; whoever typed it knows of it. */
export const hostOfDraft = (before: Host) =>
  hostDraftSchema.transform((typed): Host => hostSchema.parse({ ...before, ...typed, known: true }));
