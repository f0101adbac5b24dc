import type { Host, Network } from '../model/network';
import { parseIp, type Ip } from '../units/ip';
import { parsePrefix, type Prefix } from '../units/prefix';

/** An address that is kept as text, as a number; undefined where there is none. */
export const ipOf = (text: string | null | undefined): Ip | undefined =>
  text === null || text === undefined ? undefined : parseIp(text);
/** A prefix that is kept as text. */
export const prefixOf = (text: string | null | undefined): Prefix | undefined =>
  text === null || text === undefined ? undefined : parsePrefix(text);

/** A network with its texts read. */
export interface ParsedNetwork {
  network: Network;
  prefix: Prefix | undefined;
  prefix6: Prefix | undefined;
  gateway: Ip | undefined;
  gateway6: Ip | undefined;
  outside: Prefix | undefined;
  /** First and last of what is handed out; undefined where nothing is, or it runs backwards. */
  pool: { from: bigint; to: bigint } | undefined;
  nameServers: Ip[];
}

const known = new WeakMap<Network, ParsedNetwork>();

/** A network with its texts read, once for each state of it. */
export function parsed(network: Network): ParsedNetwork {
  let made = known.get(network);
  if (!made) {
    const from = ipOf(network.pool?.from);
    const to = ipOf(network.pool?.to);
    made = {
      network,
      prefix: prefixOf(network.prefix),
      prefix6: prefixOf(network.prefix6),
      gateway: ipOf(network.gateway),
      gateway6: ipOf(network.gateway6),
      outside: prefixOf(network.outside),
      pool: from && to && from.value <= to.value ? { from: from.value, to: to.value } : undefined,
      nameServers: network.nameServers.flatMap((n) => ipOf(n) ?? []),
    };
    known.set(network, made);
  }
  return made;
}

/** Whether an IPv4 address is one of those that are handed out. */
export const inPool = ({ pool }: ParsedNetwork, ip: Ip | undefined): boolean =>
  pool !== undefined && ip?.family === 4 && ip.value >= pool.from && ip.value <= pool.to;

/** The address a host has or is to have, else where it was last seen. */
export const addressOf = (host: Host): Ip | undefined => {
  const seen = ipOf(host.seen?.address);
  return ipOf(host.address) ?? (seen?.family === 4 ? seen : undefined);
};
