import { addressSpans, ofFamily } from '../units/addressLine';
import type { Family } from '../units/ip';
import { inSpans, joinSpans, lessSpans, point, sharedSpans, type Spans } from '../units/spans';
import { GATE, type GatePlan, type GatePromise, type Seat } from '../model/gate';
import type { Host, Network } from '../model/network';
import { ERRORS_THROUGH, HEARD_BY_THE_GATE } from './bogons';
import { serviceClauses, servicesOf } from './clauses';
import { compileGate } from './compile';
import { isUnknown, SELF, type Fate } from './flatten';
import { judgeRules, type Judged, type Judgement } from './fates';
import type { Node } from './forest';
import { hasPorts, icmpTypes, PROTOCOL } from './protocols';
import type { PacketState, Ruleset } from './ruleset';
import { sampleOf } from './sample';
import { entriesOf, everyTarget, groundOf, honestSources, honestTargets, type Ground } from './sides';
import { interfacesOf, prefixesOf, topologyOf } from './topology';
import type { PacketBox, Universe } from './universe';
import { walkPacket, type NumberedPacket, type Walk } from './walk';

/** Whether a promise is kept. `limited`: as long as no more come than a rule lets in; `cannot say`: a part nobody understands decides. */
export type PromiseVerdict = 'holds' | 'fails' | 'limited' | 'cannot say' | 'about nothing';

/** A promise, whether it is kept, and a packet that breaks it with its way. */
export interface Kept {
  promise: GatePromise;
  verdict: PromiseVerdict;
  packet: NumberedPacket | null;
  walk: Walk | null;
  /** Parts that were not understood and decide it. */
  because: string[];
}

/** What a promise forbids or demands, as packets of some states and what must not become of them. */
interface Demand {
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
const passes = (f: Fate): boolean => f.code === 'passes';
const stops = (f: Fate): boolean => f.code !== 'passes' && f.code !== 'impossible';

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

function demandsOf(ground: Ground, p: GatePromise): Demand[] {
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

interface Broken {
  verdict: PromiseVerdict;
  node: Node;
  state: PacketState;
  because: string[];
}

function heldDemand(j: Judgement, judged: Judged, d: Demand): Broken | undefined {
  const { universe, fates } = j;
  const { forest } = universe;
  const unknowns = universe.flagDims('unknown');
  const rates = universe.flagDims('rate');
  const left = universe.setOf(d.but ?? []);
  const asked = forest.both(universe.setOf(d.boxes), left, (a, b) => (b === 1 ? 0 : a));
  const fromThere = d.translated ? universe.setOf([{ iif: d.translated.from, spans: {} }]) : undefined;
  const found: Broken[] = [];
  for (const state of d.states) {
    const root = judged.roots.get(state);
    if (root === undefined) continue;
    const breaks = (v: number): boolean => {
      const fate = fates[v];
      return fate !== undefined && d.broken(fate);
    };
    let bad = forest.both(asked, root, (a, v) => (a === 1 && breaks(v) ? 1 : 0));
    const { translated } = d;
    if (translated && fromThere !== undefined) {
      const also = forest.both(fromThere, root, (a, v) => {
        const fate = fates[v];
        return a === 1 && fate && translated.met(fate) ? 1 : 0;
      });
      bad = forest.both(bad, also, (a, b) => a | b);
    }
    if (!forest.any(bad)) continue;
    const below = d.needsAll
      ? forest.both(bad, universe.belowRates(), (a, b) => a & b)
      : forest.chosen(bad, rates, 'some');
    const sure = forest.chosen(below, unknowns, 'every');
    if (forest.any(sure)) found.push({ verdict: 'fails', node: sure, state, because: [] });
    else if (forest.any(below))
      found.push({ verdict: 'cannot say', node: below, state, because: deciding(j, below) });
    else found.push({ verdict: 'limited', node: bad, state, because: [] });
  }
  const rank: readonly PromiseVerdict[] = ['fails', 'cannot say', 'limited'];
  return rank.flatMap((v) => found.filter((f) => f.verdict === v))[0];
}

/** Conversations looked at one by one before it is given up. */
const MOST_ANSWERS = 20_000;

/** Packets of known conversations that are stopped although what began the conversation passes: answers, and what follows its first packet. */
function unanswered(ground: Ground, j: Judgement, judged: Judged): Broken[] {
  const { universe, fates } = j;
  const { forest } = universe;
  const known = judged.roots.get('established');
  const begun = judged.roots.get('new');
  if (known === undefined || begun === undefined) return [];
  const honest = universe.setOf(honestBoxes(ground));
  const stopped = forest.both(honest, known, (a, v) => (a === 1 && fates[v] && stops(fates[v]) ? 1 : 0));
  const lets = forest.both(honest, begun, (a, v) => (a === 1 && fates[v] && passes(fates[v]) ? 1 : 0));
  const found = (node: Node, because: string[] = []): Broken => ({
    verdict: because.length > 0 ? 'cannot say' : 'fails',
    node,
    state: 'established',
    because,
  });
  const onwards = forest.both(stopped, lets, (a, b) => a & b);
  if (forest.any(onwards)) return [found(onwards, deciding(j, onwards))];
  let looked = 0;
  for (const { box } of forest.each(stopped, (v) => v === 1)) {
    if ((looked += 1) > MOST_ANSWERS) return [found(stopped, ['more classes of answers than are looked at'])];
    const { iif, spans, flags } = universe.ranges(box);
    const back = backwards(ground, iif, spans);
    if (back.length === 0) continue;
    const met = forest.both(universe.setOf(back), lets, (a, b) => a & b);
    if (!forest.any(met)) continue;
    const unsure = [...flags.on, ...flags.off].filter(isUnknown);
    const names = unsure.map((f) => f.slice(f.indexOf(': ') + 2));
    return [found(answerTo(universe, met, spans), names)];
  }
  return [];
}

/** Conversations between whoever honestly sits on two sides; with the gate's own address where something is forwarded. */
function honestBoxes(ground: Ground): PacketBox[] {
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

/** What an answer of those ranges answers: source and destination changed about, come in where the answer goes to. */
function backwards(
  { routes, plan, networks }: Ground,
  iif: readonly string[],
  spans: Record<'saddr' | 'daddr' | 'proto' | 'sport' | 'dport', readonly [bigint, bigint]>,
): PacketBox[] {
  const to: Spans = [spans.daddr];
  const from: Spans = [spans.saddr];
  const sides = [
    ...topologyOf(plan, networks).ports.map((p) => ({ name: p.name, of: routes.behind.get(p.name) ?? [] })),
    { name: SELF, of: routes.own },
  ];
  return sides.flatMap(({ name, of }): PacketBox[] => {
    const saddr = sharedSpans(to, of);
    if (saddr.length === 0) return [];
    return sides.flatMap((s): PacketBox[] => {
      if (!iif.includes(s.name)) return [];
      const daddr = sharedSpans(from, s.of);
      const withPorts = spans.proto[0] === spans.proto[1] && hasPorts(Number(spans.proto[0]));
      return daddr.length === 0
        ? []
        : [
            {
              iif: [name],
              spans: {
                saddr,
                daddr,
                proto: [spans.proto],
                ...(withPorts ? { sport: [spans.dport], dport: [spans.sport] } : {}),
              },
            },
          ];
    });
  });
}

/** The answers among packets whose conversations may begin: the ranges of the answer, as a set. */
function answerTo(
  universe: Universe,
  begun: Node,
  spans: Record<'saddr' | 'daddr' | 'proto' | 'sport' | 'dport', readonly [bigint, bigint]>,
): Node {
  for (const { box } of universe.forest.each(begun, (v) => v === 1)) {
    const first = universe.ranges(box).spans;
    return universe.setOf([
      {
        spans: {
          saddr: sharedSpans([spans.saddr], [first.daddr]),
          daddr: sharedSpans([spans.daddr], [first.saddr]),
          proto: [spans.proto],
          sport: [spans.sport],
          dport: [spans.dport],
        },
      },
    ]);
  }
  return universe.setOf([]);
}

/** Parts that are not understood and that some class of the set depends on. */
function deciding({ universe }: Judgement, node: Node): string[] {
  const names = new Set<string>();
  for (const { box } of universe.forest.each(node, (v) => v === 1)) {
    const { on, off } = universe.ranges(box).flags;
    [...on, ...off].filter(isUnknown).forEach((f) => names.add(f.slice(f.indexOf(': ') + 2)));
    if (names.size > 20) break;
  }
  return [...names];
}

/** Packets that promises are about, so that classes are cut there too. */
export const boxesOfPromises = (ground: Ground, promises: readonly GatePromise[]): PacketBox[] =>
  promises.flatMap((p) =>
    p.kind === 'answers'
      ? honestBoxes(ground)
      : demandsOf(ground, p).flatMap((d) => [...d.boxes, ...(d.but ?? [])]),
  );

/** Every promise against a judged ruleset: over all packets, with one that breaks it. */
export function checkPromises(
  ground: Ground,
  promises: readonly GatePromise[],
  j: Judgement,
  judged: Judged,
): Kept[] {
  return promises.map((promise): Kept => {
    const demands = demandsOf(ground, promise);
    const found =
      promise.kind === 'answers'
        ? unanswered(ground, j, judged)
        : demands.flatMap((d) => heldDemand(j, judged, d) ?? []);
    const worst =
      found.find((f) => f.verdict === 'fails') ?? found.find((f) => f.verdict === 'cannot say') ?? found[0];
    if (!worst) {
      const about = promise.kind === 'answers' || demands.some((d) => d.boxes.length > 0);
      return { promise, verdict: about ? 'holds' : 'about nothing', packet: null, walk: null, because: [] };
    }
    const packet = sampleOf(j.universe, worst.node, worst.state, ground.known);
    const walk = packet && walkPacket(judged.gate.ruleset, judged.routes, packet);
    return { promise, verdict: worst.verdict, packet, walk, because: worst.because };
  });
}

/** Whether a port of the gate stays in reach of whoever gives the rules away. */
export type SeatHeld = Omit<Kept, 'promise'> & { port: number };

/** Whether somebody who sits there still reaches the page: for each port a verdict, with a packet where it does not. */
export function seatHolds(ground: Ground, j: Judgement, judged: Judged): SeatHeld[] {
  const { seat } = ground.plan;
  if (!seat) return [];
  return seat.ports.map((port) => {
    const demand = seatDemand(ground, seat, port);
    const found = heldDemand(j, judged, demand);
    const nobody = demand.boxes.length === 0;
    const packet = found ? sampleOf(j.universe, found.node, found.state, ground.known) : null;
    return {
      port,
      verdict: found?.verdict ?? (nobody ? 'fails' : 'holds'),
      packet,
      walk: packet && walkPacket(judged.gate.ruleset, judged.routes, packet),
      because: found?.because ?? [],
    };
  });
}

function seatDemand(ground: Ground, seat: Seat, port: number): Demand {
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

/** A plan judged with all its promises. `ruleset`: another than its own, such as one that was read. */
export function judgePlan(
  plan: GatePlan,
  networks: readonly Network[],
  { ruleset = compileGate(plan, networks), hosts = [] }: { ruleset?: Ruleset; hosts?: readonly Host[] } = {},
): { ground: Ground; judgement: Judgement; judged: Judged; kept: Kept[]; seat: SeatHeld[] } {
  const ground = groundOf(plan, networks, hosts);
  const promises = plan.promises.filter((p) => p.on);
  const judgement = judgeRules(
    [{ ruleset, topology: topologyOf(plan, networks) }],
    [...boxesOfPromises(ground, promises), ...boxesOfSeat(ground)],
  );
  const judged = judgement.judged[0] as Judged;
  return {
    ground,
    judgement,
    judged,
    kept: checkPromises(ground, promises, judgement, judged),
    seat: seatHolds(ground, judgement, judged),
  };
}
