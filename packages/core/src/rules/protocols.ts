import { joinSpans, lessSpans, point, range, sharedSpans, type Spans } from '../units/spans';
import type { Clause, PacketState } from './ruleset';
import { familySpans } from '../units/addressLine';

/** Numbers of protocols (IANA, Assigned Internet Protocol Numbers). */
export const PROTOCOL = {
  icmp: 1,
  tcp: 6,
  udp: 17,
  dccp: 33,
  icmpv6: 58,
  sctp: 132,
  udplite: 136,
} as const;
/** A protocol with a name here. */
export type ProtocolName = keyof typeof PROTOCOL;

/** The name of a protocol by its number; the number where it has none here. */
export const protocolName = (n: number): ProtocolName | number =>
  (Object.entries(PROTOCOL) as [ProtocolName, number][]).find(([, v]) => v === n)?.[0] ?? n;

const WITH_PORTS: Spans = joinSpans(
  ...[PROTOCOL.tcp, PROTOCOL.udp, PROTOCOL.dccp, PROTOCOL.sctp, PROTOCOL.udplite].map((n) => point(n)),
);
const WITH_TYPES: Spans = joinSpans(point(PROTOCOL.icmp), point(PROTOCOL.icmpv6));
/** Protocols whose packets have ports. */
export const hasPorts = (protocol: number): boolean =>
  WITH_PORTS.some(([a, b]) => BigInt(protocol) >= a && BigInt(protocol) <= b);

const ALL_PROTOCOLS = range(0, 255);
const ABOVE_ZERO = range(1, 65_535);
/** ICMP types with all their codes, as the destination port of a packet. */
export const icmpTypes = (...list: (number | readonly [number, number])[]): Spans =>
  joinSpans(
    ...list.map((t) =>
      typeof t === 'number' ? range(t * 256, t * 256 + 255) : range(t[0] * 256, t[1] * 256 + 255),
    ),
  );

/**
 * ICMP types that begin a conversation, and ICMPv6 types that are never tracked: `icmp_new` and `noct_valid_new` of the
 * Linux connection tracker; from memory, held by the test against a kernel.
 */
const BEGINS_4 = icmpTypes(8, 13, 15, 17);
const BEGINS_6 = icmpTypes(128, 139);
const UNTRACKED_6 = icmpTypes([130, 132], [133, 136], 143);

const ALL_TYPES = range(0, 65_535);

/** What no packet of that state is: families mixed, ports where there are none, ICMP that cannot have the state. */
export function impossible(state: PacketState): Clause[] {
  const six = familySpans(6);
  const four = familySpans(4);
  const icmp6 = (dport: Spans): Clause => ({ spans: { proto: point(PROTOCOL.icmpv6), dport } });
  const out: Clause[] = [
    { spans: { saddr: four, daddr: six } },
    { spans: { saddr: six, daddr: four } },
    // Each family has its own ICMP; a packet with the other’s is nonsense that no machine answers.
    { spans: { proto: point(PROTOCOL.icmp), daddr: six } },
    { spans: { proto: point(PROTOCOL.icmpv6), daddr: four } },
    { spans: { proto: lessSpans(ALL_PROTOCOLS, joinSpans(WITH_PORTS, WITH_TYPES)), dport: ABOVE_ZERO } },
    { spans: { proto: lessSpans(ALL_PROTOCOLS, WITH_PORTS), sport: ABOVE_ZERO } },
  ];
  if (state === 'new')
    out.push(
      { spans: { proto: point(PROTOCOL.icmp), dport: lessSpans(ALL_TYPES, BEGINS_4) } },
      icmp6(lessSpans(ALL_TYPES, BEGINS_6)),
    );
  if (state === 'untracked') {
    out.push(
      { spans: { proto: lessSpans(ALL_PROTOCOLS, point(PROTOCOL.icmpv6)) } },
      icmp6(lessSpans(ALL_TYPES, UNTRACKED_6)),
    );
  } else out.push(icmp6(UNTRACKED_6));
  return out;
}

/** The state the tracker gives the first packet of its kind; `invalid` for ICMP that nobody asked for. */
export function firstState(protocol: number, typeAndCode: number): PacketState {
  const at = point(typeAndCode);
  if (protocol === PROTOCOL.icmpv6) {
    if (sharedSpans(UNTRACKED_6, at).length > 0) return 'untracked';
    return sharedSpans(BEGINS_6, at).length > 0 ? 'new' : 'invalid';
  }
  if (protocol === PROTOCOL.icmp) return sharedSpans(BEGINS_4, at).length > 0 ? 'new' : 'invalid';
  return 'new';
}
