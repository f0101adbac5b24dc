import ipaddr from 'ipaddr.js';

/** IPv4 or IPv6. */
export type Family = 4 | 6;

/** One address as a number: 32 bits for IPv4, 128 for IPv6. */
export interface Ip {
  family: Family;
  value: bigint;
}

/** Bits of an address of a family. */
export const widthOf = (family: Family): 32 | 128 => (family === 4 ? 32 : 128);

const BYTE = 8n;
const valueOf = (bytes: readonly number[]): bigint =>
  bytes.reduce((sum, byte) => (sum << BYTE) | BigInt(byte), 0n);

/** Letters of addresses, of which none is longer (RFC 4291 §2.2, form 3). */
const LETTERS = /^[\da-fA-F:.]{2,45}$/;

/**
 * An address as it is written: four decimal numbers without leading zeros (RFC 6943 §3.1.1, the strict form), or an IPv6
 * address (RFC 4291 §2.2) without a zone; undefined where it is neither.
 */
export function parseIp(text: string): Ip | undefined {
  const plain = text.trim();
  // What has other letters is neither, and is told apart without asking the library, which takes its time.
  if (!LETTERS.test(plain)) return undefined;
  if (ipaddr.IPv4.isValidFourPartDecimal(plain))
    return { family: 4, value: valueOf(ipaddr.IPv4.parse(plain).toByteArray()) };
  if (!plain.includes(':') || !ipaddr.IPv6.isValid(plain)) return undefined;
  return { family: 6, value: valueOf(ipaddr.IPv6.parse(plain).toByteArray()) };
}

/** An address in its one canonical form (RFC 5952 for IPv6). */
export function formatIp({ family, value }: Ip): string {
  const length = widthOf(family) / 8;
  const bytes = Array.from({ length }, (_, i) => Number((value >> BigInt(8 * (length - 1 - i))) & 0xffn));
  return family === 4 ? new ipaddr.IPv4(bytes).toString() : new ipaddr.IPv6(bytes).toRFC5952String();
}

/** The address in its canonical form; undefined where it is none, or not of the family. */
export function canonicalIp(text: string, family?: Family): string | undefined {
  const ip = parseIp(text);
  return ip && (family === undefined || ip.family === family) ? formatIp(ip) : undefined;
}

/** Below zero where `a` comes before `b`; IPv4 before IPv6. */
export const compareIps = (a: Ip, b: Ip): number =>
  a.family - b.family || (a.value < b.value ? -1 : a.value > b.value ? 1 : 0);

/** The address some places further on; it must stay within the family. */
export const ipAfter = (ip: Ip, by: number | bigint): Ip => ({ ...ip, value: ip.value + BigInt(by) });
