import type { Host, Network } from '../model/network';
import type { Purpose } from '../model/profile';
import { formatIp, type Ip } from '../units/ip';
import { firstOf, isHostAddress, lastOf, sizeOf } from '../units/prefix';
import { addressOf, inPool, ipOf, parsed } from './parsed';

/** Boxes of one purpose, or of one place, get ten addresses in a row. Common practice, no source. */
const BLOCK = 10n;
const ORDER: readonly Purpose[] = [
  'firewall',
  'file store',
  'virtual machines',
  'music',
  'film',
  'games',
  'desktop',
];
/** Addresses that are left to gear of the network itself, where a prefix has room. Common practice, no source. */
const GEAR = 9n;

/** What an address is wanted for. */
export interface Wanted {
  purpose: Purpose;
  place: number | null;
  /** A host that has an address and may keep it. */
  hostId?: string;
}

/** From where on boxes get theirs: as the network says, else past the first few. */
export function boxesBegin(network: Network): Ip | undefined {
  const { prefix } = parsed(network);
  const said = ipOf(network.boxesFrom);
  if (said) return said;
  if (!prefix) return undefined;
  return { family: 4, value: prefix.base + (sizeOf(prefix) > 64n ? GEAR + 1n : 1n) };
}

/** Where the search for an address begins, by the network's scheme. */
function start(network: Network, wanted: Wanted, from: bigint): bigint {
  const block =
    network.scheme === 'by purpose'
      ? ORDER.indexOf(wanted.purpose)
      : network.scheme === 'by place'
        ? (wanted.place ?? 1) - 1
        : 0;
  return from + BLOCK * BigInt(block);
}

/** Addresses that somebody has, was promised, or was seen at; of a host that asks for itself nothing counts. */
export function takenAddresses(network: Network, hosts: readonly Host[], but?: string): Set<bigint> {
  const p = parsed(network);
  const out = new Set<bigint>();
  for (const host of hosts) {
    if (host.networkId !== network.id || host.id === but) continue;
    for (const ip of [addressOf(host), ipOf(host.seen?.address)]) if (ip?.family === 4) out.add(ip.value);
  }
  for (const ip of [p.gateway, ...p.nameServers]) if (ip?.family === 4) out.add(ip.value);
  return out;
}

/**
 * The next address that a box can have for good: never the network's own, the broadcast's, the gateway's, one of the pool, or
 * one that anybody has or was seen at. Undefined where none is left. The search runs from where the scheme begins to the end,
 * then from the first.
 */
export function nextFree(network: Network, hosts: readonly Host[], wanted: Wanted): string | undefined {
  const p = parsed(network);
  const begin = boxesBegin(network);
  if (!p.prefix || !begin) return undefined;
  const taken = takenAddresses(network, hosts, wanted.hostId);
  const [low, high] = [firstOf(p.prefix).value, lastOf(p.prefix).value];
  let from = start(network, wanted, begin.value);
  if (from < low || from > high) from = begin.value < low || begin.value > high ? low : begin.value;
  const search = (a: bigint, b: bigint): string | undefined => {
    for (let value = a; value <= b; value += 1n) {
      const ip: Ip = { family: 4, value };
      // A pool is passed at one step: it may hold millions.
      if (p.pool && inPool(p, ip)) value = p.pool.to;
      else if (!taken.has(value) && p.prefix && isHostAddress(p.prefix, ip)) return formatIp(ip);
    }
    return undefined;
  };
  return search(from, high) ?? search(low, from - 1n);
}

/** The IPv6 address that goes with an IPv4 one: the same last number in the network's prefix. Common practice, no source. */
export function matching6(network: Network, address: string | null): string | undefined {
  const { prefix, prefix6 } = parsed(network);
  const ip = ipOf(address);
  if (!prefix6 || prefix6.bits > 96 || !prefix || !ip) return undefined;
  return formatIp({ family: 6, value: prefix6.base + (ip.value - prefix.base) });
}
