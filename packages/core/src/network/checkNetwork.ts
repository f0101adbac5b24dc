import type { Network } from '../model/network';
import { formatIp, type Ip } from '../units/ip';
import { formatPrefix, holds, overlap, reservedEnds } from '../units/prefix';
import type { NetworkFault, NetworkFinding } from './finding';
import { inPool, ipOf, parsed, type ParsedNetwork } from './parsed';
import { rangeOfPrefix } from './ranges';

type Grade = NetworkFinding['grade'];
type Tell = (grade: Grade, fault: NetworkFault) => void;

function checkPool(p: ParsedNetwork, clients: number, tell: Tell): void {
  const { network, prefix, pool, gateway } = p;
  const asked = network.pool;
  if (!asked) return;
  if (!pool) return tell('stop', { code: 'pool runs backwards' });
  if (!prefix) return;
  const inside = (value: bigint): boolean => holds(prefix, { family: 4, value });
  if (!inside(pool.from) || !inside(pool.to))
    tell('stop', { code: 'pool outside', prefix: formatPrefix(prefix) });
  const ends = reservedEnds(prefix);
  const held = (what: 'network address' | 'broadcast address' | 'gateway', ip: Ip | undefined): void => {
    if (ip && inPool(p, ip)) tell('check', { code: 'pool holds', what, address: formatIp(ip) });
  };
  held('network address', ends?.network);
  held('broadcast address', ends?.broadcast);
  held('gateway', gateway);
  const size = Number(pool.to - pool.from) + 1;
  if (clients > size) tell('check', { code: 'pool too small', size, clients });
}

function checkRange({ prefix, outside }: ParsedNetwork, tell: Tell): void {
  if (prefix) {
    const range = rangeOfPrefix(prefix);
    const text = formatPrefix(prefix);
    if (!range) tell('check', { code: 'addresses of others', prefix: text });
    else if (range.kind !== 'private')
      tell('check', { code: 'range for something else', prefix: text, kind: range.kind });
    if (outside && overlap(prefix, outside))
      tell('stop', { code: 'inside is outside', prefix: text, outside: formatPrefix(outside) });
  }
  const beyond = outside && rangeOfPrefix(outside)?.kind;
  if (outside && beyond === 'carrier')
    tell('note', { code: 'outside is carrier', outside: formatPrefix(outside) });
  if (outside && beyond === 'private')
    tell('note', { code: 'outside is private', outside: formatPrefix(outside) });
}

/** What is wrong with a network by itself; `clients` hosts have their address from its pool. */
export function checkNetwork(network: Network, clients: number): NetworkFinding[] {
  const out: NetworkFinding[] = [];
  const tell: Tell = (grade, fault) => out.push({ fault, grade, networks: [network.id], hosts: [] });
  const p = parsed(network);
  for (const [prefix, gateway] of [
    [p.prefix, p.gateway],
    [p.prefix6, p.gateway6],
  ] as const)
    // IPv6 routers usually answer at an address of the link (RFC 4861 §4.2), which no prefix holds.
    if (prefix && gateway && !holds(prefix, gateway) && gateway.value >> 118n !== 0x3fan)
      tell('stop', {
        code: 'gateway outside',
        gateway: formatIp(gateway),
        prefix: formatPrefix(prefix),
      });
  const ends = p.prefix && reservedEnds(p.prefix);
  for (const what of ['network address', 'broadcast address'] as const) {
    const end = what === 'network address' ? ends?.network : ends?.broadcast;
    if (p.gateway && end?.value === p.gateway.value)
      tell('stop', { code: 'gateway is no host', gateway: formatIp(p.gateway), what });
  }
  checkPool(p, clients, tell);
  checkRange(p, tell);
  // Hosts make their own addresses in prefixes of 64 bits alone (RFC 4862 §5.5.3, RFC 7421).
  if (p.prefix6 && p.prefix6.bits !== 64)
    tell('check', { code: 'not a /64', prefix: formatPrefix(p.prefix6) });
  return out;
}

/** Networks that get in each other's way. */
export function checkTogether(networks: readonly Network[]): NetworkFinding[] {
  const out: NetworkFinding[] = [];
  networks.forEach((a, i) => {
    for (const b of networks.slice(i + 1)) {
      const ids = [a.id, b.id];
      for (const [x, y] of [
        [parsed(a).prefix, parsed(b).prefix],
        [parsed(a).prefix6, parsed(b).prefix6],
      ] as const)
        if (x && y && overlap(x, y))
          out.push({
            fault: { code: 'networks overlap', prefix: formatPrefix(x), other: formatPrefix(y) },
            grade: 'stop',
            networks: ids,
            hosts: [],
          });
      if (a.vlan !== null && a.vlan === b.vlan)
        out.push({ fault: { code: 'same VLAN', vlan: a.vlan }, grade: 'check', networks: ids, hosts: [] });
    }
  });
  return out;
}

/** Whether an address is the gateway of a network. */
export const isGateway = (network: Network, ip: Ip | undefined): boolean => {
  const gateway = ipOf(network.gateway);
  return ip !== undefined && gateway?.value === ip.value && gateway.family === ip.family;
};
