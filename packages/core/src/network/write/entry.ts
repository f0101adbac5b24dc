import type { Host, Network } from '../../model/network';
import { fullName } from '../names';
import { ipOf, parsed, type ParsedNetwork } from '../parsed';

/** A host that can be written down for its network. */
export interface Entry {
  host: Host;
  network: Network;
  parsed: ParsedNetwork;
  /** Its name in files that allow no blanks: its label, else its id made of letters, digits and hyphens. */
  name: string;
  full: string | null;
}

const plainName = (host: Host): string =>
  host.label ??
  (host.id
    .toLowerCase()
    .replace(/[^\da-z]+/g, '-')
    .replace(/^-+|-+$/g, '') ||
    'host');

/** Hosts of a network in the order of their addresses. */
export function entriesOf(network: Network, hosts: readonly Host[]): Entry[] {
  const value = (h: Host): bigint => ipOf(h.address)?.value ?? 1n << 33n;
  return hosts
    .filter((h) => h.networkId === network.id)
    .map((host) => ({
      host,
      network,
      parsed: parsed(network),
      name: plainName(host),
      full: host.label === null ? null : fullName(host.label, network.domain),
    }))
    .sort((a, b) => (value(a.host) < value(b.host) ? -1 : value(a.host) > value(b.host) ? 1 : 0));
}

/** Those that a server keeps an address for: card and address are known. */
export const reserved = (
  entries: readonly Entry[],
): (Entry & { host: { hardware: string; address: string } })[] =>
  entries.filter(
    (e): e is Entry & { host: Host & { hardware: string; address: string } } =>
      e.host.manner === 'reservation' && e.host.hardware !== null && e.host.address !== null,
  );
