import { addressSpans, ofFamily } from '../units/addressLine';
import type { Family } from '../units/ip';
import { inSpans, joinSpans, lessSpans, point, sharedSpans, type Spans } from '../units/spans';
import { GATE, type GatePlan, type GatePromise, type Seat } from '../model/gate';
import { ERRORS_THROUGH, HEARD_BY_THE_GATE } from './bogons';
import { serviceClauses, servicesOf } from './clauses';
import type { Fate } from './flatten';
import { icmpTypes, PROTOCOL } from './protocols';
import type { PacketState } from './ruleset';
import { entriesOf, everyTarget, honestSources, honestTargets, type Ground } from './sides';
import { interfacesOf, prefixesOf, topologyOf } from './topology';
import type { PacketBox } from './universe';

/** What a promise forbids or demands, as packets of some states and what must not become of them. */
export interface Demand {
  states: readonly PacketState[];
  boxes: PacketBox[];
  /** Whether an end breaks it. */
  broken: (fate: Fate) => boolean;
  /** More than the boxes says: packets whose translated destination is meant. */
  translated?: { from: readonly string[]; met: (fate: Fate) => boolean };
  /** Packets that are left out of it. */
  but?: PacketBox[];
  /** It must hold above every rate too, not only below. */
  needsAll: boolean;
}

const FAMILIES: readonly Family[] = [4, 6];
/** A packet ends where it wanted to. */
export const passes = (f: Fate): boolean => f.code === 'passes';
/** It does not, though it can be. */
export const stops = (f: Fate): boolean => f.code !== 'passes' && f.code !== 'impossible';

const withServices = (plan: GatePlan, ids: readonly string[], boxes: readonly PacketBox[]): PacketBox[] => {
  const clauses = serviceClauses(servicesOf(plan, ids));
  return boxes.flatMap((b) => clauses.map((c): PacketBox => ({ ...b, spans: { ...b.spans, ...c.spans } })));
};

function reachesDemand(ground: Ground, p: Extract<GatePromise, { kind: 'reaches' }>): Demand {
  const sources = honestSources(ground, p.from);
  const targets = honestTargets(ground, p.to, p.from.zone);
  const iif = entriesOf(ground, p.from.zone);
  const boxes = (p.family === null ? FAMILIES : [p.family]).flatMap((f): PacketBox[] => {
    const saddr = ofFamily(sources, f);
    const daddr = ofFamily(targets, f);
    return saddr.length === 0 || daddr.length === 0 || iif.length === 0
      ? []
      : [{ iif, spans: { saddr, daddr } }];
  });
  return {
    states: ['new'],
    boxes: withServices(ground.plan, p.services, boxes),
    broken: stops,
    needsAll: true,
  };
}

function closedDemand(ground: Ground, p: Extract<GatePromise, { kind: 'closed' }>): Demand {
  const { plan } = ground;
  const iif = entriesOf(ground, p.from.zone);
  const targets = joinSpans(...p.to.map((side) => everyTarget(ground, side)));
  const named = p.from.addresses.length > 0 ? honestSources(ground, p.from) : undefined;
  const box: PacketBox = { iif, spans: { daddr: targets, ...(named ? { saddr: named } : {}) } };
  const services = serviceClauses(servicesOf(plan, p.services));
  const inServices = (fate: Fate): boolean => {
    const forward = plan.forwards.find((f) => fate.dnat?.rule.startsWith(`arrive ${f.id}`));
    if (!forward || p.services.length === 0) return true;
    const port = fate.dnat?.port ?? null;
    return services.some(
      ({ spans }) =>
        (!spans.proto || inSpans(spans.proto, BigInt(PROTOCOL[forward.protocol]))) &&
        (port === null || !spans.dport || inSpans(spans.dport, BigInt(port))),
    );
  };
  return {
    // Neighbours and listeners are spoken to by every machine on the wire; what is not tracked is not begun.
    states: ['new', 'invalid'],
    boxes: iif.length === 0 || targets.length === 0 ? [] : withServices(plan, p.services, [box]),
    broken: (f) => passes(f) && f.dnat === null,
    but: p.but.flatMap((b) => {
      const daddr = everyTarget(ground, { zone: p.to[0]?.zone ?? GATE, addresses: b.addresses });
      return withServices(
        plan,
        b.services,
        b.addresses.length > 0 ? [{ spans: { daddr } }] : [{ spans: {} }],
      );
    }),
    ...(p.forwards
      ? {}
      : {
          translated: {
            from: iif,
            met: (f) =>
              passes(f) &&
              f.dnat !== null &&
              sharedSpans(addressSpans([f.dnat.to]), targets).length > 0 &&
              inServices(f),
          },
        }),
    needsAll: false,
  };
}

/** Out of a zone come only addresses that lie in it; whoever has none yet, and link-local neighbours, are spoken to all the same. */
function sourcesDemand(ground: Ground, zone: string): Demand {
  const { plan, networks } = ground;
  const iif = interfacesOf(plan, zone);
  const honest =
    plan.zones.find((z) => z.id === zone)?.kind === 'outside'
      ? honestSources(ground, { zone, addresses: [] })
      : addressSpans(prefixesOf(plan, networks, zone));
  const own = ground.routes.own;
  const strange = lessSpans(
    lessSpans(
      joinSpans(
        ofFamily([[0n, (1n << 32n) - 1n]], 4),
        ofFamily([[1n << 32n, (1n << 32n) + (1n << 128n) - 1n]], 6),
      ),
      honest,
    ),
    joinSpans(addressSpans(['0.0.0.0', '::', 'fe80::/10']), own),
  );
  return {
    states: ['new', 'established', 'related', 'invalid'],
    boxes: iif.length === 0 ? [] : [{ iif, spans: { saddr: strange } }],
    broken: passes,
    needsAll: false,
  };
}

/** RFC 4890: errors about known conversations pass through (§4.3.1), neighbours and echo are heard by the gate (§4.4.1). */
function icmp6Demands(ground: Ground): Demand[] {
  const { plan, routes, networks } = ground;
  const proto = point(PROTOCOL.icmpv6);
  const ports = topologyOf(plan, networks).ports;
  const all = ports.map((p) => p.name);
  const through: PacketBox[] = plan.zones.flatMap((from) =>
    plan.zones.flatMap((to) => {
      if (from.id === to.id) return [];
      const saddr = ofFamily(honestSources(ground, { zone: from.id, addresses: [] }), 6);
      const daddr = ofFamily(honestTargets(ground, { zone: to.id, addresses: [] }, from.id), 6);
      return saddr.length === 0 || daddr.length === 0
        ? []
        : [
            {
              iif: interfacesOf(plan, from.id),
              spans: { saddr, daddr, proto, dport: icmpTypes(...ERRORS_THROUGH) },
            },
          ];
    }),
  );
  const neighbours: PacketBox = {
    iif: all,
    spans: {
      saddr: addressSpans(['fe80::/10']),
      daddr: joinSpans(addressSpans(['fe80::/10', 'ff02::/16']), ofFamily(routes.own, 6)),
      proto,
      dport: icmpTypes(...HEARD_BY_THE_GATE),
    },
  };
  return [
    { states: ['related'], boxes: through, broken: stops, needsAll: true },
    { states: ['untracked'], boxes: all.length > 0 ? [neighbours] : [], broken: stops, needsAll: true },
  ];
}

/** What a promise demands; answers are asked for otherwise. */
export function demandsOf(ground: Ground, p: GatePromise): Demand[] {
  switch (p.kind) {
    case 'reaches':
      return [reachesDemand(ground, p)];
    case 'closed':
      return [closedDemand(ground, p)];
    case 'answers':
      return [];
    case 'own sources':
      return [sourcesDemand(ground, p.zone)];
    case 'icmp6':
      return icmp6Demands(ground);
  }
}

/** Conversations between whoever honestly sits on two sides; with the gate's own address where something is forwarded. */
export function honestBoxes(ground: Ground): PacketBox[] {
  const { plan } = ground;
  const sides = [...plan.zones.map((z) => z.id), GATE];
  return sides.flatMap((from) =>
    sides.flatMap((to): PacketBox[] => {
      const iif = entriesOf(ground, from);
      if (from === to || iif.length === 0) return [];
      return FAMILIES.flatMap((f) => {
        const saddr = ofFamily(honestSources(ground, { zone: from, addresses: [] }), f);
        const daddr = ofFamily(
          to === GATE ? ground.routes.own : honestTargets(ground, { zone: to, addresses: [] }, from),
          f,
        );
        return saddr.length === 0 || daddr.length === 0 ? [] : [{ iif, spans: { saddr, daddr } }];
      });
    }),
  );
}

/** Packets that promises are about, so that classes are cut there too. */
export const boxesOfPromises = (ground: Ground, promises: readonly GatePromise[]): PacketBox[] =>
  promises.flatMap((p) =>
    p.kind === 'answers'
      ? honestBoxes(ground)
      : demandsOf(ground, p).flatMap((d) => [...d.boxes, ...(d.but ?? [])]),
  );

/** What the seat demands of one port: its page is reached from there, and answers. */
export function seatDemand(ground: Ground, seat: Seat, port: number): Demand {
  const side = { zone: seat.zone, addresses: [] };
  const all = honestSources(ground, side);
  const sources: Spans = seat.address === null ? all : addressSpans([seat.address]);
  const targets = honestTargets(ground, { zone: GATE, addresses: [] }, seat.zone);
  const iif = entriesOf(ground, seat.zone);
  const boxes = FAMILIES.flatMap((f): PacketBox[] => {
    const saddr = ofFamily(sources, f);
    const daddr = ofFamily(targets, f);
    return saddr.length === 0 || daddr.length === 0 || iif.length === 0
      ? []
      : [{ iif, spans: { saddr, daddr, proto: point(PROTOCOL.tcp), dport: point(port) } }];
  });
  // The page answers too: what belongs to the conversation goes on.
  return { states: ['new', 'established'], boxes, broken: stops, needsAll: true };
}

/** Packets the seat is about. */
export const boxesOfSeat = (ground: Ground): PacketBox[] => {
  const { seat } = ground.plan;
  return seat ? seat.ports.flatMap((p) => seatDemand(ground, seat, p).boxes) : [];
};
