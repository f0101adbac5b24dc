import type { Host, Network } from '../../model/network';
import { maskOf } from '../../units/prefix';
import { lines } from './entry';

/** What a host that sets its own address has to be told. */
export interface StaticPlan {
  device: string;
  hardware: string | null;
  /** Address and length; null where it has none of that family. */
  four: string | null;
  six: string | null;
  gateway: string | null;
  gateway6: string | null;
  servers: string[];
  domain: string | null;
}

/** The plan of a host that is to be set by hand; undefined where it has no address, or its network no prefix. */
export function staticPlan(network: Network, host: Host): StaticPlan | undefined {
  const bits = network.prefix?.split('/')[1];
  const bits6 = network.prefix6?.split('/')[1];
  const four = host.address !== null && bits !== undefined ? `${host.address}/${bits}` : null;
  const six =
    host.address6 !== null && bits6 !== undefined && host.manner6 === 'fixed'
      ? `${host.address6}/${bits6}`
      : null;
  if (four === null && six === null) return undefined;
  return {
    device: host.port ?? 'eth0',
    hardware: host.hardware,
    four,
    six,
    gateway: four !== null && network.gateway !== host.address ? network.gateway : null,
    gateway6: six === null ? null : network.gateway6,
    servers: network.nameServers,
    domain: network.domain,
  };
}

const some = (key: string, value: string | null): string[] => (value === null ? [] : [`${key}${value}`]);

/** A file for systemd's networkd (systemd.network(5)). */
export const networkdFile = (p: StaticPlan): string =>
  lines([
    '[Match]',
    // A card is surer than a name that follows the slot it sits in.
    p.hardware === null ? `Name=${p.device}` : `MACAddress=${p.hardware}`,
    '',
    '[Network]',
    'DHCP=no',
    ...some('Address=', p.four),
    ...some('Address=', p.six),
    ...some('Gateway=', p.gateway),
    ...some('Gateway=', p.gateway6),
    ...p.servers.map((s) => `DNS=${s}`),
    ...some('Domains=', p.domain),
  ]);

/** A file for netplan (netplan(5)), YAML. */
export const netplanFile = (p: StaticPlan): string => {
  const addresses = [p.four, p.six].filter((a) => a !== null);
  const routes = [p.gateway, p.gateway6].filter((g) => g !== null);
  return lines([
    'network:',
    '  version: 2',
    '  ethernets:',
    `    ${p.device}:`,
    ...(p.hardware === null
      ? []
      : ['      match:', `        macaddress: "${p.hardware}"`, `      set-name: ${p.device}`]),
    '      dhcp4: false',
    '      addresses:',
    ...addresses.map((a) => `        - "${a}"`),
    ...(routes.length > 0
      ? ['      routes:', ...routes.flatMap((g) => ['        - to: default', `          via: "${g}"`])]
      : []),
    ...(p.servers.length > 0 || p.domain !== null
      ? [
          '      nameservers:',
          ...(p.servers.length > 0
            ? ['        addresses:', ...p.servers.map((s) => `          - "${s}"`)]
            : []),
          ...(p.domain === null ? [] : ['        search:', `          - "${p.domain}"`]),
        ]
      : []),
  ]);
};

/** A stanza for ifupdown (interfaces(5)). */
export const ifupdownFile = (p: StaticPlan): string =>
  lines([
    `auto ${p.device}`,
    ...(p.four === null
      ? []
      : [
          `iface ${p.device} inet static`,
          `    address ${p.four.split('/')[0]}`,
          `    netmask ${maskOf(Number(p.four.split('/')[1]))}`,
          ...some('    gateway ', p.gateway),
          ...(p.servers.length > 0 ? [`    dns-nameservers ${p.servers.join(' ')}`] : []),
          ...some('    dns-search ', p.domain),
        ]),
    ...(p.six === null
      ? []
      : [`iface ${p.device} inet6 static`, `    address ${p.six}`, ...some('    gateway ', p.gateway6)]),
  ]);

/** A key file for NetworkManager (nm-settings-keyfile(5)). It must be readable by root alone, or it is not taken. */
export const networkManagerFile = (p: StaticPlan): string => {
  const of = (v6: boolean): string => {
    const mine = p.servers.filter((s) => s.includes(':') === v6);
    return mine.length > 0 ? `${mine.join(';')};` : '';
  };
  const family = (name: string, address: string | null, gateway: string | null, v6: boolean): string[] => [
    `[${name}]`,
    ...(address === null
      ? [`method=${v6 ? 'auto' : 'disabled'}`]
      : [
          'method=manual',
          `address1=${address}${gateway === null ? '' : `,${gateway}`}`,
          ...(of(v6) === '' ? [] : [`dns=${of(v6)}`]),
          ...(p.domain === null ? [] : [`dns-search=${p.domain};`]),
        ]),
  ];
  return lines([
    '[connection]',
    `id=${p.device}`,
    'type=ethernet',
    `interface-name=${p.device}`,
    '',
    '[ethernet]',
    ...(p.hardware === null ? [] : [`mac-address=${p.hardware.toUpperCase()}`]),
    '',
    ...family('ipv4', p.four, p.gateway, false),
    '',
    ...family('ipv6', p.six, p.gateway6, true),
  ]);
};
