import { z } from 'zod';
import { canonicalHardware, isNoCard } from '../../units/hardware';
import { canonicalIp, parseIp } from '../../units/ip';
import { formatPrefix, parsePrefix, prefixAround } from '../../units/prefix';
import { rangeOf } from '../ranges';
import { emptyReading, NetworkReadError, sighting, type NetworkForm, type NetworkReading } from './sighting';

/** A card's address, none where it is of no card. */
export function cardOf(text: string | undefined | null): string | null {
  const found = text === undefined || text === null ? undefined : canonicalHardware(text);
  return found === undefined || isNoCard(found) ? null : found;
}

const addrSchema = z.array(
  z.object({
    ifname: z.string(),
    address: z.string().optional(),
    addr_info: z
      .array(
        z.object({
          local: z.string().optional(),
          prefixlen: z.number().int().optional(),
          dynamic: z.boolean().optional(),
          temporary: z.boolean().optional(),
        }),
      )
      .optional(),
  }),
);
const routeSchema = z.array(
  z.object({
    dst: z.string(),
    gateway: z.string().optional(),
    dev: z.string().optional(),
    via: z.object({ host: z.string() }).optional(),
  }),
);
const neighSchema = z.array(
  z.object({
    dst: z.string(),
    dev: z.string().optional(),
    lladdr: z.string().optional(),
    router: z.unknown().optional(),
    state: z.array(z.string()).optional(),
  }),
);

/** JSON as a tool printed it. Throws NetworkReadError. */
export function jsonOf<T>(text: string, schema: z.ZodType<T>, form: NetworkForm): T {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw new NetworkReadError({ code: 'not JSON', part: form });
  }
  // An interface without what was asked for is printed as an empty object.
  const full: unknown = Array.isArray(json)
    ? json.filter((x: unknown) => typeof x !== 'object' || x === null || Object.keys(x).length > 0)
    : json;
  const found = schema.safeParse(full);
  if (found.success) return found.data;
  const [at, ...rest] = found.error.issues[0]?.path ?? [];
  throw new NetworkReadError({
    code: 'not as printed',
    form,
    words: typeof at === 'number' ? [`entry ${at + 1}`, ...rest.map(String)].join(', ') : '',
  });
}

/** `ip -j addr`: the addresses of the machine itself, and the networks it stands in. Throws NetworkReadError. */
export function readIpAddr(text: string): NetworkReading {
  const out = emptyReading('ip addr');
  for (const link of jsonOf(text, addrSchema, 'ip addr'))
    for (const info of link.addr_info ?? []) {
      const ip = info.local === undefined ? undefined : parseIp(info.local);
      if (!ip || rangeOf(ip)?.kind === 'loopback') continue;
      // An address that changes by itself is nobody's to plan with (RFC 8981).
      if (info.temporary === true || (ip.family === 6 && rangeOf(ip)?.kind === 'link-local')) {
        out.passed += 1;
        continue;
      }
      out.sightings.push(
        sighting('own', {
          address: canonicalIp(info.local ?? '') ?? null,
          hardware: cardOf(link.address),
          dynamic: info.dynamic ?? false,
          bits: info.prefixlen ?? null,
          port: link.ifname,
        }),
      );
      if (info.prefixlen !== undefined && info.prefixlen < (ip.family === 4 ? 32 : 128))
        out.prefixes.push(formatPrefix(prefixAround(ip, info.prefixlen)));
    }
  return out;
}

/** `ip -j route`: the ways out, and the networks that are reached without one. Throws NetworkReadError. */
export function readIpRoute(text: string): NetworkReading {
  const out = emptyReading('ip route');
  for (const route of jsonOf(text, routeSchema, 'ip route')) {
    const way = route.gateway ?? route.via?.host;
    const gateway = way === undefined ? undefined : canonicalIp(way);
    if (route.dst === 'default') {
      if (gateway !== undefined) out.gateways.push(gateway);
      continue;
    }
    const prefix = gateway === undefined ? parsePrefix(route.dst) : undefined;
    if (prefix && rangeOf({ family: prefix.family, value: prefix.base })?.kind !== 'link-local')
      out.prefixes.push(formatPrefix(prefix));
  }
  return out;
}

/** States of an entry in which nobody was found (Linux, rtnetlink(7): NUD_INCOMPLETE, NUD_FAILED), or which say nothing. */
const NOBODY = new Set(['INCOMPLETE', 'FAILED', 'NOARP', 'NONE']);

/** `ip -j neigh`: who was talked to lately. Throws NetworkReadError. */
export function readIpNeigh(text: string): NetworkReading {
  const out = emptyReading('ip neigh');
  for (const entry of jsonOf(text, neighSchema, 'ip neigh')) {
    const ip = parseIp(entry.dst);
    const hardware = cardOf(entry.lladdr);
    const idle = (entry.state ?? []).some((s) => NOBODY.has(s));
    if (!ip || hardware === null || idle || (ip.family === 6 && rangeOf(ip)?.kind === 'link-local')) {
      out.passed += 1;
      continue;
    }
    out.sightings.push(
      sighting('neighbour', {
        address: canonicalIp(entry.dst) ?? null,
        hardware,
        port: entry.dev ?? null,
      }),
    );
  }
  return out;
}

/** Which of the three a JSON text is; undefined where it is none. */
export function ipFormOf(text: string): NetworkForm | undefined {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return undefined;
  }
  if (!Array.isArray(json)) return undefined;
  const rows = json.filter((x): x is object => typeof x === 'object' && x !== null);
  const have = (...keys: string[]): boolean => rows.some((r) => keys.every((k) => k in r));
  if (have('ifname', 'ifindex')) return 'ip addr';
  if (have('dst', 'lladdr') || have('dst', 'state')) return 'ip neigh';
  if (have('dst', 'dev') || have('dst', 'gateway') || have('dst', 'via')) return 'ip route';
  return undefined;
}
