import type { Host, Network } from '../../model/network';
import { maskOf } from '../../units/prefix';
import { plainTemplate, type LineFormat } from '../../formats/writer/lines';
import { linesOf, type Template, type Written } from '../../formats/writer/template';
import { yamlOf } from '../../formats/writer/yaml';

const unit = plainTemplate('unit');
const stanza = plainTemplate('interfaces');
const keyfile = plainTemplate('keyfile', ';');

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

/** A line of a value that is there; no line where it is not. */
const some = <F extends LineFormat>(
  line: Template<F>,
  key: TemplateStringsArray,
  value: string | null,
): Written<F>[] => (value === null ? [] : [line(key, value)]);

/** A file for systemd's networkd (systemd.network(5)). */
export const networkdFile = (p: StaticPlan): string => {
  const line = (key: TemplateStringsArray, value: string | null): Written<'unit'>[] => some(unit, key, value);
  return linesOf([
    unit`[Match]`,
    // A card is surer than a name that follows the slot it sits in.
    p.hardware === null ? unit`Name=${p.device}` : unit`MACAddress=${p.hardware}`,
    unit``,
    unit`[Network]`,
    unit`DHCP=no`,
    ...line`Address=${p.four}`,
    ...line`Address=${p.six}`,
    ...line`Gateway=${p.gateway}`,
    ...line`Gateway=${p.gateway6}`,
    ...p.servers.map((s) => unit`DNS=${s}`),
    ...line`Domains=${p.domain}`,
  ]);
};

/** A file for netplan (netplan(5)), YAML. */
export const netplanFile = (p: StaticPlan): string => {
  const routes = [p.gateway, p.gateway6].filter((g) => g !== null);
  return yamlOf({
    network: {
      version: 2,
      ethernets: {
        [p.device]: {
          ...(p.hardware === null ? {} : { match: { macaddress: p.hardware }, 'set-name': p.device }),
          dhcp4: false,
          addresses: [p.four, p.six].filter((a) => a !== null),
          routes: routes.length > 0 ? routes.map((via) => ({ to: 'default', via })) : undefined,
          nameservers:
            p.servers.length > 0 || p.domain !== null
              ? {
                  addresses: p.servers.length > 0 ? p.servers : undefined,
                  search: p.domain === null ? undefined : [p.domain],
                }
              : undefined,
        },
      },
    },
  });
};

/** A stanza for ifupdown (interfaces(5)). */
export const ifupdownFile = (p: StaticPlan): string => {
  const line = (key: TemplateStringsArray, value: string | null): Written<'interfaces'>[] =>
    some(stanza, key, value);
  const [address = '', bits = ''] = p.four?.split('/') ?? [];
  return linesOf([
    stanza`auto ${p.device}`,
    ...(p.four === null
      ? []
      : [
          stanza`iface ${p.device} inet static`,
          stanza`    address ${address}`,
          stanza`    netmask ${maskOf(Number(bits))}`,
          ...line`    gateway ${p.gateway}`,
          ...(p.servers.length > 0 ? [stanza`    dns-nameservers ${p.servers}`] : []),
          ...line`    dns-search ${p.domain}`,
        ]),
    ...(p.six === null
      ? []
      : [
          stanza`iface ${p.device} inet6 static`,
          stanza`    address ${p.six}`,
          ...line`    gateway ${p.gateway6}`,
        ]),
  ]);
};

/** A key file for NetworkManager (nm-settings-keyfile(5)). It must be readable by root alone, or it is not taken. */
export const networkManagerFile = (p: StaticPlan): string => {
  const family = (
    name: 'ipv4' | 'ipv6',
    address: string | null,
    gateway: string | null,
  ): Written<'keyfile'>[] => {
    const v6 = name === 'ipv6';
    const servers = p.servers.filter((s) => s.includes(':') === v6);
    return [
      keyfile`[${name}]`,
      ...(address === null
        ? [v6 ? keyfile`method=auto` : keyfile`method=disabled`]
        : [
            keyfile`method=manual`,
            gateway === null ? keyfile`address1=${address}` : keyfile`address1=${address},${gateway}`,
            ...(servers.length > 0 ? [keyfile`dns=${servers};`] : []),
            ...(p.domain === null ? [] : [keyfile`dns-search=${p.domain};`]),
          ]),
    ];
  };
  return linesOf([
    keyfile`[connection]`,
    keyfile`id=${p.device}`,
    keyfile`type=ethernet`,
    keyfile`interface-name=${p.device}`,
    keyfile``,
    keyfile`[ethernet]`,
    ...(p.hardware === null ? [] : [keyfile`mac-address=${p.hardware.toUpperCase()}`]),
    keyfile``,
    ...family('ipv4', p.four, p.gateway),
    keyfile``,
    ...family('ipv6', p.six, p.gateway6),
  ]);
};
