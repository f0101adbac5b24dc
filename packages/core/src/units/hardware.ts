import type { Ip } from './ip';
import type { Prefix } from './prefix';

const PAIRS = /^[\da-f]{1,2}([:-])(?:[\da-f]{1,2}\1){4}[\da-f]{1,2}$/i;
const DOTTED = /^[\da-f]{4}\.[\da-f]{4}\.[\da-f]{4}$/i;
const BARE = /^[\da-f]{12}$/i;

/**
 * A hardware address of 48 bits (IEEE 802, EUI-48) as “02:00:5e:10:00:01”, from any of the manners it is written in; undefined
 * where it is none. Some tools leave leading zeros out.
 */
export function canonicalHardware(text: string): string | undefined {
  const plain = text.trim().toLowerCase();
  const digits = PAIRS.test(plain)
    ? plain
        .split(/[:-]/)
        .map((pair) => pair.padStart(2, '0'))
        .join('')
    : DOTTED.test(plain) || BARE.test(plain)
      ? plain.replaceAll('.', '')
      : '';
  return digits === '' ? undefined : (digits.match(/../g) ?? []).join(':');
}

/** The six bytes of a canonical hardware address. */
export const hardwareBytes = (hardware: string): number[] =>
  hardware.split(':').map((pair) => Number.parseInt(pair, 16));

/** Made up by software rather than by who built the card, so that it may change (IEEE 802, the second lowest bit of the first byte). */
export const isMadeUp = (hardware: string): boolean => ((hardwareBytes(hardware)[0] ?? 0) & 2) !== 0;

/** Of several receivers, never of one card (IEEE 802, the lowest bit of the first byte), or all zero. */
export const isNoCard = (hardware: string): boolean =>
  ((hardwareBytes(hardware)[0] ?? 0) & 1) !== 0 || hardware === '00:00:00:00:00:00';

/** The address a card gives itself in a prefix of 64 bits where it makes it from its own (RFC 4291, appendix A). */
export function ownAddress6(prefix: Prefix, hardware: string): Ip {
  const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0] = hardwareBytes(hardware);
  const id = [a ^ 2, b, c, 0xff, 0xfe, d, e, f].reduce((sum, byte) => (sum << 8n) | BigInt(byte), 0n);
  return { family: 6, value: prefix.base | id };
}
