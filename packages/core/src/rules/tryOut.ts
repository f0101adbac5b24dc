import { interfaceOf, packetSchema, type GatePlan } from '../model/gate';
import type { Network } from '../model/network';
import { inSpans } from '../units/spans';
import { placesOf } from '../units/addressLine';
import { ipAfter, formatIp } from '../units/ip';
import { firstOf, parsePrefix } from '../units/prefix';
import { askPacket, numbered, type Asked } from './ask';
import { compileGate } from './compile';
import { groundOf } from './sides';
import { interfacesOf, zoneOfInterface } from './topology';

/** Somebody behind the gate, or outside it. */
export interface Caller {
  name: string;
  zone: string;
  address: string;
}

/** One thing that was tried, and what became of it. */
export interface Tried {
  from: Caller;
  /** Whom it was tried with. */
  to: string;
  what: string;
  asked: Asked;
}

/** An address that everybody outside could have; nobody is asked there. */
const SOMEWHERE = '20.0.0.1';
/** A stranger who tries from outside. */
const STRANGER = '20.0.0.99';

/** Hosts that are plugged in, by the zone their address lies in; and a stranger in each zone where nobody is known, and outside. */
export function callersOf(
  plan: GatePlan,
  networks: readonly Network[],
  hosts: readonly { name: string; address: string | null }[],
): Caller[] {
  const { routes } = groundOf(plan, networks);
  const known = hosts.flatMap((h): Caller[] => {
    const place = h.address === null ? undefined : placesOf(h.address)?.[0];
    const device =
      place === undefined ? undefined : [...routes.behind].find(([, s]) => inSpans(s, place))?.[0];
    const zone = device === undefined ? undefined : zoneOfInterface(plan, device);
    const outside = plan.zones.find((z) => z.id === zone)?.kind === 'outside';
    return zone === undefined || outside || h.address === null
      ? []
      : [{ name: h.name, zone, address: h.address }];
  });
  const strangers = plan.zones.flatMap((z): Caller[] => {
    if (z.kind === 'outside') return [{ name: `somebody in ${z.name}`, zone: z.id, address: STRANGER }];
    if (known.some((k) => k.zone === z.id)) return [];
    const port = plan.ports.find((p) => p.zoneId === z.id);
    const prefix = parsePrefix(networks.find((n) => n.id === port?.networkId)?.prefix ?? '');
    return prefix
      ? [{ name: `somebody in ${z.name}`, zone: z.id, address: formatIp(ipAfter(firstOf(prefix), 77)) }]
      : [];
  });
  return [...known, ...strangers];
}

/** What people try on an evening: the page, names, the web outside, each other's files and pages. Each is asked through the rules. */
export function tryOut(plan: GatePlan, networks: readonly Network[], callers: readonly Caller[]): Tried[] {
  const ruleset = compileGate(plan, networks);
  const { routes } = groundOf(plan, networks);
  const page = plan.seat?.ports[0] ?? 443;
  const out: Tried[] = [];
  const attempt = (
    from: Caller,
    to: string,
    address: string | undefined,
    what: string,
    protocol: 'tcp' | 'udp',
    port: number,
  ): void => {
    if (address === undefined) return;
    const packet = numbered(
      packetSchema.parse({
        from: from.zone,
        source: from.address,
        destination: address,
        protocol,
        destinationPort: port,
      }),
      plan,
      networks,
    );
    if (typeof packet !== 'string') out.push({ from, to, what, asked: askPacket(ruleset, routes, packet) });
  };
  for (const from of callers) {
    const device = interfacesOf(plan, from.zone)[0];
    const outside = plan.zones.find((z) => z.id === from.zone)?.kind === 'outside';
    const own = outside ? 'from the line' : gateAt(plan, networks, device);
    attempt(from, 'the gate', own, 'its page', 'tcp', page);
    attempt(from, 'the gate', own, 'a name', 'udp', 53);
    if (!outside) attempt(from, 'somewhere outside', SOMEWHERE, 'a page', 'tcp', 443);
    for (const to of callers) {
      if (to.zone === from.zone || plan.zones.find((z) => z.id === to.zone)?.kind === 'outside') continue;
      attempt(from, to.name, to.address, 'its files', 'tcp', 445);
      attempt(from, to.name, to.address, 'its page', 'tcp', 8080);
    }
  }
  return out;
}

/** The gate's own IPv4 address at an interface. */
function gateAt(
  plan: GatePlan,
  networks: readonly Network[],
  device: string | undefined,
): string | undefined {
  const port = plan.ports.find((p) => interfaceOf(p) === device);
  return (
    port?.own.find((a) => !a.includes(':')) ??
    networks.find((n) => n.id === port?.networkId)?.gateway ??
    undefined
  );
}
