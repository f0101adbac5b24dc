import type { Host, Network } from '../model/network';
import { isMadeUp } from '../units/hardware';
import { formatIp, type Ip } from '../units/ip';
import { formatPrefix, holds, reservedEnds } from '../units/prefix';
import { isGateway } from './checkNetwork';
import type { NetworkFault, NetworkFinding } from './finding';
import { fullName, labelFault } from './names';
import { inPool, ipOf, parsed, type ParsedNetwork } from './parsed';
import { rangeOf } from './ranges';

/** What is known of a host beyond the network: whether people go to it, and how fast its port and its wire are in Mb/s. */
export interface HostUse {
  serves: boolean;
  /** It is the way out of its network. */
  gate: boolean;
  portMbps: number | null;
  /** What its work wants; null where nothing is said. */
  wantsMbps: number | null;
}

type Tell = (grade: NetworkFinding['grade'], fault: NetworkFault) => void;

function checkAddress(host: Host, p: ParsedNetwork, use: HostUse | undefined, tell: Tell): void {
  const ip = ipOf(host.address);
  if (!ip) return;
  const address = formatIp(ip);
  const { network, prefix } = p;
  if (rangeOf(ip)?.kind === 'link-local') return tell('check', { code: 'found no server', address });
  if (prefix) {
    const ends = reservedEnds(prefix);
    if (!holds(prefix, ip))
      tell('stop', { code: 'outside its network', address, prefix: formatPrefix(prefix) });
    else if (ends?.network.value === ip.value) tell('stop', { code: 'network address', address });
    else if (ends?.broadcast.value === ip.value) tell('stop', { code: 'broadcast address', address });
    if (host.bits !== null && host.bits !== prefix.bits && host.manner !== 'pool')
      tell('check', {
        code: 'wrong mask',
        told: host.bits,
        prefix: formatPrefix(prefix),
        beyond: host.bits > prefix.bits ? 'sees too little' : 'sees too much',
      });
  }
  if (isGateway(network, ip) && host.boxId !== null && use?.gate !== true)
    tell('stop', { code: 'gateway address', address });
  if (prefix && p.pool && host.manner === 'pool' && holds(prefix, ip) && !inPool(p, ip))
    tell('check', { code: 'lease outside the range', address });
  if (!inPool(p, ip)) return;
  if (host.manner === 'fixed') tell('check', { code: 'fixed in the pool', address });
  if (host.manner === 'reservation') tell('note', { code: 'reserved in the pool', address });
}

/** An IPv6 address of a host lies in its network's prefix, or is of the link alone (RFC 4291 §2.5.6). */
function checkAddress6(host: Host, { prefix6 }: ParsedNetwork, tell: Tell): void {
  const ip = ipOf(host.address6);
  if (!ip || !prefix6 || holds(prefix6, ip) || rangeOf(ip)?.kind === 'link-local') return;
  // What a host made for itself may be of an older prefix; what was set by hand is wrong.
  tell(host.manner6 === 'made by itself' ? 'check' : 'stop', {
    code: 'outside its network',
    address: formatIp(ip),
    prefix: formatPrefix(prefix6),
  });
}

function checkManner(host: Host, use: HostUse | undefined, tell: Tell): void {
  if (host.manner === 'reservation' && host.hardware === null)
    tell('stop', { code: 'reservation without hardware' });
  if (
    host.manner === 'reservation' &&
    host.hardware !== null &&
    isMadeUp(host.hardware) &&
    host.link !== 'wired'
  )
    tell('check', { code: 'hardware may change', hardware: host.hardware });
  if ((host.manner === 'reservation' || host.manner === 'fixed') && host.address === null)
    tell('check', { code: 'no address yet', manner: host.manner });
  if (host.manner === 'fixed' && !host.known && host.address !== null)
    tell('check', { code: 'nobody wrote it down', address: host.address });
  if (!use?.serves) return;
  if (host.manner === 'pool') tell('check', { code: 'serves from the pool', address: host.address });
  if (host.link === 'wireless') tell('check', { code: 'serves by radio' });
  if (use.portMbps !== null && use.wantsMbps !== null && use.portMbps < use.wantsMbps)
    tell('note', { code: 'slower than it could be', port: use.portMbps, link: use.wantsMbps });
}

/** What is wrong with a host in its network, by itself. */
export function checkHost(host: Host, network: Network | undefined, use?: HostUse): NetworkFinding[] {
  const out: NetworkFinding[] = [];
  const tell: Tell = (grade, fault) =>
    out.push({ fault, grade, networks: network ? [network.id] : [], hosts: [host.id] });
  if (network) {
    checkAddress(host, parsed(network), use, tell);
    checkAddress6(host, parsed(network), tell);
  }
  checkManner(host, use, tell);
  const fault = host.label === null ? undefined : labelFault(host.label);
  if (fault) tell('stop', { code: 'bad name', fault });
  return out;
}

function pairs(
  hosts: readonly Host[],
  keyOf: (host: Host) => string | undefined,
  tell: (key: string, same: readonly Host[]) => NetworkFinding | undefined,
): NetworkFinding[] {
  const by = new Map<string, Host[]>();
  for (const host of hosts) {
    const key = keyOf(host);
    if (key === undefined) continue;
    const there = by.get(key);
    if (there) there.push(host);
    else by.set(key, [host]);
  }
  return [...by].flatMap(([key, same]) => (same.length > 1 ? (tell(key, same) ?? []) : []));
}

const ids = (hosts: readonly Host[]): string[] => hosts.map((h) => h.id);

/** Hosts of one network that claim the same. */
export function checkAmong(network: Network, hosts: readonly Host[]): NetworkFinding[] {
  const finding = (
    grade: NetworkFinding['grade'],
    fault: NetworkFault,
    same: readonly Host[],
  ): NetworkFinding => ({ fault, grade, networks: [network.id], hosts: ids(same) });
  const claimed = (h: Host): Ip | undefined => ipOf(h.address);
  return [
    ...pairs(
      hosts,
      (h) => {
        const ip = claimed(h);
        return ip && formatIp(ip);
      },
      (address, same) => {
        const settled = same.filter((h) => h.manner !== 'pool').length;
        // What a pool gave to two, one after the other, is no claim of either.
        if (settled === 0) return undefined;
        return finding(settled > 1 ? 'stop' : 'check', { code: 'same address', address }, same);
      },
    ),
    ...pairs(
      hosts,
      (h) => h.address6 ?? undefined,
      (address, same) => finding('stop', { code: 'same address', address }, same),
    ),
    ...pairs(
      hosts,
      (h) => h.hardware ?? undefined,
      (hardware, same) => finding('check', { code: 'same hardware', hardware }, same),
    ),
    ...pairs(
      hosts,
      (h) => h.label?.toLowerCase(),
      (label, same) => finding('check', { code: 'same name', name: fullName(label, network.domain) }, same),
    ),
  ];
}
