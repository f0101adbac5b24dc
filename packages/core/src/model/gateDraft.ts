import { z } from 'zod';
import { canonicalHardware } from '../units/hardware';
import {
  addressSetSchema,
  forwardSchema,
  gatePortSchema,
  hoursSchema,
  permitSchema,
  promiseSchema,
  seatSchema,
  serviceEntrySchema,
  serviceSetSchema,
  zoneKinds,
  zoneSchema,
  type AddressSet,
  type Forward,
  type GatePortPlan,
  type GatePromise,
  type Permit,
  type Seat,
  type ServiceEntry,
  type ServiceSet,
  type Zone,
} from './gate';
import { HOUR, through, trimmed, wordsIn } from './typedFields';

/** A line that may be left empty, and is then null. */
const orNull = <T>(schema: z.ZodType<T, string>) =>
  trimmed.transform((t, ctx): T | null => {
    if (t === '') return null;
    const found = schema.safeParse(t);
    if (found.success) return found.data;
    ctx.addIssue({ code: 'custom', message: found.error.issues[0]?.message ?? 'cannot be read' });
    return z.NEVER;
  });
const whole = (min: number, max: number) =>
  z
    .string()
    .regex(/^\d+$/, `is a whole number from ${min} to ${max}`)
    .transform(Number)
    .refine((n) => n >= min && n <= max, `is a whole number from ${min} to ${max}`);

/** What a form says of a zone. */
export interface ZoneDraft {
  name: string;
  kind: Zone['kind'];
  tells: boolean;
}
/** Reads a zone from the form. */
export const zoneOfDraft = (id: string): z.ZodType<Zone, ZoneDraft> =>
  z
    .object({ name: zoneSchema.shape.name, kind: z.enum(zoneKinds), tells: z.boolean() })
    .transform((d) => ({ id, ...d }));

/** What a form says of a port. */
export interface PortDraft {
  device: string;
  vlan: string;
  zoneId: string;
  networkId: string;
  hardware: string;
  socket: string;
  own: string;
  megabits: string;
}
/** A port for its form. */
export const portDraftOf = (p: GatePortPlan): PortDraft => ({
  device: p.device,
  vlan: p.vlan === null ? '' : String(p.vlan),
  zoneId: p.zoneId,
  networkId: p.networkId ?? '',
  hardware: p.hardware ?? '',
  socket: p.socket,
  own: p.own.join(' '),
  megabits: p.megabits === null ? '' : String(p.megabits),
});
/** Reads a port from the form. */
export const portOfDraft = (id: string): z.ZodType<GatePortPlan, PortDraft> =>
  z
    .object({
      device: trimmed,
      vlan: orNull(whole(1, 4094)),
      zoneId: trimmed,
      networkId: orNull(z.string()),
      hardware: orNull(
        z
          .string()
          .refine(
            (t) => canonicalHardware(t) !== undefined,
            'is a hardware address such as 02:00:5e:10:00:01',
          ),
      ),
      socket: trimmed,
      own: z.string().transform(wordsIn),
      megabits: orNull(whole(1, 1_000_000)),
    })
    .transform((d, ctx) => through(gatePortSchema, { id, ...d }, ctx));

/** What a form says of a set of addresses: one on each line. */
export interface AddressDraft {
  name: string;
  entries: string;
}
/** Reads a set of addresses from the form. */
export const addressesOfDraft = (id: string): z.ZodType<AddressSet, AddressDraft> =>
  z
    .object({ name: addressSetSchema.shape.name, entries: z.string().transform(wordsIn) })
    .transform((d, ctx) => through(addressSetSchema, { id, ...d }, ctx));

const PROTOCOLS = ['tcp', 'udp', 'sctp', 'icmp', 'icmpv6'] as const;

/** “tcp 80, 443, 8000-8010” and one such line for each protocol, read as entries; undefined where a line is none. */
export function readServices(text: string): ServiceEntry[] | undefined {
  const out: ServiceEntry[] = [];
  for (const line of text.split(/[\n;]/).map((l) => l.trim())) {
    if (line === '') continue;
    const [name = '', ...rest] = line.split(/[\s,]+/);
    const protocol = PROTOCOLS.find((p) => p === name.toLowerCase());
    if (!protocol) return undefined;
    const icmp = protocol === 'icmp' || protocol === 'icmpv6';
    if (icmp || rest.length === 0) {
      out.push({ protocol, ports: null, types: rest.map(Number) });
      continue;
    }
    for (const part of rest) {
      const [from, to = from, more] = part.split(/[-–]/);
      if (more !== undefined || !/^\d+$/.test(from ?? '') || !/^\d+$/.test(to ?? '')) return undefined;
      out.push({ protocol, ports: [Number(from), Number(to)], types: [] });
    }
  }
  const found = z.array(serviceEntrySchema).safeParse(out);
  return found.success && found.data.length > 0 ? found.data : undefined;
}

/** Entries as they are typed, a line for each protocol. */
export const typedServices = (entries: readonly ServiceEntry[]): string =>
  PROTOCOLS.flatMap((p) => {
    const mine = entries.filter((e) => e.protocol === p);
    if (mine.length === 0) return [];
    const parts = mine.flatMap((e) => [
      ...(e.ports ? [e.ports[0] === e.ports[1] ? String(e.ports[0]) : `${e.ports[0]}-${e.ports[1]}`] : []),
      ...e.types.map(String),
    ]);
    return [[p, parts.join(', ')].filter(Boolean).join(' ')];
  }).join('\n');

/** Reads a set of services from the form. */
export const servicesOfDraft = (id: string): z.ZodType<ServiceSet, AddressDraft> =>
  z.object({ name: serviceSetSchema.shape.name, entries: z.string() }).transform((d, ctx) => {
    const entries = readServices(d.entries);
    if (entries) return { id, name: d.name, entries };
    ctx.addIssue({
      code: 'custom',
      path: ['entries'],
      message: 'has a line for each protocol, such as “tcp 80, 443, 8000-8010” or “icmp 8”',
    });
    return z.NEVER;
  });

const clock = z
  .string()
  .regex(HOUR, 'is an hour such as 08:30')
  .transform((t) => {
    const [h = 0, m = 0] = t.split(':').map(Number);
    return h * 60 + m;
  });
const clockText = (n: number): string =>
  `${String(Math.floor(n / 60)).padStart(2, '0')}:${String(n % 60).padStart(2, '0')}`;

/** What a form says of a permit. */
export interface PermitDraft {
  name: string;
  fromAddresses: string[];
  toAddresses: string[];
  services: string[];
  does: Permit['does'];
  family: '' | '4' | '6';
  hoursFrom: string;
  hoursTo: string;
  days: string[];
  rate: string;
  per: 'second' | 'minute' | 'hour' | 'day';
  log: boolean;
  on: boolean;
}
/** A permit for its form. */
export const permitDraftOf = (p: Permit): PermitDraft => ({
  name: p.name,
  fromAddresses: p.from.addresses,
  toAddresses: p.to.addresses,
  services: p.services,
  does: p.does,
  family: p.family === null ? '' : p.family === 4 ? '4' : '6',
  hoursFrom: p.hours ? clockText(p.hours.from) : '',
  hoursTo: p.hours ? clockText(p.hours.to) : '',
  days: p.hours?.days.map(String) ?? [],
  rate: p.rate ? String(p.rate.count) : '',
  per: p.rate?.per ?? 'second',
  log: p.log,
  on: p.on,
});
/** Reads a permit of a crossing from the form. */
export const permitOfDraft = (of: Pick<Permit, 'id' | 'from' | 'to'>): z.ZodType<Permit, PermitDraft> =>
  z
    .object({
      name: permitSchema.shape.name.unwrap(),
      fromAddresses: z.array(z.string()),
      toAddresses: z.array(z.string()),
      services: z.array(z.string()),
      does: permitSchema.shape.does.unwrap(),
      family: z.enum(['', '4', '6']),
      hoursFrom: orNull(clock),
      hoursTo: orNull(clock),
      days: z.array(z.string()),
      rate: orNull(whole(1, 1_000_000)),
      per: z.enum(['second', 'minute', 'hour', 'day']),
      log: z.boolean(),
      on: z.boolean(),
    })
    .transform((d, ctx) => {
      if ((d.hoursFrom === null) !== (d.hoursTo === null)) {
        ctx.addIssue({ code: 'custom', path: ['hoursTo'], message: 'hours have a begin and an end' });
        return z.NEVER;
      }
      const days = d.days.map(Number);
      const hours =
        d.hoursFrom === null || d.hoursTo === null
          ? days.length === 0
            ? null
            : { from: 0, to: 0, days }
          : { from: d.hoursFrom, to: d.hoursTo, days };
      return through(
        permitSchema,
        {
          id: of.id,
          name: d.name,
          from: { zone: of.from.zone, addresses: d.fromAddresses },
          to: { zone: of.to.zone, addresses: d.toAddresses },
          services: d.services,
          does: d.does,
          family: d.family === '' ? null : Number(d.family),
          hours: hours && hoursSchema.parse(hours),
          rate: d.rate === null ? null : { count: d.rate, per: d.per },
          log: d.log,
          on: d.on,
        },
        ctx,
      );
    });

/** What a form says of a forwarded port. */
export interface ForwardDraft {
  name: string;
  protocol: 'tcp' | 'udp';
  ports: string;
  to: string;
  toPort: string;
  sources: string[];
  on: boolean;
}
/** A forwarded port for its form. */
export const forwardDraftOf = (f: Forward): ForwardDraft => ({
  ...f,
  ports: f.ports[0] === f.ports[1] ? String(f.ports[0]) : `${f.ports[0]}-${f.ports[1]}`,
  toPort: f.toPort === null ? '' : String(f.toPort),
});
/** Reads a forwarded port from the form. */
export const forwardOfDraft = (id: string): z.ZodType<Forward, ForwardDraft> =>
  z
    .object({
      name: forwardSchema.shape.name,
      protocol: z.enum(['tcp', 'udp']),
      ports: trimmed.regex(/^\d+(\s*[-–]\s*\d+)?$/, 'is a port, or a first and a last one'),
      to: trimmed,
      toPort: orNull(whole(0, 65_535)),
      sources: z.array(z.string()),
      on: z.boolean(),
    })
    .transform((d, ctx) => {
      const [a = 0, b = a] = d.ports.split(/[-–]/).map((t) => Number(t.trim()));
      if (a > b)
        ctx.addIssue({ code: 'custom', path: ['ports'], message: 'has its first port behind its last' });
      return through(forwardSchema, { ...d, id, ports: [a, b] }, ctx);
    });

/** What a form says of a promise. */
export interface PromiseDraft {
  kind: GatePromise['kind'];
  from: string;
  to: string[];
  services: string[];
  butServices: string[];
  butAddresses: string[];
  forwards: boolean;
}
/** A promise for its form. */
export function promiseDraftOf(p: GatePromise): PromiseDraft {
  const none = {
    kind: p.kind,
    from: '',
    to: [],
    services: [],
    butServices: [],
    butAddresses: [],
    forwards: true,
  };
  if (p.kind === 'own sources') return { ...none, from: p.zone };
  if (p.kind === 'reaches') return { ...none, from: p.from.zone, to: [p.to.zone], services: p.services };
  if (p.kind !== 'closed') return none;
  return {
    ...none,
    from: p.from.zone,
    to: p.to.map((t) => t.zone),
    services: p.services,
    butServices: p.but.flatMap((b) => b.services),
    butAddresses: p.but.flatMap((b) => b.addresses),
    forwards: p.forwards,
  };
}
/** Reads a promise from the form; addresses of its sides stay as they were. */
export const promiseOfDraft = (before: GatePromise): z.ZodType<GatePromise, PromiseDraft> =>
  z
    .object({
      kind: z.enum(['reaches', 'closed', 'answers', 'own sources', 'icmp6']),
      from: z.string(),
      to: z.array(z.string()),
      services: z.array(z.string()),
      butServices: z.array(z.string()),
      butAddresses: z.array(z.string()),
      forwards: z.boolean(),
    })
    .transform((d, ctx) => {
      const { id, on } = before;
      const side = (zone: string): object => ({
        zone,
        addresses: before.kind === 'reaches' && before.from.zone === zone ? before.from.addresses : [],
      });
      const but = d.butServices.length + d.butAddresses.length > 0;
      const asked: Record<GatePromise['kind'], object> = {
        reaches: { from: side(d.from), to: side(d.to[0] ?? ''), services: d.services },
        closed: {
          from: side(d.from),
          to: d.to.map(side),
          services: d.services,
          forwards: d.forwards,
          but: but ? [{ services: d.butServices, addresses: d.butAddresses }] : [],
        },
        answers: {},
        icmp6: {},
        'own sources': { zone: d.from },
      };
      return through(promiseSchema, { id, on, kind: d.kind, ...asked[d.kind] }, ctx);
    });

/** What a form says of where the gate is looked after from. */
export interface SeatDraft {
  zone: string;
  address: string;
  ports: string;
}
/** Reads that from the form. */
export const seatOfDraft: z.ZodType<Seat, SeatDraft> = z
  .object({
    zone: trimmed,
    address: orNull(z.string()),
    ports: z.string().transform((t) => wordsIn(t).map(Number)),
  })
  .transform((d, ctx) => through(seatSchema, d, ctx));
