import {
  GATE,
  type Forward,
  type GatePlan,
  type GatePromise,
  type Hours,
  type Permit,
  type ServiceEntry,
  type Side,
  type Zone,
} from '../model/gate';
import type { Crossing } from '../rules/matrix';
import { grouped } from '../units/group';
import { capital, list, plural } from './text';

/** What a zone is called; the gate itself has a name of its own. */
export const zoneWords = (plan: GatePlan, id: string): string =>
  id === GATE ? 'the gate itself' : (plan.zones.find((z) => z.id === id)?.name ?? id);

const within = (plan: GatePlan, side: Side): string => {
  const sets = side.addresses.map((i) => plan.addresses.find((a) => a.id === i)?.name ?? i);
  return sets.length === 0 ? zoneWords(plan, side.zone) : `${list(sets)} in ${zoneWords(plan, side.zone)}`;
};

/** Names of services; “everything” where none is named. */
export const servicesWords = (plan: GatePlan, ids: readonly string[]): string =>
  ids.length === 0 ? 'everything' : list(ids.map((i) => plan.services.find((s) => s.id === i)?.name ?? i));

const portsWords = ([a, b]: readonly [number, number]): string => (a === b ? String(a) : `${a}–${b}`);

/** Kinds of packet, by protocol: “TCP 80, 443; UDP 443”. */
export function entriesWords(entries: readonly ServiceEntry[]): string {
  return [...grouped(entries, (e) => e.protocol)]
    .map(([protocol, mine]) => {
      const parts = mine.flatMap((e) => [
        ...(e.ports ? [portsWords(e.ports)] : []),
        ...(e.types.length > 0 ? [`type ${list(e.types.map(String))}`] : []),
      ]);
      return parts.length === 0 ? `all of ${PROTOCOLS[protocol]}` : `${PROTOCOLS[protocol]} ${list(parts)}`;
    })
    .join('; ');
}

const PROTOCOLS: Record<ServiceEntry['protocol'], string> = {
  tcp: 'TCP',
  udp: 'UDP',
  sctp: 'SCTP',
  icmp: 'ICMP',
  icmpv6: 'ICMPv6',
};

/** A promise as a sentence. */
export function promiseWords(plan: GatePlan, p: GatePromise): string {
  switch (p.kind) {
    case 'reaches':
      return `From ${within(plan, p.from)} ${within(plan, p.to)} is always reached for ${servicesWords(plan, p.services)}${p.family === null ? '' : ` over IPv${p.family}`}`;
    case 'closed': {
      const what = p.services.length === 0 ? 'Nothing' : `No ${servicesWords(plan, p.services)}`;
      const but = p.but.map((b) => {
        const where = b.addresses.map((i) => plan.addresses.find((a) => a.id === i)?.name ?? i);
        return `${servicesWords(plan, b.services)}${where.length > 0 ? ` at ${list(where)}` : ''}`;
      });
      return `${what} begins from ${within(plan, p.from)} to ${list(p.to.map((t) => within(plan, t)))}${but.length > 0 ? `, but ${list(but)}` : ''}`;
    }
    case 'answers':
      return 'Answers find their way back';
    case 'own sources':
      return plan.zones.find((z) => z.id === p.zone)?.kind === 'outside'
        ? `Nothing comes in from ${zoneWords(plan, p.zone)} under an address that cannot be there`
        : `Out of ${zoneWords(plan, p.zone)} come only addresses that lie in it`;
    case 'icmp6':
      return 'IPv6 keeps the messages it cannot do without';
  }
}

/** A permit in a line. */
export const permitWords = (plan: GatePlan, p: Permit): string =>
  `${p.name === '' ? '' : `${p.name}: `}${within(plan, p.from)} to ${within(plan, p.to)}, ${servicesWords(plan, p.services)}`;

/** Days of the week from Sunday. */
export const dayNames = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'];

/** Seconds of a day as a clock shows them. */
export const clock = (s: number): string =>
  `${String(Math.floor(s / 3600) % 24).padStart(2, '0')}:${String(Math.floor(s / 60) % 60).padStart(2, '0')}`;

/** Hours as they are said. */
export const hoursWords = (h: Hours): string =>
  `${clock(h.from * 60)} to ${clock(h.to * 60)}${h.days.length === 0 || h.days.length === 7 ? '' : `, ${list(h.days.map((d) => dayNames[d]?.slice(0, 2) ?? ''))}`}`;

const KINDS: Record<Zone['kind'], string> = {
  outside: 'outside',
  inside: 'inside',
  guests: 'guests',
  things: 'things',
  other: 'other',
};

/** What a kind of zone is called. */
export const zoneKindWords = (k: Zone['kind']): string => KINDS[k];

const PROMISES: Record<GatePromise['kind'], string> = {
  reaches: 'somebody always reaches something',
  closed: 'nobody begins anything',
  answers: 'answers find their way back',
  'own sources': 'out of a zone come only its own addresses',
  icmp6: 'IPv6 keeps the messages it cannot do without',
};

/** What a kind of promise is about. */
export const promiseKindWords = (k: GatePromise['kind']): string => PROMISES[k];

const condition = (p: Permit): string[] => [
  ...(p.hours ? [hoursWords(p.hours)] : []),
  ...(p.rate ? [`at most ${p.rate.count} in a ${p.rate.per}`] : []),
  ...(p.family === null ? [] : [`IPv${p.family} alone`]),
  ...(p.log ? ['noted'] : []),
];

/** A permit as a line of its crossing. */
export function permitLine(plan: GatePlan, p: Permit): { name: string; sub: string; services: string } {
  const services = servicesWords(plan, p.services);
  const sets = (ids: readonly string[]): string =>
    list(ids.map((i) => plan.addresses.find((a) => a.id === i)?.name ?? i));
  return {
    name: p.name === '' ? capital(services) : p.name,
    sub: [
      ...(p.from.addresses.length > 0 ? [`from ${sets(p.from.addresses)}`] : []),
      ...(p.to.addresses.length > 0 ? [`to ${sets(p.to.addresses)}`] : []),
      ...condition(p),
    ].join('; '),
    services,
  };
}

/** What a crossing lets through, in a word and a line. */
export function crossingWords(
  plan: GatePlan,
  c: Pick<Crossing, 'permits' | 'forwards'>,
): { kind: 'yes' | 'no' | 'change'; word: string; sub: string } {
  const on = c.permits.filter((p) => p.on && p.does === 'let in');
  const led = c.forwards.filter((f) => f.on);
  const forwards = led.length > 0 ? [`${plural(led.length, 'port')} led in`] : [];
  const [first] = on;
  if (!first) return { kind: led.length > 0 ? 'change' : 'no', word: forwards[0] ?? 'nothing', sub: '' };
  const all = on.find((p) => p.services.length === 0);
  const named = [...new Set(on.flatMap((p) => p.services))].map(
    (i) => plan.services.find((s) => s.id === i)?.name ?? i,
  );
  const narrow = all && (all.from.addresses.length > 0 || all.to.addresses.length > 0);
  const [a, b] = named;
  const word = all
    ? 'everything'
    : named.length > 2
      ? plural(named.length, 'service')
      : [a, b].filter(Boolean).join(', ');
  const targets = on
    .flatMap((p) => p.to.addresses)
    .map((i) => plan.addresses.find((s) => s.id === i)?.name ?? i);
  const sub = [
    ...(!all && named.length > 2 ? [list(named)] : []),
    ...(targets.length > 0 ? [`to ${list([...new Set(targets)])}`] : []),
    ...(on.some((p) => p.hours) ? ['by the hour'] : []),
    ...(on.some((p) => p.rate) ? ['at a rate'] : []),
    ...forwards,
  ].join('; ');
  return { kind: narrow || on.some((p) => p.hours || p.rate) ? 'change' : 'yes', word, sub };
}

/** Where a forwarded port leads. */
export const forwardWords = (f: Forward): string =>
  `${f.protocol} ${f.ports[0] === f.ports[1] ? f.ports[0] : f.ports.join('-')} → ${f.to}${f.toPort === null ? '' : ` ${f.toPort}`}`;

/** From where a gate is looked after. */
export function seatWords(plan: GatePlan): string {
  const { seat } = plan;
  if (!seat) return 'Not said yet.';
  return `${zoneWords(plan, seat.zone)}${seat.address === null ? '' : `, ${seat.address}`}, over TCP ${list(seat.ports.map(String))}.`;
}
