import type { Host, Network } from '../../model/network';
import { dnsmasqConfig, hostsFile, iscConfig, keaConfig, networkCsv } from './servers';
import {
  ifupdownFile,
  networkdFile,
  networkManagerFile,
  netplanFile,
  staticPlan,
  type StaticPlan,
} from './static';

/** What is written for a whole network, and what for one host that sets its own address. */
export const networkWriters = {
  dnsmasq: dnsmasqConfig,
  isc: iscConfig,
  kea: (network: Network, hosts: readonly Host[]) => keaConfig(network, hosts),
  hosts: hostsFile,
  csv: networkCsv,
} as const;
export const hostWriters: Readonly<
  Record<'networkd' | 'netplan' | 'ifupdown' | 'networkmanager', (p: StaticPlan) => string>
> = {
  networkd: networkdFile,
  netplan: netplanFile,
  ifupdown: ifupdownFile,
  networkmanager: networkManagerFile,
};
/** A form for a whole network. */
export type NetworkWriter = keyof typeof networkWriters;
/** A form for one host. */
export type HostWriter = keyof typeof hostWriters;
export const networkWriterNames = Object.keys(networkWriters) as NetworkWriter[];
export const hostWriterNames = Object.keys(hostWriters) as HostWriter[];

/** The name a file of each form usually has. */
export const writtenName: Readonly<Record<NetworkWriter | HostWriter, (of: string) => string>> = {
  dnsmasq: (of) => `${of}.conf`,
  isc: (of) => `${of}-dhcpd.conf`,
  kea: (of) => `${of}-kea-dhcp4.json`,
  hosts: (of) => `${of}-hosts`,
  csv: (of) => `${of}.csv`,
  networkd: (of) => `10-${of}.network`,
  netplan: (of) => `60-${of}.yaml`,
  ifupdown: (of) => `interfaces-${of}`,
  networkmanager: (of) => `${of}.nmconnection`,
};

/** A file for one host; undefined where there is nothing that it could be told. */
export function writeForHost(form: HostWriter, network: Network, host: Host): string | undefined {
  const plan = staticPlan(network, host);
  return plan && hostWriters[form](plan);
}
