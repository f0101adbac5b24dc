import type { GatePlan } from '../model/gate';
import type { AskFault } from '../rules/ask';
import type { Changed } from '../rules/compare';
import type { Fate } from '../rules/flatten';
import { PROTOCOL, protocolName } from '../rules/protocols';
import type { PacketState, Rule, Ruleset, UsualRule } from '../rules/ruleset';
import { zoneOfInterface } from '../rules/topology';
import type { Differs, NumberedPacket, Walk } from '../rules/walk';
import { formatPlace, formatRange } from '../units/addressLine';
import { zoneWords, permitWords, dayNames, clock } from './gatePlan';
import { list } from './text';

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
  'leaves as the gate': 'IPv4 leaves under the gate’s own address',
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

const ASK: Record<AskFault, string> = {
  'no such way in': 'No port or zone of that name is in the plan.',
  'families mixed': 'Source and destination are not of one family: IPv4 speaks to IPv4, IPv6 to IPv6.',
  'ICMP of the other family': 'ICMP goes with IPv4, ICMPv6 with IPv6.',
  'no address of its own': 'The gate has no address there.',
};

/** Why a packet cannot be asked about. */
export const askFaultWords = (f: AskFault): string => ASK[f];
