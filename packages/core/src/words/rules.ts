import {
  GATE,
  type Forward,
  type GateFault,
  type GatePlan,
  type GatePromise,
  type Hours,
  type Permit,
  type ServiceEntry,
  type Side,
  type Zone,
} from '../model/gate';
import type { AskFault } from '../rules/ask';
import type { Changed } from '../rules/compare';
import type { Fate } from '../rules/flatten';
import type { Kept, PromiseVerdict } from '../rules/promises';
import type { PaceLine } from '../rules/pace';
import type { GateForm } from '../rules/write/forms';
import { PROTOCOL, protocolName } from '../rules/protocols';
import type { Crossing } from '../rules/matrix';
import type { GateReport } from '../rules/report';
import type { Mend } from '../rules/repair';
import type { PacketState, Rule, Ruleset, UsualRule } from '../rules/ruleset';
import { zoneOfInterface } from '../rules/topology';
import type { Differs, NumberedPacket, Walk } from '../rules/walk';
import type { Host } from '../model/network';
import { grouped } from '../units/group';
import { formatPlace, formatRange } from '../units/addressLine';
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

const VERDICTS: Record<PromiseVerdict, string> = {
  holds: 'holds',
  fails: 'fails',
  limited: 'holds below a rate',
  'cannot say': 'cannot say',
  'about nothing': 'about nothing',
};
/** What a verdict is called. */
export const promiseVerdictWords = (v: PromiseVerdict): string => VERDICTS[v];

/** Why nothing certain can be said of a promise. */
export const unsureWords = (because: readonly string[]): string =>
  because.length === 0 ? '' : `It depends on what is not understood here: ${because.join('; ')}`;

const STATES: Record<PacketState, string> = {
  new: 'first of its conversation',
  established: 'of a known conversation',
  related: 'about a known conversation',
  invalid: 'belongs to no conversation',
  untracked: 'not tracked',
};
/** What a tracker knows of a packet. */
export const stateWords = (s: PacketState): string => STATES[s];

const proto = (n: number): string => {
  const name = protocolName(n);
  return typeof name === 'number'
    ? `protocol ${name}`
    : name === 'icmpv6'
      ? 'ICMPv6'
      : name === 'udplite'
        ? 'UDP-Lite'
        : name.toUpperCase();
};

/** What a packet is for: “TCP 445”, “ICMPv6 type 128”. */
export function kindWords(p: NumberedPacket): string {
  if (p.proto === PROTOCOL.icmp || p.proto === PROTOCOL.icmpv6)
    return `${proto(p.proto)} type ${Math.floor(p.dport / 256)}`;
  return typeof protocolName(p.proto) === 'number' ? proto(p.proto) : `${proto(p.proto)} ${p.dport}`;
}

/** The zone a packet comes from. */
export const fromWords = (plan: GatePlan, iif: string): string => {
  const zone = zoneOfInterface(plan, iif);
  return zone === undefined ? iif : zoneWords(plan, zone);
};

/** A packet in a line. */
export const packetWords = (plan: GatePlan, p: NumberedPacket): string =>
  `${fromWords(plan, p.iif)} ${formatPlace(p.saddr)} → ${formatPlace(p.daddr)}, ${kindWords(p)}${p.state === 'new' ? '' : `, ${stateWords(p.state)}`}`;

const USUAL: Record<UsualRule, string> = {
  'known conversations': 'known conversations go on',
  'belongs to none': 'what belongs to no conversation',
  'the gate to itself': 'the gate speaks to itself',
  'asks for an address': 'the gate asks for its own address',
  'gets an address': 'the gate gets its own address',
  'gives addresses': 'somebody asks for an address',
  neighbours: 'IPv6 neighbours and errors',
  'no address yet': 'somebody without an address',
  'strange source': 'an address that cannot be there',
  'never in the open': 'addresses that never go in the open',
  'way to a crossing': 'on to its crossing',
};

/** A rule in words: what was decided, or what every gate has. */
export function ruleWords(plan: GatePlan, id: string, ruleset: Ruleset): string {
  if (id.startsWith('policy ')) return 'no rule lets it in';
  const rule: Rule | undefined = ruleset.chains.flatMap((c) => c.rules).find((r) => r.id === id);
  const from = rule?.from;
  if (!rule || !from) return rule?.comment ? `${id}: ${rule.comment}` : id;
  switch (from.what) {
    case 'usual':
      return USUAL[from.code];
    case 'zone':
      return `${zoneWords(plan, from.id)} is told that it is refused`;
    case 'forward':
      return `forwarded: ${plan.forwards.find((f) => f.id === from.id)?.name ?? from.id}`;
    case 'permit': {
      const p = plan.permits.find((q) => q.id === from.id);
      return p ? permitWords(plan, p) : from.id;
    }
  }
}

/** A permit in a line. */
export const permitWords = (plan: GatePlan, p: Permit): string =>
  `${p.name === '' ? '' : `${p.name}: `}${within(plan, p.from)} to ${within(plan, p.to)}, ${servicesWords(plan, p.services)}`;

const DIFFERS: Record<Differs, string> = {
  iif: 'comes in elsewhere',
  oif: 'goes elsewhere',
  state: 'another state',
  translated: 'not translated',
  rate: 'above the rate',
  'not understood': 'not understood',
  family: 'the other family',
  saddr: 'another source',
  daddr: 'another destination',
  proto: 'another protocol',
  sport: 'another source port',
  dport: 'another port',
  day: 'another day',
  second: 'another hour',
};
/** Why a packet passes a rule by. */
export const differsWords = (d: Differs): string => DIFFERS[d];

const DID: Record<NonNullable<Walk['steps'][number]['did']>, string> = {
  accept: 'let in',
  drop: 'dropped',
  reject: 'refused',
  jump: 'goes there',
  goto: 'goes there',
  return: 'goes back',
  continue: 'noted',
  dnat: 'led on',
  redirect: 'led to the gate',
  snat: 'gets another source',
  masquerade: 'leaves as the gate',
  unknown: 'not understood',
};
/** What a rule did with a packet. */
export const didWords = (did: NonNullable<Walk['steps'][number]['did']>): string => DID[did];

const ENDS: Record<Walk['end'], string> = {
  passes: 'passes',
  dropped: 'is dropped, and nothing answers',
  refused: 'is refused, and told so',
  'refused by the kernel': 'is dropped by the system itself',
  'no way': 'has no way to go',
};
/** How a packet ended, and where. */
export function endWords(plan: GatePlan, walk: Walk): string {
  if (walk.end !== 'passes') return ENDS[walk.end];
  const where =
    walk.out === null || walk.out === undefined ? 'to the gate' : `to ${fromWords(plan, walk.out)}`;
  const led = walk.translated
    ? `, led on to ${formatPlace(walk.translated.daddr)} port ${walk.translated.dport}`
    : '';
  const as =
    walk.leavesAs === null
      ? ''
      : walk.leavesAs === 'its own'
        ? ', under the gate’s own address'
        : `, as ${walk.leavesAs}`;
  return `passes ${where}${led}${as}`;
}

const FATES: Record<Fate['code'], string> = {
  impossible: 'cannot be',
  'refused by the kernel': 'dropped by the system',
  'no way': 'no way to go',
  dropped: 'dropped',
  refused: 'refused',
  passes: 'passes',
};
/** How packets of a class end. */
export const fateWords = (f: Fate): string =>
  [
    FATES[f.code],
    ...(f.dnat ? [`led on to ${f.dnat.to}${f.dnat.port === null ? '' : ` port ${f.dnat.port}`}`] : []),
    ...(f.snat === null ? [] : [f.snat === 'its own' ? 'under the gate’s address' : `as ${f.snat}`]),
  ].join(', ');

const few = (texts: readonly string[]): string =>
  texts.length > 3 ? `${list(texts.slice(0, 3))} and ${texts.length - 3} more` : list(texts);
const numbers = (r: readonly (readonly [bigint, bigint])[]): string =>
  few(r.map(([a, b]) => (a === b ? String(a) : `${a}–${b}`)));

/** A class of packets whose end changes, in words. */
export function changedWords(plan: GatePlan, c: Changed): string {
  const { saddr, daddr, proto: protocols, dport, sport, day, second } = c.spans;
  const names = [...new Set(c.iif.map((i) => fromWords(plan, i)))];
  return [
    `from ${few(names)}`,
    ...(saddr ? [`source ${few(saddr.map(formatRange))}`] : []),
    ...(daddr ? [`to ${few(daddr.map(formatRange))}`] : []),
    ...(protocols
      ? [few(protocols.map(([a, b]) => (a === b ? proto(Number(a)) : `protocols ${a}–${b}`)))]
      : []),
    ...(dport ? [`port ${numbers(dport)}`] : []),
    ...(sport ? [`source port ${numbers(sport)}`] : []),
    ...(day ? [`on ${few(day.flatMap(([a, b]) => dayNames.slice(Number(a), Number(b) + 1)))}`] : []),
    ...(second
      ? [`between ${few(second.map(([a, b]) => `${clock(Number(a))} and ${clock(Number(b) + 1)}`))}`]
      : []),
    ...(c.state === 'new' ? [] : [stateWords(c.state)]),
    ...(c.above ? ['above its rate'] : []),
  ].join(', ');
}

/** Days of the week from Sunday. */
export const dayNames = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'];
const clock = (s: number): string =>
  `${String(Math.floor(s / 3600) % 24).padStart(2, '0')}:${String(Math.floor(s / 60) % 60).padStart(2, '0')}`;

/** Hours as they are said. */
export const hoursWords = (h: Hours): string =>
  `${clock(h.from * 60)} to ${clock(h.to * 60)}${h.days.length === 0 || h.days.length === 7 ? '' : `, ${list(h.days.map((d) => dayNames[d]?.slice(0, 2) ?? ''))}`}`;

/** A change that mends a promise, as what is pressed. */
export function mendWords(plan: GatePlan, m: Mend): string {
  const name = (id: string): string => {
    const p = plan.permits.find((q) => q.id === id);
    return p ? p.name || permitWords(plan, p) : id;
  };
  switch (m.kind) {
    case 'permit off':
      return `Let it no longer: ${name(m.permit)}`;
    case 'permit narrowed':
      return `Name what for: ${servicesWords(plan, m.services)}`;
    case 'permit added':
      return `Let it in: ${permitWords(plan, m.permit)}`;
    case 'forward off':
      return `Forward it no longer: ${plan.forwards.find((f) => f.id === m.forward)?.name ?? m.forward}`;
    case 'sources checked':
      return 'Drop addresses that cannot be where they come from';
  }
}

const ASK: Record<AskFault, string> = {
  'no such way in': 'No port or zone of that name is in the plan.',
  'families mixed': 'Source and destination are not of one family: IPv4 speaks to IPv4, IPv6 to IPv6.',
  'ICMP of the other family': 'ICMP goes with IPv4, ICMPv6 with IPv6.',
  'no address of its own': 'The gate has no address there.',
};
/** Why a packet cannot be asked about. */
export const askFaultWords = (f: AskFault): string => ASK[f];

/** What is wrong with rules. */
export function gateFaultWords(f: GateFault): string {
  switch (f.code) {
    case 'not judged':
      return `The rules have ${plural(f.permits, 'permit')}: more than are judged by the way. Open them before you give them away.`;
    case 'no outside':
      return 'No zone of the gate lies outside.';
    case 'no inside':
      return 'No zone of the gate lies inside.';
    case 'zone without port':
      return `No port leads to ${f.zone}.`;
    case 'port twice':
      return `${f.port} is there twice. A wire that several networks share has a number for each.`;
    case 'port without network':
      return `${f.port} leads to ${f.zone}, and no network with a prefix is said to lie there.`;
    case 'networks overlap':
      return `${list(f.networks)} share addresses: the gate cannot tell where to send them.`;
    case 'not there':
      return `“${f.what}” names “${f.missing}”, which is no longer there.`;
    case 'empty set':
      return `“${f.set}” holds no address: what names it meets nobody.`;
    case 'set of one family':
      return `“${f.permit}” has IPv4 on one side and IPv6 on the other: it meets no packet.`;
    case 'forward twice':
      return `${list(f.forwards)} want the same port: the first one gets it.`;
    case 'forward to nowhere':
      return `“${f.forward}” leads to ${f.to}, which lies behind no port of the gate.`;
    case 'forward of the page':
      return `“${f.forward}” opens the gate’s own page, port ${f.port}, to the outside.`;
    case 'no seat':
      return 'From where the gate is looked after was not said, so that nobody is kept from locking themselves out.';
    case 'locked out':
      return `Whoever sits in ${f.zone} would no longer reach the gate at port ${f.port}. The rules are not given away like that.`;
    case 'seat not told':
      return `Whether ${f.zone} still reaches the gate at port ${f.port} hangs on a part that is not understood.`;
    case 'promises broken':
      return f.broken === 1
        ? 'The rules break a promise you made. They are not given away until it holds.'
        : `The rules break ${f.broken} of ${f.of} promises. They are not given away until all hold.`;
    case 'promises not told':
      return `Of ${plural(f.open, 'promise')} nothing can be said, because rules have parts that are not understood.`;
    case 'rules without work':
      return `No packet ever comes to: ${list(f.rules)}.`;
    case 'hours by the clock':
      return `“${f.permit}” holds by the gate’s clock at the moment it is loaded: load it again when summer time begins and ends.`;
    case 'nothing promised':
      return 'Nothing is promised of these rules, so that nothing can be proven.';
    case 'too many classes':
      return 'The rules cross each other so often that they cannot be held in memory whole. Ask single packets.';
  }
}

/** The finding at the head of the sheet. */
export function gateHeadline(
  plan: GatePlan,
  box: string,
  kept: readonly Kept[] | null,
  hosts: readonly Host[] = [],
): string {
  if (plan.zones.length === 0) return `What may talk to what through ${box}?`;
  if (!kept) return `Rules of ${box}`;
  const broken = kept.filter((k) => k.verdict === 'fails');
  const [first] = broken;
  if (first)
    return broken.length === 1
      ? `One promise fails: ${first.packet && first.walk ? brokenWords(plan, first.packet, first.walk, hosts) : lower(promiseWords(plan, first.promise))}`
      : `${broken.length} promises fail`;
  const open = kept.filter((k) => k.verdict === 'cannot say').length;
  if (open > 0) return `Of ${plural(open, 'promise')} nothing can be said`;
  if (kept.length === 0) return 'Nothing is promised yet';
  return kept.length === 1
    ? 'The promise holds'
    : `All ${kept.length} promises hold, over every packet there can be`;
}
/** What a packet that breaks a promise does, by the names of hosts. */
function brokenWords(plan: GatePlan, p: NumberedPacket, walk: Walk, hosts: readonly Host[]): string {
  const to = formatPlace(walk.translated?.daddr ?? p.daddr);
  const name = hosts.find((h) => h.address === to || h.address6 === to)?.name ?? to;
  const through = walk.end === 'passes' ? 'gets through' : 'is kept out';
  return `${kindWords(p)} from ${fromWords(plan, p.iif)} to ${name} ${through}`;
}
const lower = (t: string): string => t.charAt(0).toLowerCase() + t.slice(1);

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

const FORMS: Record<GateForm, string> = {
  rollback: 'a script that loads them, with a way back',
  nft: 'rules for nftables',
  dnsmasq: 'names and addresses for dnsmasq',
  sysctl: 'settings of the kernel',
  md: 'a page to read',
};
/** What a form is for. */
export const gateFormWords = (f: GateForm): string => FORMS[f];

/** How many packets a line of pace stands for. */
export const paceLineWords = (l: PaceLine): string =>
  `${l.packetBytes > 1000 ? 'Full packets' : 'Small packets'}, ${l.packetBytes} bytes${l.encrypted ? ', enciphered' : ''}`;
const BOUNDS: Record<PaceLine['bound'], string> = {
  wire: 'the wire holds it back',
  processor: 'the processor may hold it back',
  'not known': 'processor or port not known',
};
/** What holds it back. */
export const boundWords = (b: PaceLine['bound']): string => BOUNDS[b];
/** Bits a second as they are said: Mb/s up to a thousand. */
export const bitsWords = (bits: number): string =>
  bits >= 1e9 ? `${(bits / 1e9).toFixed(bits >= 1e10 ? 0 : 2)} Gb/s` : `${Math.round(bits / 1e6)} Mb/s`;

const READS: Record<'not JSON' | 'no ruleset' | 'too large', string> = {
  'not JSON':
    'That is not JSON. Let the gate print its rules with: nft -j list ruleset. Nothing was changed here.',
  'no ruleset': 'That is JSON, and not what “nft -j list ruleset” prints. Nothing was changed here.',
  'too large': 'That is more than 64 MiB. Nothing was changed here.',
};
/** Why rules of a gate could not be read. */
export const nftReadWords = (why: 'not JSON' | 'no ruleset' | 'too large'): string => READS[why];

/** Where a forwarded port leads. */
export const forwardWords = (f: Forward): string =>
  `${f.protocol} ${f.ports[0] === f.ports[1] ? f.ports[0] : f.ports.join('-')} → ${f.to}${f.toPort === null ? '' : ` ${f.toPort}`}`;

/** From where a gate is looked after. */
export function seatWords(plan: GatePlan): string {
  const { seat } = plan;
  if (!seat) return 'Not said yet.';
  return `${zoneWords(plan, seat.zone)}${seat.address === null ? '' : `, ${seat.address}`}, over TCP ${list(seat.ports.map(String))}.`;
}

/** How one finds out which socket is which: what to do, and what to type (ethtool(8), ip-link(8)). */
export function socketSteps(plan: GatePlan): { says: string; types: string }[] {
  const devices = [...new Set(plan.ports.map((p) => p.device))];
  return [
    {
      says: 'Many sockets blink when they are asked to:',
      types: devices.map((d) => `ethtool -p ${d} 10`).join('; '),
    },
    { says: 'Else leave one cable in, and see which has a carrier:', types: 'ip -br link' },
    {
      says: 'Write it down before the next cable goes in, with the hardware address that stands there.',
      types: '',
    },
  ];
}

/** What is noted when rules were given away. */
export const givenWords = (r: GateReport): string =>
  `rules given to the gate; ${r.kept.filter((k) => k.verdict === 'holds').length} of ${plural(r.kept.length, 'promise')} hold over every packet`;
