import { formatIp, parseIp, type Family } from '../units/ip';
import { firstOf, lastOf, parsePrefix } from '../units/prefix';
import { inSpans, joinSpans, lessSpans, point, sharedSpans, type Spans } from '../units/spans';
import type { GatePort, Names, Topology } from './ruleset';
import { addressSpans, familySpans, lineAddress, placeOf } from '../units/addressLine';

/** Where a packet goes by its destination, and what the kernel never lets through. */
export interface Routes {
  /** Addresses of the gate that a packet may be sent to, one by one. */
  own: Spans;
  /** Everything that ends at the gate: its own, broadcasts, multicast, link-local. */
  local: Spans;
  /** Destinations behind each interface. */
  behind: ReadonlyMap<string, Spans>;
  /** Sources with destinations that are dropped on arrival, whatever the rules say; one left out stands for all. */
  never: readonly { saddr?: Spans; daddr?: Spans }[];
  /** Sources that each interface does not take, since an answer to them would leave by another. */
  strange: ReadonlyMap<string, Spans>;
  /** Sources that may come to the gate and are never sent on to another interface. */
  stays: Spans;
  /** Sources that nobody may have, noticed where a packet would leave by the interface it came in at. */
  nobody: Spans;
}

const MULTICAST = addressSpans(['224.0.0.0/4', 'ff00::/8']);
const BROADCAST = addressSpans(['255.255.255.255']);
const LOOPBACK = addressSpans(['127.0.0.0/8', '::1']);
const LINK_LOCAL_6 = addressSpans(['fe80::/10']);
const ZERO = addressSpans(['0.0.0.0']);
const UNSPECIFIED_6 = addressSpans(['::']);

/** Own addresses of an interface, with those the line gives. */
export function ownOf(port: GatePort): Spans {
  const fixed = port.own.flatMap((a) => {
    const ip = parseIp(a);
    return ip ? [placeOf(ip)] : [];
  });
  const given = port.fromLine
    ? ([4, 6] as Family[]).filter((f) => !port.own.some((a) => parseIp(a)?.family === f)).map(lineAddress)
    : [];
  return joinSpans(...[...fixed, ...given].map((p) => point(p)));
}

/** The address every host of an IPv4 prefix hears, and the one all routers of an IPv6 prefix have (RFC 4291 §2.6.1). */
function heardBy(text: string): string[] {
  const prefix = parsePrefix(text);
  if (!prefix) return [];
  if (prefix.family === 6) return prefix.bits < 127 ? [formatIp(firstOf(prefix))] : [];
  return prefix.bits < 31 ? [formatIp(lastOf(prefix))] : [];
}

/**
 * Routes of a gate: the longest prefix decides, everything else leaves by the first interface to the outside. What the Linux
 * kernel refuses by itself is from memory: `ip_route_input_slow` and `fib_validate_source` (IPv4), `ip6_rcv_core` and
 * `ip6_forward` (IPv6); the test against a kernel holds it.
 */
export function routesOf({ ports, reversePath }: Topology): Routes {
  const own = joinSpans(...ports.map(ownOf));
  const prefixes = ports.flatMap((p) => p.prefixes);
  const local = joinSpans(
    own,
    MULTICAST,
    BROADCAST,
    LOOPBACK,
    LINK_LOCAL_6,
    addressSpans(prefixes.flatMap(heardBy)),
  );
  const listed = ports
    .flatMap((p) => p.prefixes.map((text) => ({ name: p.name, prefix: parsePrefix(text), text })))
    .sort((a, b) => (b.prefix?.bits ?? 0) - (a.prefix?.bits ?? 0));
  const behind = new Map<string, Spans>(ports.map((p) => [p.name, []]));
  let taken = local;
  for (const { name, text } of listed) {
    const more = lessSpans(addressSpans([text]), taken);
    behind.set(name, joinSpans(behind.get(name) ?? [], more));
    taken = joinSpans(taken, more);
  }
  const out = ports.find((p) => p.outside);
  if (out) {
    const rest = lessSpans(joinSpans(familySpans(4), familySpans(6)), taken);
    behind.set(out.name, joinSpans(behind.get(out.name) ?? [], rest));
  }
  const own4 = sharedSpans(own, familySpans(4));
  // Whoever has no address yet is heard: only what it sends to everybody comes through `never`.
  const strange = (back: Spans): Spans => lessSpans(familySpans(4), joinSpans(back, ZERO));
  return {
    own,
    local,
    behind,
    never: [
      { saddr: joinSpans(own4, LOOPBACK, MULTICAST, BROADCAST) },
      { daddr: joinSpans(LOOPBACK, ZERO) },
      // Whoever has no address yet asks everybody.
      { saddr: ZERO, daddr: lessSpans(joinSpans(familySpans(4), familySpans(6)), BROADCAST) },
    ],
    strange: new Map(reversePath ? [...behind].map(([name, back]) => [name, strange(back)] as const) : []),
    stays: joinSpans(LINK_LOCAL_6, UNSPECIFIED_6),
    nobody: sharedSpans(addressSpans(prefixes.flatMap(heardBy)), familySpans(4)),
  };
}

/** The interface a destination lies behind; `null` where it ends at the gate, undefined where nothing leads there. */
export function wayTo(routes: Routes, daddr: bigint): string | null | undefined {
  if (inSpans(routes.local, daddr)) return null;
  for (const [name, spans] of routes.behind) if (inSpans(spans, daddr)) return name;
  return undefined;
}

/** Whether a name of an interface is among those that are named. */
export function isNamed({ names, not }: Names, name: string): boolean {
  const met = names.some((n) => (n.endsWith('*') ? name.startsWith(n.slice(0, -1)) : n === name));
  return met !== not;
}

/** Destinations that leave by the interfaces named. */
export const leavingBy = (routes: Routes, names: Names): Spans =>
  joinSpans(...[...routes.behind].filter(([name]) => isNamed(names, name)).map(([, spans]) => spans));
