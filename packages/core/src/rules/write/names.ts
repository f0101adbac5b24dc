import type { GatePlan } from '../../model/gate';
import { interfaceOf } from '../../model/gate';
import type { Host, Network } from '../../model/network';
import { comment, plainTemplate } from '../../formats/writer/lines';
import { linesOf } from '../../formats/writer/template';
import { dnsmasqLines } from '../../network/write/servers';

const dnsmasq = plainTemplate('dnsmasq', ',');

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
  return linesOf([
    comment('dnsmasq', 'Names and addresses of this gate.'),
    dnsmasq`bind-dynamic`,
    ...serving.map(({ port }) => dnsmasq`interface=${interfaceOf(port)}`),
    ...outside.map((p) => dnsmasq`except-interface=${interfaceOf(p)}`),
    dnsmasq`domain-needed`,
    dnsmasq`bogus-priv`,
    dnsmasq`stop-dns-rebind`,
    dnsmasq`rebind-localhost-ok`,
    ...serving.flatMap(({ network }) =>
      network.domain === null ? [] : [dnsmasq`rebind-domain-ok=/${network.domain}/`],
    ),
    ...(plan.upstream.length > 0
      ? [dnsmasq`no-resolv`, ...plan.upstream.map((a) => dnsmasq`server=${a}`)]
      : []),
    ...(serving.some(({ network }) => network.prefix6 !== null) ? [dnsmasq`enable-ra`] : []),
    ...serving.flatMap(({ port, network }) => [
      comment('dnsmasq', `${network.name}, at ${interfaceOf(port)}`),
      // One domain of its own for each network; the plain `domain=` of a single network would be the last one’s for all.
      ...dnsmasqLines(network, hosts, true),
      ...(network.prefix6 === null
        ? []
        : [
            dnsmasq`dhcp-range=::,constructor:${interfaceOf(port)},ra-names,slaac,${network.leaseSeconds ?? 43_200}`,
          ]),
    ]),
  ]);
}
