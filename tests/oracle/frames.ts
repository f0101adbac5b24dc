/**
 * Packets as bytes, made by hand: IPv4 (RFC 791), IPv6 (RFC 8200), TCP (RFC 9293), UDP (RFC 768), ICMP (RFC 792), ICMPv6
 * (RFC 4443), each with its checksum (RFC 1071), because a tracker takes no other for real. Every packet carries its number: in
 * the identification of IPv4, in the flow label of IPv6.
 */
import { familyAt } from '@zb/core/units/addressLine';
import type { NumberedPacket } from '@zb/core/rules/walk';

const SIX = 1n << 32n;
const bytesOf = (value: bigint, length: number): number[] =>
  Array.from({ length }, (_, i) => Number((value >> BigInt(8 * (length - 1 - i))) & 0xffn));
const two = (n: number): number[] => [(n >> 8) & 255, n & 255];
const four = (n: number): number[] => [(n >>> 24) & 255, (n >>> 16) & 255, (n >>> 8) & 255, n & 255];

/** An address of the line as its bytes. */
export const addressBytes = (at: bigint): number[] =>
  familyAt(at) === 4 ? bytesOf(at, 4) : bytesOf(at - SIX, 16);

/** Ones' complement sum (RFC 1071). */
function checksum(bytes: readonly number[]): number {
  let sum = 0;
  for (let i = 0; i < bytes.length; i += 2) sum += ((bytes[i] ?? 0) << 8) | (bytes[i + 1] ?? 0);
  while (sum > 0xffff) sum = (sum & 0xffff) + (sum >>> 16);
  return ~sum & 0xffff;
}

/** TCP flags. */
export const FLAG = { syn: 0x02, ack: 0x10 } as const;

export interface Wire {
  saddr: bigint;
  daddr: bigint;
  proto: number;
  sport: number;
  dport: number;
  /** Its number, 1 to 65535. */
  tag: number;
  flags?: number;
  sequence?: number;
  acknowledges?: number;
  /** What an ICMP error is about: the packet it quotes. */
  quotes?: readonly number[];
}

function transport(w: Wire): number[] {
  const { proto, sport, dport } = w;
  const payload = w.quotes ?? [...four(0x5a426f78), ...four(w.tag)];
  if (proto === 6)
    return [
      ...two(sport),
      ...two(dport),
      ...four(w.sequence ?? 1),
      ...four(w.acknowledges ?? 0),
      0x50,
      w.flags ?? FLAG.syn,
      ...two(8192),
      0,
      0,
      0,
      0,
    ];
  if (proto === 17) return [...two(sport), ...two(dport), ...two(8 + payload.length), 0, 0, ...payload];
  // Echo has an identifier of its own; an error four bytes of nothing, or the size that would have fitted.
  if (proto === 1 || proto === 58)
    return [
      dport >> 8,
      dport & 255,
      0,
      0,
      ...(w.quotes ? four(proto === 58 ? 1280 : 0) : [...two(w.tag), 0, 1]),
      ...payload,
    ];
  return [...payload];
}

const AT: Record<number, number> = { 6: 16, 17: 6, 1: 2, 58: 2 };

/** The packet from its IP header on. */
export function packetBytes(w: Wire): number[] {
  const source = addressBytes(w.saddr);
  const target = addressBytes(w.daddr);
  const body = transport(w);
  const at = AT[w.proto];
  if (at !== undefined) {
    const pseudo =
      w.proto === 1
        ? []
        : source.length === 4
          ? [...source, ...target, 0, w.proto, ...two(body.length)]
          : [...source, ...target, ...four(body.length), 0, 0, 0, w.proto];
    const sum = checksum([...pseudo, ...body]);
    body.splice(at, 2, ...two(sum === 0 && w.proto === 17 ? 0xffff : sum));
  }
  if (source.length === 16)
    return [
      0x60,
      (w.tag >>> 16) & 15,
      ...two(w.tag & 0xffff),
      ...two(body.length),
      w.proto,
      64,
      ...source,
      ...target,
      ...body,
    ];
  const head = [
    0x45,
    0,
    ...two(20 + body.length),
    ...two(w.tag),
    0x40,
    0,
    64,
    w.proto,
    0,
    0,
    ...source,
    ...target,
  ];
  head.splice(10, 2, ...two(checksum(head)));
  return [...head, ...body];
}

/** A packet of the model on the wire. */
export const wireOf = (p: NumberedPacket, tag: number): Wire => ({
  saddr: p.saddr,
  daddr: p.daddr,
  proto: p.proto,
  sport: p.sport,
  dport: p.dport,
  tag,
});

/** Hexadecimal of bytes. */
export const hex = (bytes: readonly number[]): string =>
  bytes.map((b) => b.toString(16).padStart(2, '0')).join('');

const read = (text: string, at: number, length: number): bigint =>
  BigInt(`0x0${text.slice(2 * at, 2 * (at + length))}`);

/** What a frame that was heard says of itself. */
export interface Heard {
  tag: number;
  proto: number;
  saddr: bigint;
  daddr: bigint;
  sport: number;
  dport: number;
}

/** Reads a frame that was heard, from its IP header on. */
export function heardOf(text: string): Heard {
  const six = text.startsWith('6');
  const proto = Number(read(text, six ? 6 : 9, 1));
  const at = six ? 40 : 4 * Number(read(text, 0, 1) & 15n);
  const icmp = proto === 1 || proto === 58;
  return {
    tag: six ? Number(read(text, 1, 3) & 0xfffffn) : Number(read(text, 4, 2)),
    proto,
    saddr: six ? SIX + read(text, 8, 16) : read(text, 12, 4),
    daddr: six ? SIX + read(text, 24, 16) : read(text, 16, 4),
    sport: icmp ? 0 : Number(read(text, at, 2)),
    dport: Number(read(text, at + (icmp ? 0 : 2), 2)),
  };
}
