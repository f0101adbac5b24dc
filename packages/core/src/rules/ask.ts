import { familyAt, lineAddress, placesOf } from '../units/addressLine';
import { parseIp } from '../units/ip';
import { holds, parsePrefix } from '../units/prefix';
import type { Network } from '../model/network';
import { GATE, interfaceOf, type GatePlan, type Packet } from '../model/gate';
import { SELF } from './flatten';
import { firstState, hasPorts, PROTOCOL } from './protocols';
import type { Routes } from './routes';
import type { Ruleset } from './ruleset';
import { walkPacket, type NumberedPacket, type Walk } from './walk';

/** Why a packet cannot be asked about. */
export type AskFault =
  'no such way in' | 'families mixed' | 'ICMP of the other family' | 'no address of its own';

/** A packet's way, and that of its answer. */
export interface Asked {
  packet: NumberedPacket;
  walk: Walk;
  /** What comes back for it; null where nothing does. */
  answer: { packet: NumberedPacket; walk: Walk } | null;
}

const protocolNumber = (p: Packet['protocol']): number => (typeof p === 'number' ? p : PROTOCOL[p]);

/** A packet as it was typed, in numbers; a fault where there is no such packet. */
export function numbered(p: Packet, plan: GatePlan, networks: readonly Network[]): NumberedPacket | AskFault {
  const ports = plan.ports.filter((q) => interfaceOf(q) === p.from || q.zoneId === p.from || q.id === p.from);
  const source = parseIp(p.source);
  // Of several ports of a zone the one the source lies behind.
  const named =
    ports.find((q) =>
      networks.some((n) => {
        if (n.id !== q.networkId || !source) return false;
        return [n.prefix, n.prefix6].some((t) => {
          const prefix = t === null ? undefined : parsePrefix(t);
          return prefix && holds(prefix, source);
        });
      }),
    ) ?? ports[0];
  const iif = p.from === GATE || p.from === SELF ? SELF : named && interfaceOf(named);
  if (iif === undefined) return 'no such way in';
  const saddr = placesOf(p.source)?.[0];
  if (saddr === undefined) return 'families mixed';
  const family = familyAt(saddr);
  const daddr = p.destination === 'from the line' ? lineAddress(family) : placesOf(p.destination)?.[0];
  if (daddr === undefined || familyAt(daddr) !== family) return 'families mixed';
  const proto = protocolNumber(p.protocol);
  if ((proto === PROTOCOL.icmp && family === 6) || (proto === PROTOCOL.icmpv6 && family === 4))
    return 'ICMP of the other family';
  const icmp = proto === PROTOCOL.icmp || proto === PROTOCOL.icmpv6;
  const dport = icmp ? p.type * 256 + p.code : hasPorts(proto) ? p.destinationPort : 0;
  return {
    iif,
    saddr,
    daddr,
    proto,
    sport: hasPorts(proto) ? p.sourcePort : 0,
    dport,
    state: p.state ?? firstState(proto, dport),
    day: p.day,
    second: p.second,
    over: new Set(),
    matches: new Set(),
  };
}

/** Echo requests are answered by echo replies; other ICMP is not answered. */
const ECHO: Record<number, number> = { [8 * 256]: 0, [128 * 256]: 129 * 256 };

/** What comes back for a packet that was let through; null where it ends nowhere that answers. */
function answerTo(p: NumberedPacket, walk: Walk): NumberedPacket | null {
  if (walk.end !== 'passes' || p.state !== 'new') return null;
  const daddr = walk.translated?.daddr ?? p.daddr;
  const icmp = p.proto === PROTOCOL.icmp || p.proto === PROTOCOL.icmpv6;
  const back = icmp ? ECHO[p.dport] : p.sport;
  if (back === undefined) return null;
  const iif = walk.out === null ? SELF : walk.out;
  if (iif === undefined || (p.iif === SELF && iif === SELF)) return null;
  return {
    ...p,
    iif,
    saddr: daddr,
    daddr: p.saddr,
    sport: icmp ? 0 : (walk.translated?.dport ?? p.dport),
    dport: back,
    state: 'established',
  };
}

/** A packet's way through the rules, and the way of its answer. The answer is told as the rules see it: translated back already. */
export function askPacket(ruleset: Ruleset, routes: Routes, packet: NumberedPacket): Asked {
  const walk = walkPacket(ruleset, routes, packet);
  const back = answerTo(packet, walk);
  return { packet, walk, answer: back && { packet: back, walk: walkPacket(ruleset, routes, back) } };
}
