import type { GatePlan } from '../../model/gate';
import { interfaceOf } from '../../model/gate';
import type { Host, Network } from '../../model/network';
import { dnsmasqConfig } from '../../network/write/servers';

/**
 * Names and addresses that the gate serves inside (dnsmasq(8)): nothing towards the outside, names of its own domains never
 * asked for there, answers from there that point inside refused, and IPv6 told to hosts by the router’s own advertisements.
 */
export function gateNames(plan: GatePlan, networks: readonly Network[], hosts: readonly Host[]): string {
  const serving = plan.ports.flatMap((p) => {
    const zone = plan.zones.find((z) => z.id === p.zoneId);
    const network = networks.find((n) => n.id === p.networkId);
    return zone && zone.kind !== 'outside' && network ? [{ port: p, network }] : [];
  });
  const outside = plan.ports.filter((p) => plan.zones.find((z) => z.id === p.zoneId)?.kind === 'outside');
  const head = [
    '# Names and addresses of this gate.',
    'bind-dynamic',
    ...serving.map(({ port }) => `interface=${interfaceOf(port)}`),
    ...outside.map((p) => `except-interface=${interfaceOf(p)}`),
    'domain-needed',
    'bogus-priv',
    'stop-dns-rebind',
    'rebind-localhost-ok',
    ...serving.flatMap(({ network }) =>
      network.domain === null ? [] : [`rebind-domain-ok=/${network.domain}/`],
    ),
    ...(plan.upstream.length > 0 ? ['no-resolv', ...plan.upstream.map((a) => `server=${a}`)] : []),
    ...(serving.some(({ network }) => network.prefix6 !== null) ? ['enable-ra'] : []),
  ];
  const parts = serving.map(({ port, network }) => {
    const six =
      network.prefix6 === null
        ? []
        : [`dhcp-range=::,constructor:${interfaceOf(port)},ra-names,slaac,${network.leaseSeconds ?? 43_200}`];
    // One domain of its own for each network; the plain `domain=` of a single network would be the last one’s for all.
    const own = dnsmasqConfig(network, hosts)
      .split('\n')
      .map((l) => (l.startsWith('domain=') && network.prefix !== null ? `${l},${network.prefix}` : l))
      .filter((l) => l !== '');
    return [`# ${network.name}, at ${interfaceOf(port)}`, ...own, ...six];
  });
  return `${[...head, ...parts.flat()].join('\n')}\n`;
}
