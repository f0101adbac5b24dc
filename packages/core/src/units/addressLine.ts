import { formatIp, parseIp, type Family, type Ip } from './ip';
import { firstOf, lastOf, parsePrefix } from './prefix';
import { inSpans, joinSpans, lessSpans, point, type Spans } from './spans';

/**
 * Addresses of both families on one line, so that the family of a packet follows from its address: IPv4 first, IPv6 behind
 * it, and at the end the two that the line gives to the gate, which nobody knows beforehand.
 */
const SIX = 1n << 32n;
const OWN_4 = SIX + (1n << 128n);
/** The highest place on the line. */
export const ADDRESS_END = OWN_4 + 1n;

/** The address that the line gives the gate, of a family, where none was set by hand. */
export const lineAddress = (family: Family): bigint => (family === 4 ? OWN_4 : OWN_4 + 1n);

/** Every address of a family, with the one the line gives. */
export const familySpans = (family: Family): Spans =>
  family === 4
    ? joinSpans([[0n, SIX - 1n]], point(OWN_4))
    : joinSpans([[SIX, OWN_4 - 1n]], point(OWN_4 + 1n));
const BOTH: Record<Family, Spans> = { 4: familySpans(4), 6: familySpans(6) };

/** The family an address on the line is of. */
export const familyAt = (at: bigint): Family => (inSpans(BOTH[4], at) ? 4 : 6);

/** An address as its place on the line. */
export const placeOf = (ip: Ip): bigint => (ip.family === 4 ? ip.value : SIX + ip.value);

/** What an address of a gate is called where the line gives it. */
export const FROM_THE_LINE = 'from the line';

/** A place on the line as it is written; the two that nobody knows have words. */
export function formatPlace(at: bigint): string {
  if (at >= OWN_4) return FROM_THE_LINE;
  return at < SIX ? formatIp({ family: 4, value: at }) : formatIp({ family: 6, value: at - SIX });
}

const read = new Map<string, readonly [bigint, bigint] | undefined>();
const MOST_READ = 20_000;

/** “192.0.2.0/24”, “192.0.2.1-192.0.2.9” or one address as a range of places; undefined where it is none. The same texts come again and again. */
export function placesOf(text: string): readonly [bigint, bigint] | undefined {
  if (read.has(text)) return read.get(text);
  if (read.size >= MOST_READ) read.clear();
  const found = placesIn(text);
  read.set(text, found);
  return found;
}

function placesIn(text: string): readonly [bigint, bigint] | undefined {
  const [low = '', high, ...more] = text.split('-');
  if (more.length > 0) return undefined;
  if (high !== undefined) {
    const a = parseIp(low);
    const b = parseIp(high);
    return a && b && a.family === b.family && a.value <= b.value ? [placeOf(a), placeOf(b)] : undefined;
  }
  const prefix = parsePrefix(text);
  if (prefix) return [placeOf(firstOf(prefix)), placeOf(lastOf(prefix))];
  const ip = parseIp(text);
  return ip && [placeOf(ip), placeOf(ip)];
}

/** Texts of addresses, ranges and prefixes as spans; those that are none are passed over, because the model let none in. */
export const addressSpans = (texts: Iterable<string>): Spans =>
  joinSpans(
    ...[...texts].map((t): Spans => {
      const found = placesOf(t);
      return found ? [found] : [];
    }),
  );

/** The part of spans that is of a family. */
export const ofFamily = (spans: Spans, family: Family): Spans => lessSpans(spans, BOTH[family === 4 ? 6 : 4]);

/** A range of places of one family as few texts: an address, a prefix, or a range. */
export function formatRange([from, to]: readonly [bigint, bigint]): string {
  if (from === to) return formatPlace(from);
  const count = to - from + 1n;
  const offset = from >= SIX ? from - SIX : from;
  if ((count & (count - 1n)) === 0n && offset % count === 0n) {
    const width = from >= SIX ? 128 : 32;
    return `${formatPlace(from)}/${width - (count.toString(2).length - 1)}`;
  }
  return `${formatPlace(from)}-${formatPlace(to)}`;
}
