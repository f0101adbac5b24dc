import type { Ip } from '../units/ip';
import { holds, overlap, parsePrefix, type Prefix } from '../units/prefix';

/** What a range of addresses is set aside for; null where it is anybody's. */
export type RangeKind =
  | 'this host'
  | 'loopback'
  | 'private'
  | 'carrier'
  | 'link-local'
  | 'unique local'
  | 'documentation'
  | 'benchmark'
  | 'multicast'
  | 'reserved';

interface Range {
  prefix: Prefix;
  kind: RangeKind;
  source: string;
}

const range = (text: string, kind: RangeKind, source: string): Range => {
  const prefix = parsePrefix(text);
  if (!prefix) throw new RangeError(`${text} is no prefix`);
  return { prefix, kind, source };
};

/** The IANA registries of special-purpose addresses (RFC 6890), those that a small network can meet. */
const RANGES: readonly Range[] = [
  range('0.0.0.0/8', 'this host', 'RFC 1122 §3.2.1.3'),
  range('10.0.0.0/8', 'private', 'RFC 1918'),
  range('100.64.0.0/10', 'carrier', 'RFC 6598'),
  range('127.0.0.0/8', 'loopback', 'RFC 1122 §3.2.1.3'),
  range('169.254.0.0/16', 'link-local', 'RFC 3927'),
  range('172.16.0.0/12', 'private', 'RFC 1918'),
  range('192.0.2.0/24', 'documentation', 'RFC 5737'),
  range('192.168.0.0/16', 'private', 'RFC 1918'),
  range('198.18.0.0/15', 'benchmark', 'RFC 2544'),
  range('198.51.100.0/24', 'documentation', 'RFC 5737'),
  range('203.0.113.0/24', 'documentation', 'RFC 5737'),
  range('224.0.0.0/4', 'multicast', 'RFC 5771'),
  range('240.0.0.0/4', 'reserved', 'RFC 1112 §4'),
  range('::/128', 'this host', 'RFC 4291 §2.5.2'),
  range('::1/128', 'loopback', 'RFC 4291 §2.5.3'),
  range('2001:db8::/32', 'documentation', 'RFC 3849'),
  range('fc00::/7', 'unique local', 'RFC 4193'),
  range('fe80::/10', 'link-local', 'RFC 4291 §2.5.6'),
  range('ff00::/8', 'multicast', 'RFC 4291 §2.7'),
];

/** What an address is set aside for, with the standard that says so; undefined where it is anybody's. */
export const rangeOf = (ip: Ip): { kind: RangeKind; source: string } | undefined =>
  RANGES.find((r) => holds(r.prefix, ip));

/** What the whole of a prefix is set aside for; undefined where a part of it is anybody's, or something else. */
export const rangeOfPrefix = (prefix: Prefix): { kind: RangeKind; source: string } | undefined =>
  RANGES.find((r) => r.prefix.bits <= prefix.bits && overlap(r.prefix, prefix));

/**
 * A prefix of one's own for IPv6: fd, forty bits of chance, and which network of up to 65,536 it is (RFC 4193 §3.2). `chance`
 * gives five bytes.
 */
export function uniqueLocal(chance: readonly number[], subnet: number): Prefix {
  if (chance.length !== 5) throw new RangeError('five bytes of chance are needed');
  const id = [0xfd, ...chance].reduce((sum, byte) => (sum << 8n) | BigInt(byte & 0xff), 0n);
  return { family: 6, base: ((id << 16n) | BigInt(subnet & 0xffff)) << 64n, bits: 64 };
}
