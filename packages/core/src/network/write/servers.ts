import type { Host, Network } from '../../model/network';
import { maskOf } from '../../units/prefix';
import { csvOf } from '../../formats/writer/csv';
import { plainTemplate } from '../../formats/writer/lines';
import { linesOf, type Written } from '../../formats/writer/template';
import { entriesOf, reserved } from './entry';

const dnsmasq = plainTemplate('dnsmasq', ',');
const isc = plainTemplate('dhcpd.conf', ', ');
const named = plainTemplate('hosts');

/** Seconds that are given where nobody said how long a lease is: half a day. Common practice, no source. */
export const USUAL_LEASE = 43_200;

/** For dnsmasq: what it hands out, options, kept addresses and names (dnsmasq(8)). */
export const dnsmasqConfig = (network: Network, hosts: readonly Host[]): string =>
  linesOf(dnsmasqLines(network, hosts));

/**
 * The same line by line. `ofPrefix`: its domain holds for its own addresses alone, as where one server has several networks.
 */
export function dnsmasqLines(
  network: Network,
  hosts: readonly Host[],
  ofPrefix = false,
): Written<'dnsmasq'>[] {
  const entries = entriesOf(network, hosts);
  const { prefix } = entries[0]?.parsed ?? { prefix: undefined };
  const { pool, domain } = network;
  const bits = prefix?.bits ?? Number(network.prefix?.split('/')[1] ?? 24);
  const lease = network.leaseSeconds ?? USUAL_LEASE;
  const servers4 = network.nameServers.filter((n) => !n.includes(':'));
  return [
    ...(domain === null
      ? []
      : [
          dnsmasq`domain=${ofPrefix && network.prefix !== null ? [domain, network.prefix] : domain}`,
          dnsmasq`local=/${domain}/`,
        ]),
    ...(network.prefix === null
      ? []
      : [
          pool
            ? dnsmasq`dhcp-range=${pool.from},${pool.to},${maskOf(bits)},${lease}`
            : // Addresses that are kept need a range to lie in; of this one nothing is handed out.
              dnsmasq`dhcp-range=${network.prefix.split('/')[0] ?? ''},static,${maskOf(bits)},${lease}`,
        ]),
    ...(network.manner === 'in order' ? [dnsmasq`dhcp-sequential-ip`] : []),
    ...(network.gateway === null ? [] : [dnsmasq`dhcp-option=option:router,${network.gateway}`]),
    ...(servers4.length > 0 ? [dnsmasq`dhcp-option=option:dns-server,${servers4}`] : []),
    ...reserved(entries).map(
      ({ host, name }) =>
        dnsmasq`dhcp-host=${[host.hardware, host.address, ...(host.label === null ? [] : [name])]}`,
    ),
    ...entries.flatMap(({ host, full, name }) =>
      full === null || host.address === null || host.manner === 'pool'
        ? []
        : [
            dnsmasq`host-record=${[...new Set([full, name]), host.address, ...(host.address6 === null ? [] : [host.address6])]}`,
          ],
    ),
  ];
}

/** For the ISC server: the subnet and its hosts (dhcpd.conf(5)). */
export function iscConfig(network: Network, hosts: readonly Host[]): string {
  const entries = entriesOf(network, hosts);
  const [base = '', length = '24'] = (network.prefix ?? '').split('/');
  const lease = network.leaseSeconds ?? USUAL_LEASE;
  const servers4 = network.nameServers.filter((n) => !n.includes(':'));
  return linesOf([
    ...(base === ''
      ? []
      : [
          isc`subnet ${base} netmask ${maskOf(Number(length))} {`,
          ...(network.pool ? [isc`  range ${network.pool.from} ${network.pool.to};`] : []),
          ...(network.gateway === null ? [] : [isc`  option routers ${network.gateway};`]),
          ...(servers4.length > 0 ? [isc`  option domain-name-servers ${servers4};`] : []),
          ...(network.domain === null ? [] : [isc`  option domain-name "${network.domain}";`]),
          isc`  default-lease-time ${lease};`,
          isc`  max-lease-time ${lease};`,
          isc`}`,
        ]),
    ...reserved(entries).flatMap(({ host, name }) => [
      isc`host ${name} {`,
      isc`  hardware ethernet ${host.hardware};`,
      isc`  fixed-address ${host.address};`,
      ...(host.label === null ? [] : [isc`  option host-name "${host.label}";`]),
      isc`}`,
    ]),
  ]);
}

/** For Kea: the whole of Dhcp4 as JSON (Kea Administrator Reference Manual, host reservations). `device` is the server's own port. */
export function keaConfig(network: Network, hosts: readonly Host[], device = '*'): string {
  const entries = entriesOf(network, hosts);
  const servers4 = network.nameServers.filter((n) => !n.includes(':'));
  const option = (name: string, data: string | null): { name: string; data: string }[] =>
    data === null || data === '' ? [] : [{ name, data }];
  const Dhcp4 = {
    'interfaces-config': { interfaces: [device] },
    'lease-database': { type: 'memfile', persist: true },
    'valid-lifetime': network.leaseSeconds ?? USUAL_LEASE,
    subnet4:
      network.prefix === null
        ? []
        : [
            {
              id: network.vlan ?? 1,
              subnet: network.prefix,
              pools: network.pool ? [{ pool: `${network.pool.from} - ${network.pool.to}` }] : [],
              'option-data': [
                ...option('routers', network.gateway),
                ...option('domain-name-servers', servers4.join(', ')),
                ...option('domain-name', network.domain),
              ],
              reservations: reserved(entries).map(({ host }) => ({
                'hw-address': host.hardware,
                'ip-address': host.address,
                ...(host.label === null ? {} : { hostname: host.label }),
              })),
            },
          ],
  };
  return `${JSON.stringify({ Dhcp4 }, null, 2)}\n`;
}

/** For /etc/hosts (hosts(5)): every host that has an address for good and a name. */
export function hostsFile(network: Network, hosts: readonly Host[]): string {
  return linesOf(
    entriesOf(network, hosts).flatMap(({ host, full, name }) => {
      if (full === null || host.manner === 'pool' || host.manner === 'not known') return [];
      const names = [...new Set([full, name])];
      return [host.address, host.address6].flatMap((a) => (a === null ? [] : [named`${a} ${names}`]));
    }),
  );
}

/** The list as a table with commas (RFC 4180). */
export const networkCsv = (network: Network, hosts: readonly Host[]): string =>
  `${csvOf(
    ['name', 'full name', 'address', 'IPv6 address', 'hardware address', 'how it has it'],
    entriesOf(network, hosts).map(({ host, full }) => [
      host.name,
      full,
      host.address,
      host.address6,
      host.hardware,
      host.manner,
    ]),
  )}\r\n`;
