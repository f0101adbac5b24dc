import { formatIp, parseIp, widthOf, type Family, type Ip } from './ip';

/** A range of addresses that share their first bits (RFC 4632 §3.1, RFC 4291 §2.3). */
export interface Prefix {
  family: Family;
  /** Its lowest address; all bits behind the prefix are zero. */
  base: bigint;
  bits: number;
}

const sizeBits = ({ family, bits }: Prefix): bigint => BigInt(widthOf(family) - bits);

/** How many addresses it holds. */
export const sizeOf = (p: Prefix): bigint => 1n << sizeBits(p);
/** Its lowest address. */
export const firstOf = (p: Prefix): Ip => ({ family: p.family, value: p.base });
/** Its highest address. */
export const lastOf = (p: Prefix): Ip => ({ family: p.family, value: p.base + sizeOf(p) - 1n });

/** The prefix of that length which an address lies in. */
export function prefixAround({ family, value }: Ip, bits: number): Prefix {
  const behind = BigInt(widthOf(family) - bits);
  return { family, base: (value >> behind) << behind, bits };
}

/** “192.0.2.7/24” as its address and its prefix; undefined where it is none. Bits behind the prefix may be set. */
export function parseInterface(text: string): { ip: Ip; prefix: Prefix } | undefined {
  const [address = '', length = '', ...more] = text.trim().split('/');
  const ip = parseIp(address);
  if (!ip || more.length > 0 || !/^(0|[1-9]\d{0,2})$/.test(length)) return undefined;
  const bits = Number(length);
  return bits > widthOf(ip.family) ? undefined : { ip, prefix: prefixAround(ip, bits) };
}

/** “192.0.2.0/24” as a prefix; undefined where it is none, or where bits behind the prefix are set. */
export function parsePrefix(text: string): Prefix | undefined {
  const found = parseInterface(text);
  return found && found.ip.value === found.prefix.base ? found.prefix : undefined;
}

/** A prefix as it is written. */
export const formatPrefix = (p: Prefix): string => `${formatIp(firstOf(p))}/${p.bits}`;

/** Whether an address lies in a prefix. */
export const holds = (p: Prefix, ip: Ip): boolean =>
  ip.family === p.family && ip.value >> sizeBits(p) === p.base >> sizeBits(p);

/** Whether two prefixes share an address; one then holds the other. */
export const overlap = (a: Prefix, b: Prefix): boolean =>
  a.bits <= b.bits ? holds(a, firstOf(b)) : holds(b, firstOf(a));

/** The mask of an IPv4 prefix, four numbers (RFC 950). */
export const maskOf = (bits: number): string =>
  formatIp({ family: 4, value: (0xffff_ffffn << BigInt(32 - bits)) & 0xffff_ffffn });

/** The prefix length of an IPv4 mask; undefined where its ones are not all in front. */
export function bitsOfMask(mask: string): number | undefined {
  const ip = parseIp(mask);
  if (ip?.family !== 4) return undefined;
  const bits = ip.value.toString(2).padStart(32, '0').replace(/0+$/, '');
  return bits.includes('0') ? undefined : bits.length;
}

/** The network's own address and its broadcast address, which no host may have; none in prefixes of 31 and 32 bits (RFC 3021). */
export const reservedEnds = (p: Prefix): { network: Ip; broadcast: Ip } | undefined =>
  p.family === 4 && p.bits < 31 ? { network: firstOf(p), broadcast: lastOf(p) } : undefined;

/** Whether a host may have the address, as far as the prefix alone tells. The first of an IPv6 prefix is the routers' own (RFC 4291 §2.6.1). */
export function isHostAddress(p: Prefix, ip: Ip): boolean {
  if (!holds(p, ip)) return false;
  const ends = reservedEnds(p);
  if (ends) return ip.value !== ends.network.value && ip.value !== ends.broadcast.value;
  return p.family === 4 || p.bits >= 127 || ip.value !== p.base;
}
