import { familyAt, familySpans } from '../units/addressLine';
import { sharedSpans, type Spans } from '../units/spans';
import { isUnknown } from './flatten';
import type { Node } from './forest';
import type { PacketState } from './ruleset';
import type { Universe } from './universe';
import type { NumberedPacket } from './walk';

/** A number of a range that reads well: a preferred one, else its first, or the second of a longer one, which is rarely a network's name. */
function pick([from, to]: readonly [bigint, bigint], liked: readonly bigint[]): bigint {
  const one = liked.find((n) => n >= from && n <= to);
  if (one !== undefined) return one;
  return to - from > 2n ? from + 1n : from;
}

/** Readable numbers for what a rule leaves open: TCP, a common source port, a day in the middle of the week at noon. */
const LIKED = {
  proto: [6n, 17n, 1n, 58n],
  sport: [40_000n, 0n],
  dport: [445n, 443n, 80n, 22n, 2048n, 32_768n],
  day: [3n],
  second: [43_200n],
} as const;

/** Boxes looked at for one that reads well. */
const MOST_LOOKED = 400;

/** One packet of a set, such as reads well; null where the set is empty. `liked`: addresses to take where they are in it; `most`: so many classes are looked at. */
export function sampleOf(
  universe: Universe,
  set: Node,
  state: PacketState,
  liked: readonly bigint[],
  most = MOST_LOOKED,
): NumberedPacket | null {
  let best: NumberedPacket | null = null;
  let least = Infinity;
  let looked = 0;
  for (const { box } of universe.forest.each(set, (v) => v === 1)) {
    const found = packetOf(universe.ranges(box), state, liked);
    if (!found) continue;
    const odd = oddness(found, liked);
    if (odd < least) [best, least] = [found, odd];
    if (least === 0 || (looked += 1) > most) break;
  }
  return best;
}

/** How strange a packet looks: of no usual protocol, between addresses nobody knows. */
function oddness(p: NumberedPacket, liked: readonly bigint[]): number {
  const protocol = p.proto === 6 ? 0 : p.proto === 17 ? 1 : p.proto === 1 || p.proto === 58 ? 2 : 8;
  const known = [p.saddr, p.daddr].filter((a) => liked.includes(a)).length;
  return protocol + (liked.length > 0 ? 2 - known : 0) * 3 + (familyAt(p.daddr) === 6 ? 1 : 0);
}

function packetOf(
  { iif, spans, flags }: ReturnType<Universe['ranges']>,
  state: PacketState,
  liked: readonly bigint[],
): NumberedPacket | undefined {
  const entry = iif[0];
  const both = familyPair(spans.saddr, spans.daddr);
  if (entry === undefined || !both) return undefined;
  const proto = Number(pick(spans.proto, familyAt(both.daddr[0]) === 6 ? [6n, 17n, 58n] : LIKED.proto));
  return {
    iif: entry,
    saddr: pick(both.saddr, liked),
    daddr: pick(both.daddr, liked),
    proto,
    sport: Number(pick(spans.sport, LIKED.sport)),
    dport: Number(pick(spans.dport, LIKED.dport)),
    state,
    day: Number(pick(spans.day, LIKED.day)),
    second: Number(pick(spans.second, LIKED.second)),
    over: new Set(flags.off.filter((f) => !isUnknown(f)).map((f) => f.slice('rate '.length))),
    matches: new Set(flags.on.filter(isUnknown).map((f) => f.slice('unknown '.length))),
  };
}

/** Two ranges cut to one family. */
function familyPair(
  saddr: readonly [bigint, bigint],
  daddr: readonly [bigint, bigint],
): { saddr: readonly [bigint, bigint]; daddr: readonly [bigint, bigint] } | undefined {
  for (const family of [4, 6] as const) {
    const all: Spans = familySpans(family);
    const s = sharedSpans([saddr], all)[0];
    const d = sharedSpans([daddr], all)[0];
    if (s && d) return { saddr: s, daddr: d };
  }
  return undefined;
}
