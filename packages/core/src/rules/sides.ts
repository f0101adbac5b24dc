import { addressSpans, familySpans, placesOf } from '../units/addressLine';
import { joinSpans, lessSpans, sharedSpans, type Spans } from '../units/spans';
import { GATE, type GatePlan, type Side } from '../model/gate';
import type { Host, Network } from '../model/network';
import { formatIp, ipAfter } from '../units/ip';
import { firstOf, parsePrefix, sizeOf } from '../units/prefix';
import { BOGONS, NEVER_SENT_ON } from './bogons';
import { SELF } from './flatten';
import { ownOf, routesOf, type Routes } from './routes';
import { neverFrom } from './neverFrom';
import { behindZone, interfacesOf, prefixesOf, topologyOf } from './topology';

/** What promises need of a plan: its routes, and what lies in its zones. */
export interface Ground {
  plan: GatePlan;
  networks: readonly Network[];
  routes: Routes;
  /** Addresses of hosts that are known, for examples that somebody recognises. */
  known: readonly bigint[];
}

const SOMEONE = 77n;
/** An address of a prefix that reads like a host's. */
function someoneIn(text: string): string | null {
  const prefix = parsePrefix(text);
  return prefix && sizeOf(prefix) > SOMEONE + 1n ? formatIp(ipAfter(firstOf(prefix), SOMEONE)) : null;
}

/** The ground of a plan. */
export const groundOf = (
  plan: GatePlan,
  networks: readonly Network[],
  hosts: readonly Host[] = [],
): Ground => ({
  plan,
  networks,
  routes: routesOf(topologyOf(plan, networks)),
  known: [
    ...hosts.flatMap((h) => [h.address, h.address6]),
    // Somebody in the middle of each network, where nobody is known.
    ...networks.flatMap((n) => [n.prefix, n.prefix6].map((t) => (t === null ? null : someoneIn(t)))),
  ].flatMap((a) => {
    const place = a === null ? undefined : placesOf(a);
    return place ? [place[0]] : [];
  }),
});

const setSpans = (plan: GatePlan, ids: readonly string[]): Spans =>
  addressSpans(ids.flatMap((i) => plan.addresses.find((a) => a.id === i)?.entries ?? []));
const ANY = joinSpans(familySpans(4), familySpans(6));

/** Interfaces that packets of a side come in at. */
export const entriesOf = ({ plan }: Ground, zone: string): string[] =>
  zone === GATE ? [SELF] : interfacesOf(plan, zone);

/** Addresses of the gate on the interfaces of a zone. */
const ownIn = ({ plan, networks }: Ground, zone: string): Spans => {
  const names = new Set(interfacesOf(plan, zone));
  return joinSpans(
    ...topologyOf(plan, networks)
      .ports.filter((p) => names.has(p.name))
      .map(ownOf),
  );
};

/** Addresses hosts of a zone may have: its prefixes without those of the gate, of everybody and of nobody. */
function hostsIn(ground: Ground, zone: string): Spans {
  const { plan, networks, routes } = ground;
  const texts = prefixesOf(plan, networks, zone);
  const network = texts.filter((t) => {
    const p = parsePrefix(t);
    return p && (p.family === 6 ? p.bits < 127 : p.bits < 31 && sizeOf(p) > 2n);
  });
  // The lowest of each prefix is no host’s: the network’s own name, or all its routers (RFC 4291 §2.6.1).
  const lowest = network.flatMap((t) => addressSpans([t.split('/')[0] ?? '']));
  return lessSpans(lessSpans(addressSpans(texts), routes.local), lowest);
}

/** Sources of whoever honestly sits in a zone. */
export function honestSources(ground: Ground, side: Side): Spans {
  const { plan, networks } = ground;
  const named = side.addresses.length > 0 ? setSpans(plan, side.addresses) : undefined;
  const zone = plan.zones.find((z) => z.id === side.zone);
  let all: Spans;
  if (side.zone === GATE) all = ground.routes.own;
  else if (zone?.kind === 'outside') {
    all = lessSpans(lessSpans(ANY, neverFrom(plan, networks, side.zone)), ground.routes.local);
  } else all = hostsIn(ground, side.zone);
  return named ? sharedSpans(all, named) : all;
}

/** Destinations a promise to reach a side is about. The gate is reached at its addresses in the zone one comes from. */
export function honestTargets(ground: Ground, side: Side, from: string): Spans {
  const { plan, networks, routes } = ground;
  const named = side.addresses.length > 0 ? setSpans(plan, side.addresses) : undefined;
  const zone = plan.zones.find((z) => z.id === side.zone);
  let all: Spans;
  if (side.zone === GATE) all = ownIn(ground, from);
  else if (zone?.kind === 'outside') {
    const behind = behindZone(plan, routes, side.zone);
    const never = lessSpans(
      joinSpans(addressSpans(NEVER_SENT_ON), addressSpans(BOGONS)),
      addressSpans(prefixesOf(plan, networks, side.zone)),
    );
    all = lessSpans(behind, never);
  } else all = hostsIn(ground, side.zone);
  return named ? sharedSpans(all, named) : all;
}

/** Every destination that lies on a side, honest or not. */
export function everyTarget(ground: Ground, side: Side): Spans {
  const { plan, routes } = ground;
  const all = side.zone === GATE ? routes.own : behindZone(plan, routes, side.zone);
  return side.addresses.length > 0 ? sharedSpans(all, setSpans(plan, side.addresses)) : all;
}
