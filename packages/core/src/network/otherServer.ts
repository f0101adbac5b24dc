import type { Network } from '../model/network';
import { parseIp } from '../units/ip';
import { holds } from '../units/prefix';
import { parsed } from './parsed';
import { rangeOf } from './ranges';
import type { NetworkReading } from './read/sighting';

/** Why a second machine seems to hand out addresses on a wire. */
export type OtherServerSign =
  /** The machine that was asked got an address that is of no network of ours from it, or beside it. */
  | 'gave an address'
  /** It is told as the way out, and is another than the network’s. */
  | 'leads out'
  /** It answers on the same wire under an address of another network. */
  | 'answers here';

/** A sign of a second DHCP server, with the address it is seen by. */
export interface OtherServer {
  address: string;
  sign: OtherServerSign;
}

const isPrivate = (address: string): boolean => {
  const ip = parseIp(address);
  return ip?.family === 4 && rangeOf(ip)?.kind === 'private';
};

/**
 * Signs in a reading that a second DHCP server, mostly a router somebody plugged in, is on the wire of a network. RFC 2131 §3.1: a
 * client takes any offer, mostly the first. None where nothing is known of the network itself. Common practice, no source.
 */
export function otherServersIn(network: Network, reading: NetworkReading): OtherServer[] {
  const { prefix, gateway } = parsed(network);
  if (!prefix) return [];
  const elsewhere = (address: string): boolean => {
    const ip = parseIp(address);
    return isPrivate(address) && ip !== undefined && !holds(prefix, ip);
  };
  const out = new Map<string, OtherServerSign>();
  const own = reading.sightings.filter((s) => s.seen === 'own' && s.address !== null);
  // Its interfaces on this wire: those with an address of the network, or any where it stands on one wire only.
  const ports = new Set(own.map((s) => s.port));
  const here = new Set(
    own.flatMap((s) => {
      const ip = s.address === null ? undefined : parseIp(s.address);
      return ports.size === 1 || (ip && holds(prefix, ip)) ? [s.port] : [];
    }),
  );
  for (const s of own)
    if (s.address !== null && s.dynamic === true && here.has(s.port) && elsewhere(s.address))
      out.set(s.address, 'gave an address');
  for (const g of reading.gateways) {
    const ip = parseIp(g);
    const known = gateway !== undefined && ip?.value === gateway.value;
    // A way out beyond the network’s own is a tunnel as often as not, unless the network’s own is in the list.
    if (isPrivate(g) && gateway !== undefined && !known && (ip && holds(prefix, ip) ? true : ports.size <= 1))
      out.set(g, 'leads out');
  }
  for (const s of reading.sightings)
    if (
      s.seen === 'neighbour' &&
      s.address !== null &&
      s.port !== null &&
      here.has(s.port) &&
      elsewhere(s.address)
    )
      if (!out.has(s.address)) out.set(s.address, 'answers here');
  return [...out].map(([address, sign]) => ({ address, sign }));
}
