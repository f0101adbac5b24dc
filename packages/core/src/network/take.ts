import { blankHost, type Host, type Network } from '../model/network';
import { follows } from '../units/grammar';
import { parseIp } from '../units/ip';
import { formatPrefix, holds, parsePrefix, prefixAround } from '../units/prefix';
import { otherServersIn, type OtherServer } from './otherServer';
import { inPool, parsed } from './parsed';
import { rangeOf } from './ranges';
import type { NetworkReading, Sighting } from './read/sighting';

/** What a reading would change: hosts as they would be, new ones among them, and what it says of the network itself. */
export interface Taken {
  network: Network;
  hosts: Host[];
  /** Ids of hosts that were not there before. */
  fresh: string[];
  /** Ids of hosts that are known, and were seen somewhere else than they are written down. */
  elsewhere: string[];
  /** Sightings that lie in no network of ours. */
  strangers: Sighting[];
  /** Signs that a second DHCP server is on the wire. */
  otherServers: OtherServer[];
  /** Nothing told how long the prefix is: it was taken to be the usual one around the addresses. */
  guessed: boolean;
}

/** Sightings of one card, or of one address where no card was told, together. */
function gathered(sightings: readonly Sighting[]): Sighting[][] {
  const groups: Sighting[][] = [];
  const byCard = new Map<string, Sighting[]>();
  const byAddress = new Map<string, Sighting[]>();
  // Those with a card come first, so that a list of names finds the card of its address.
  for (const s of [...sightings].sort((a, b) => Number(b.hardware !== null) - Number(a.hardware !== null))) {
    const there =
      (s.hardware === null ? undefined : byCard.get(s.hardware)) ??
      (s.address !== null && (s.hardware === null || !byAddress.get(s.address)?.[0]?.hardware)
        ? byAddress.get(s.address)
        : undefined);
    const group = there ?? [];
    if (!there) groups.push(group);
    group.push(s);
    if (s.hardware !== null) byCard.set(s.hardware, group);
    if (s.address !== null && !byAddress.has(s.address)) byAddress.set(s.address, group);
  }
  return groups;
}

const family = (s: Sighting): 4 | 6 | undefined =>
  s.address === null ? undefined : parseIp(s.address)?.family;

/** How a host has its address, by what was seen of it; what was said before and is no guess stays. */
function mannerOf(before: Host['manner'], seen: readonly Sighting[], network: Network): Host['manner'] {
  if (seen.some((s) => s.seen === 'reservation')) return 'reservation';
  if (before !== 'not known') return before;
  if (seen.some((s) => s.seen === 'lease' || (s.seen === 'own' && s.dynamic === true))) return 'pool';
  if (seen.some((s) => s.seen === 'own' && s.dynamic === false)) return 'fixed';
  const ip = seen.map((s) => s.address).map((a) => (a === null ? undefined : parseIp(a)));
  const outside =
    ip.some((x) => x?.family === 4) && ip.every((x) => x?.family !== 4 || !inPool(parsed(network), x));
  // Whoever answers outside of what is handed out was set there by hand, where it is known what is handed out.
  return network.pool !== null && outside && seen.some((s) => s.seen === 'neighbour') ? 'fixed' : 'not known';
}

const ORDER: Record<Sighting['seen'], number> = {
  own: 0,
  neighbour: 1,
  lease: 2,
  listed: 3,
  reservation: 4,
  written: 5,
};

function known(hosts: readonly Host[], seen: readonly Sighting[]): Host | undefined {
  const cards = new Set(seen.flatMap((s) => s.hardware ?? []));
  const addresses = new Set(seen.flatMap((s) => s.address ?? []));
  return (
    hosts.find((h) => h.hardware !== null && cards.has(h.hardware)) ??
    hosts.find(
      (h) =>
        h.address !== null &&
        addresses.has(h.address) &&
        // Another card at a known address is another host.
        (h.hardware === null || cards.size === 0),
    )
  );
}

/** What was seen together, put into a host that is known or new. */
function asHost(before: Host, seen: readonly Sighting[], network: Network, at: string, by: string): Host {
  const best = [...seen].sort((a, b) => ORDER[a.seen] - ORDER[b.seen]);
  const four = best.find((s) => family(s) === 4);
  const six = best.find((s) => family(s) === 6);
  const manner = mannerOf(before.manner, seen, network);
  const live = best.find((s) => s.seen === 'own' || s.seen === 'neighbour' || s.seen === 'lease');
  const kept = before.manner === 'reservation' || before.manner === 'fixed';
  const own = best.find((s) => s.seen === 'own' && family(s) === 4);
  const prefix = parsed(network).prefix;
  return {
    ...before,
    hardware: before.hardware ?? best.find((s) => s.hardware !== null)?.hardware ?? null,
    manner,
    // What somebody decided stays: where it was seen is said beside it.
    address: kept && before.address !== null ? before.address : (four?.address ?? before.address),
    address6: before.address6 ?? six?.address ?? null,
    manner6: before.manner6 ?? (six ? 'made by itself' : null),
    bits: own && own.bits !== null && prefix && own.bits !== prefix.bits ? own.bits : before.bits,
    port: before.port ?? (own?.port != null && follows('interface', own.port) ? own.port : null),
    leaseUntil: seen.find((s) => s.until !== null)?.until ?? before.leaseUntil,
    seen: live?.address != null ? { address: live.address, at, by } : before.seen,
  };
}

const nameOf = (seen: readonly Sighting[]): string =>
  seen.find((s) => s.name !== null)?.name ??
  seen.find((s) => s.address !== null)?.address ??
  seen[0]?.hardware ??
  '';

/** Home networks mostly have so many bits in front. Common practice, no source. */
const USUAL_BITS = 24;

/** The usual prefix around addresses of one's own, where all lie in the same one; null where they do not. */
function usualPrefix(sightings: readonly Sighting[]): string | null {
  const around = new Set(
    sightings.flatMap((s) => {
      const ip = s.address === null ? undefined : parseIp(s.address);
      return ip?.family === 4 && rangeOf(ip)?.kind === 'private'
        ? [formatPrefix(prefixAround(ip, USUAL_BITS))]
        : [];
    }),
  );
  const [only] = around;
  return around.size === 1 && only !== undefined ? only : null;
}

/** What the network itself gains from a reading, where nothing was said of it yet. */
function networkAfter(network: Network, reading: NetworkReading): Network {
  const prefixes = reading.prefixes.flatMap((p) => parsePrefix(p) ?? []);
  const text = (family: 4 | 6): string | null => {
    const found = prefixes.find((p) => p.family === family && p.bits > 0);
    return found ? formatPrefix(found) : null;
  };
  const prefix = network.prefix ?? text(4) ?? usualPrefix(reading.sightings);
  const parsedPrefix = prefix === null ? undefined : parsePrefix(prefix);
  const gateway = reading.gateways.find((g) => {
    const ip = parseIp(g);
    return ip !== undefined && parsedPrefix !== undefined && holds(parsedPrefix, ip);
  });
  return {
    ...network,
    prefix,
    prefix6: network.prefix6 ?? text(6),
    gateway: network.gateway ?? gateway ?? null,
    nameServers: network.nameServers.length > 0 ? network.nameServers : reading.nameServers.slice(0, 16),
  };
}

/**
 * Takes a reading into a network: who is known gains what was seen, who is not becomes a host that nobody wrote down yet.
 * `id` gives fresh ids, `at` is the moment of the reading (ISO 8601), `by` names where it comes from.
 */
export function takeReading(
  before: Network,
  hosts: readonly Host[],
  reading: NetworkReading,
  { id, at, by }: { id: () => string; at: string; by: string },
): Taken {
  const network = networkAfter(before, reading);
  const { prefix, prefix6 } = parsed(network);
  const told = reading.prefixes.some((p) => parsePrefix(p)?.family === 4);
  const out: Taken = {
    network,
    hosts: [],
    fresh: [],
    elsewhere: [],
    strangers: [],
    otherServers: otherServersIn(network, reading),
    guessed: before.prefix === null && network.prefix !== null && !told,
  };
  const mine = hosts.filter((h) => h.networkId === network.id);
  for (const seen of gathered(reading.sightings)) {
    const here = seen.filter((s) => {
      const ip = s.address === null ? undefined : parseIp(s.address);
      return ip === undefined || (prefix && holds(prefix, ip)) || (prefix6 && holds(prefix6, ip));
    });
    out.strangers.push(...seen.filter((s) => !here.includes(s)));
    if (here.length === 0) continue;
    const there = known(mine, here);
    const host = asHost(
      there ?? { ...blankHost(id(), nameOf(here).slice(0, 200), network.id), known: false },
      here,
      network,
      at,
      by,
    );
    out.hosts.push(host);
    if (!there) out.fresh.push(host.id);
    const at4 = here.find(
      (s) => family(s) === 4 && s.seen !== 'written' && s.seen !== 'reservation',
    )?.address;
    if (there && there.address !== null && at4 != null && at4 !== there.address) out.elsewhere.push(host.id);
  }
  return out;
}
