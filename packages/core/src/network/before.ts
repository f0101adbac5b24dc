import type { Host, Network } from '../model/network';
import type { Reach } from '../model/reach';
import { hostsByNetwork } from './check';
import { sh } from '../formats/writer/shell';
import { ipOf, parsed } from './parsed';
import { isHostAddress } from '../units/prefix';

/** One way of finding out whether an address is free, and what it says. */
export interface BeforeLine {
  by: 'leases' | 'neighbours' | 'probe';
  says: 'free' | 'taken' | 'ask';
  /** Who has it, by id; undefined where nobody does. */
  host?: string;
  /** How many were looked through; when the newest of them was seen (ISO 8601). */
  looked: number;
  at: string | null;
}

const newest = (hosts: readonly Host[], when: (h: Host) => string | undefined): string | null =>
  hosts.reduce<string | null>((best, h) => {
    const at = when(h);
    return at !== undefined && (best === null || at > best) ? at : best;
  }, null);

/** Before an address is taken: what leases, neighbours and probes say of it. `hostId` is who wants it. */
export function beforeTaking(
  network: Network,
  hosts: readonly Host[],
  address: string,
  hostId: string | undefined,
  probed: Reach['probed'],
): BeforeLine[] {
  const here = (hostsByNetwork(hosts).get(network.id) ?? []).filter((h) => h.id !== hostId);
  const leases = here.filter((h) => h.manner === 'pool' || h.leaseUntil !== null);
  const seen = here.filter((h) => h.seen !== null);
  const line = (
    by: BeforeLine['by'],
    among: readonly Host[],
    has: (h: Host) => boolean,
    at: string | null,
  ): BeforeLine => {
    const host = among.find(has);
    return {
      by,
      // Nobody found where nobody looked says nothing.
      says: host ? 'taken' : among.length === 0 ? 'ask' : 'free',
      looked: among.length,
      at,
      ...(host ? { host: host.id } : {}),
    };
  };
  const mine = probed?.address === address ? probed : null;
  return [
    line(
      'leases',
      leases,
      (h) => h.address === address,
      newest(leases, (h) => h.seen?.at),
    ),
    line(
      'neighbours',
      seen,
      (h) => h.seen?.address === address || (h.manner !== 'pool' && h.address === address),
      newest(seen, (h) => h.seen?.at),
    ),
    {
      by: 'probe',
      says: mine ? (mine.answered ? 'taken' : 'free') : 'ask',
      looked: mine ? 1 : 0,
      at: mine?.at ?? null,
    },
  ];
}

/** Whether an address can be a host's in a network at all. */
export function canBe(network: Network, address: string): boolean {
  const ip = ipOf(address);
  const { prefix } = parsed(network);
  return ip !== undefined && prefix !== undefined && isHostAddress(prefix, ip);
}

/** What asks an address whether anybody is there, to be typed on a machine of the same network (iputils arping(8), iproute2, ndisc6). */
export function probeCommand(address: string, port: string | null): string {
  const device = port ?? 'PORT';
  return (
    ipOf(address)?.family === 6
      ? sh`ping -6 -c 3 -I ${device} ${address}`
      : sh`arping -D -c 3 -I ${device} ${address}`
  ).text;
}
