import { addressSpans, familySpans } from '../../units/addressLine';
import { joinSpans, lessSpans, point, range, type Spans } from '../../units/spans';
import { icmpTypes, PROTOCOL } from '../protocols';
import type { Field } from '../ruleset';

/** A value of libnftables-json(5) as JSON gives it. */
export type Json = unknown;

const isRecord = (v: Json): v is Record<string, Json> =>
  typeof v === 'object' && v !== null && !Array.isArray(v);
/** A member of an object; undefined where it is none. */
export const member = (v: Json, key: string): Json => (isRecord(v) ? v[key] : undefined);

/** Names of ICMP types as nft prints them (nft(8), “ICMP Type Type”, “ICMPv6 Type Type”). */
const ICMP4: Record<string, number> = {
  'echo-reply': 0,
  'destination-unreachable': 3,
  'source-quench': 4,
  redirect: 5,
  'echo-request': 8,
  'router-advertisement': 9,
  'router-solicitation': 10,
  'time-exceeded': 11,
  'parameter-problem': 12,
  'timestamp-request': 13,
  'timestamp-reply': 14,
  'info-request': 15,
  'info-reply': 16,
  'address-mask-request': 17,
  'address-mask-reply': 18,
};
const ICMP6: Record<string, number> = {
  'destination-unreachable': 1,
  'packet-too-big': 2,
  'time-exceeded': 3,
  'parameter-problem': 4,
  'echo-request': 128,
  'echo-reply': 129,
  'mld-listener-query': 130,
  'mld-listener-report': 131,
  'mld-listener-done': 132,
  'mld-listener-reduction': 132,
  'nd-router-solicit': 133,
  'nd-router-advert': 134,
  'nd-neighbor-solicit': 135,
  'nd-neighbor-advert': 136,
  'nd-redirect': 137,
  'router-renumbering': 138,
  'ind-neighbor-solicit': 141,
  'ind-neighbor-advert': 142,
  'mld2-listener-report': 143,
};
const PROTOCOLS: Record<string, number> = { ...PROTOCOL, 'ipv6-icmp': 58, igmp: 2, esp: 50, ah: 51, gre: 47 };
const DAYS = ['sunday', 'monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday'];

/** How a single value of a field is read; undefined where it is none. */
type Reader = (v: Json) => bigint | undefined;

const number: Reader = (v) =>
  typeof v === 'number' && Number.isInteger(v) && v >= 0 ? BigInt(v) : undefined;
const named =
  (names: Record<string, number>): Reader =>
  (v) => {
    const n = typeof v === 'string' ? names[v] : undefined;
    return n === undefined ? number(v) : BigInt(n);
  };
const clock: Reader = (v) => {
  const parts = typeof v === 'string' ? /^(\d\d):(\d\d)(?::(\d\d))?$/.exec(v) : null;
  if (!parts) return number(v);
  return BigInt(Number(parts[1]) * 3600 + Number(parts[2]) * 60 + Number(parts[3] ?? 0));
};
const day: Reader = (v) => {
  const i = typeof v === 'string' ? DAYS.indexOf(v.toLowerCase()) : -1;
  return i >= 0 ? BigInt(i) : number(v);
};
const address: Reader = (v) => (typeof v === 'string' ? addressSpans([v])[0]?.[0] : undefined);

/** What a match looks at: the field, what it takes for granted, how its values read. */
export interface Look {
  field: Field;
  /** What every packet that meets it is, also where it is turned round. */
  given: Partial<Record<Field, Spans>>;
  all: Spans;
  one: Reader;
  /** A type of ICMP stands for all its codes. */
  types?: boolean;
  /** Ports of whatever carries any: the protocol must be said beside it. */
  anyPorts?: boolean;
}

const PORTS = range(0, 65_535);
const of4 = familySpans(4);
const of6 = familySpans(6);

function payload(protocol: Json, field: Json): Look | undefined {
  const proto = typeof protocol === 'string' ? PROTOCOLS[protocol] : undefined;
  if (field === 'sport' || field === 'dport') {
    if (protocol === 'th') return { field, given: {}, all: PORTS, one: number, anyPorts: true };
    return proto === undefined
      ? undefined
      : { field, given: { proto: point(proto) }, all: PORTS, one: number };
  }
  if ((protocol === 'ip' || protocol === 'ip6') && (field === 'saddr' || field === 'daddr')) {
    const all = protocol === 'ip' ? of4 : of6;
    return { field, given: { saddr: all, daddr: all }, all, one: address };
  }
  if ((protocol === 'ip' && field === 'protocol') || (protocol === 'ip6' && field === 'nexthdr')) {
    const all = protocol === 'ip' ? of4 : of6;
    return { field: 'proto', given: { saddr: all, daddr: all }, all: range(0, 255), one: named(PROTOCOLS) };
  }
  if (field === 'type' && (protocol === 'icmp' || protocol === 'icmpv6')) {
    const all = protocol === 'icmp' ? of4 : of6;
    return {
      field: 'dport',
      given: { proto: point(PROTOCOL[protocol]), saddr: all, daddr: all },
      all: PORTS,
      one: named(protocol === 'icmp' ? ICMP4 : ICMP6),
      types: true,
    };
  }
  return undefined;
}

/** What the left side of a match looks at, where that is a field of the packet; undefined where it is not understood. */
export function lookOf(left: Json): Look | undefined {
  const p = member(left, 'payload');
  if (p !== undefined) return payload(member(p, 'protocol'), member(p, 'field'));
  switch (member(member(left, 'meta'), 'key')) {
    case 'l4proto':
      return { field: 'proto', given: {}, all: range(0, 255), one: named(PROTOCOLS) };
    case 'hour':
      return { field: 'second', given: {}, all: range(0, 86_399), one: clock };
    case 'day':
      return { field: 'day', given: {}, all: range(0, 6), one: day };
    default:
      return undefined;
  }
}

/** A value without what a set keeps beside it. */
export const bare = (v: Json): Json => {
  const elem = member(v, 'elem');
  return elem === undefined ? v : member(elem, 'val');
};

/** One value of a field, or a range or prefix of them. */
function oneValue(look: Look, given: Json): Spans | undefined {
  const v = bare(given);
  const r = member(v, 'range');
  if (Array.isArray(r)) {
    const [a, b] = [look.one(r[0]), look.one(r[1])];
    if (a === undefined || b === undefined) return undefined;
    // Hours may run past midnight.
    return look.field === 'second' && a > b ? joinSpans([[a, 86_399n]], [[0n, b]]) : wide(look, a, b);
  }
  const prefix = member(v, 'prefix');
  if (prefix !== undefined) {
    const text = `${String(member(prefix, 'addr'))}/${String(member(prefix, 'len'))}`;
    const found = addressSpans([text]);
    return found.length > 0 && (look.field === 'saddr' || look.field === 'daddr') ? found : undefined;
  }
  const n = look.one(v);
  return n === undefined ? undefined : wide(look, n, n);
}

const wide = (look: Look, a: bigint, b: bigint): Spans | undefined =>
  a > b ? undefined : look.types === true ? icmpTypes([Number(a), Number(b)]) : [[a, b]];

/** Values on the right side of a match as ranges; undefined where one is not understood. */
export function spansFrom(
  look: Look,
  right: Json,
  set: (name: string) => readonly Json[] | undefined,
): Spans | undefined {
  const list =
    typeof right === 'string' && right.startsWith('@')
      ? set(right)
      : ((member(right, 'set') as Json[] | undefined) ?? (Array.isArray(right) ? right : [right]));
  if (!Array.isArray(list)) return undefined;
  const out: Spans[] = [];
  for (const v of list) {
    const spans = oneValue(look, v);
    if (!spans) return undefined;
    out.push(spans);
  }
  return joinSpans(...out);
}

/** Ranges turned by the operator of a match; undefined where it is not understood. */
export function byOperator(look: Look, op: Json, spans: Spans): Spans | undefined {
  const [first] = spans;
  switch (op) {
    case '==':
    case 'in':
      return spans;
    case '!=':
      return lessSpans(look.all, spans);
    case '<':
      return first && first[0] > 0n ? [[0n, first[0] - 1n]] : [];
    case '<=':
      return first && [[0n, first[1]]];
    case '>':
      return first && lessSpans(look.all, [[0n, first[1]]]);
    case '>=':
      return first && lessSpans(look.all, first[0] > 0n ? [[0n, first[0] - 1n]] : []);
    default:
      return undefined;
  }
}
