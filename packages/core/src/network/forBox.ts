import { knownFact } from '../model/known';
import {
  findMachine,
  findProfile,
  hostsOfBox,
  type Bench,
  type Box,
  type Host,
  type Network,
  type Profile,
} from '../model/bench';
import { blankHost, type HostManner } from '../model/network';
import { plainTemplate } from '../formats/writer/lines';
import { serves } from '../system/serves';
import { ownAddress6 } from '../units/hardware';
import { formatIp } from '../units/ip';
import { checkPlan } from './check';
import type { HostUse } from './checkHost';
import type { NetworkFinding } from './finding';
import type { Cut } from './cut';
import type { LabelContent } from './label';
import { freeLabel, fullName } from './names';
import { matching6, nextFree } from './next';
import { prefixOf } from './parsed';

/** What a host is for, as its box, the box's system and machine tell. */
export function useOf(bench: Bench, host: Host): HostUse | undefined {
  const box = host.boxId === null ? undefined : bench.boxes.find((b) => b.id === host.boxId);
  if (!box) return undefined;
  const profile = findProfile(bench, box.profileId);
  const machine = findMachine(bench, box.machineId);
  const port = machine?.networkPorts.find((p) => p.name === host.port);
  const fact = machine && knownFact(machine, 'network.speed')?.value;
  return {
    serves: serves(box.purpose) || profile?.admin != null,
    gate: box.purpose === 'firewall',
    portMbps: port?.speedMbps ?? (typeof fact === 'number' ? fact : null),
    wantsMbps: profile?.prefers.wiredMbps ?? null,
  };
}

interface Judged {
  networks: Bench['networks'];
  boxes: Bench['boxes'];
  profiles: Bench['profiles'];
  items: Bench['items'];
  findings: readonly NetworkFinding[];
  byHost: ReadonlyMap<string, readonly NetworkFinding[]>;
}
const known = new WeakMap<Bench['hosts'], Judged>();

function judged(bench: Bench): Judged {
  const { hosts, networks, boxes, profiles, items } = bench;
  const before = known.get(hosts);
  if (
    before?.networks === networks &&
    before.boxes === boxes &&
    before.profiles === profiles &&
    before.items === items
  )
    return before;
  const findings = checkPlan(bench, (host) => useOf(bench, host));
  const byHost = new Map<string, NetworkFinding[]>();
  for (const f of findings)
    for (const id of f.hosts) {
      const there = byHost.get(id);
      if (there) there.push(f);
      else byHost.set(id, [f]);
    }
  const made = { networks, boxes, profiles, items, findings, byHost };
  known.set(hosts, made);
  return made;
}

/** What is wrong with the networks of a bench, the gravest first; judged once for each state of it. */
export const networkFindings = (bench: Bench): readonly NetworkFinding[] => judged(bench).findings;

/** What is wrong where a box is concerned. */
export const findingsOfBox = (bench: Bench, box: Box): NetworkFinding[] => {
  const { byHost } = judged(bench);
  const seen = new Set<NetworkFinding>();
  return hostsOfBox(bench, box.id)
    .flatMap((h) => byHost.get(h.id) ?? [])
    .filter((f) => !seen.has(f) && seen.add(f));
};

/** Labels that are given away in a network. */
export const labelsIn = (hosts: readonly Host[], networkId: string, but?: string): Set<string> =>
  new Set(
    hosts.flatMap((h) =>
      h.networkId === networkId && h.id !== but && h.label !== null ? [h.label.toLowerCase()] : [],
    ),
  );

/** The port by which a box is reached: the first wired one, else the first. */
export function usualPort(
  bench: Bench,
  box: Box,
): { name: string; hardware: string | null; wired: boolean } | undefined {
  const ports = findMachine(bench, box.machineId)?.networkPorts ?? [];
  const port = ports.find((p) => p.kind === 'wired') ?? ports[0];
  return port && { name: port.name, hardware: port.hardware, wired: port.kind === 'wired' };
}

/** A box as a host of a network, as it would be had nobody said otherwise: reserved where its card is known, else set by hand. */
export function draftHost(bench: Bench, box: Box, network: Network, id: string): Host {
  const port = usualPort(bench, box);
  const address = nextFree(network, bench.hosts, { purpose: box.purpose, place: null }) ?? null;
  const address6 = matching6(network, address) ?? null;
  const machine = findMachine(bench, box.machineId);
  const radio = machine !== undefined && knownFact(machine, 'network.wired')?.value === 0;
  return {
    ...blankHost(id, box.name, network.id),
    boxId: box.id,
    hardware: port?.hardware ?? null,
    manner: serves(box.purpose) ? (port?.hardware ? 'reservation' : 'fixed') : 'pool',
    address: serves(box.purpose) ? address : null,
    address6: serves(box.purpose) ? address6 : null,
    manner6: serves(box.purpose) && address6 !== null ? 'fixed' : null,
    label: freeLabel(box.name, labelsIn(bench.hosts, network.id)),
    port: port?.name ?? null,
    link: port ? (port.wired ? 'wired' : 'wireless') : radio ? 'wireless' : 'wired',
  };
}

/** One way in which a box may have its address, with what it means in this network. */
export interface AddressSchool {
  manner: Exclude<HostManner, 'not known'>;
  /** The address it would have; null where a server chooses, or none is free. */
  address: string | null;
  usual: boolean;
  /** Why it cannot be, or what it wants first. */
  wants: ('a network' | 'a hardware address' | 'a free address' | 'a pool')[];
  /** Who has to be told: the router's page, or the box itself. */
  told: 'router' | 'box' | 'nobody';
}

/** The three ways, our own first choice marked. */
export function addressSchools(
  bench: Bench,
  box: Box,
  host: Host,
  network: Network | undefined,
): AddressSchool[] {
  const free =
    network && nextFree(network, bench.hosts, { purpose: box.purpose, place: host.place, hostId: host.id });
  const address = host.manner !== 'pool' && host.address !== null ? host.address : (free ?? null);
  const usual: HostManner = serves(box.purpose) ? (host.hardware === null ? 'fixed' : 'reservation') : 'pool';
  const wants = (manner: AddressSchool['manner']): AddressSchool['wants'] => [
    ...(network?.prefix == null ? ['a network' as const] : []),
    ...(manner === 'reservation' && host.hardware === null ? ['a hardware address' as const] : []),
    ...(manner !== 'pool' && network?.prefix != null && address === null ? ['a free address' as const] : []),
    ...(manner === 'pool' && network && network.pool === null ? ['a pool' as const] : []),
  ];
  return (['reservation', 'fixed', 'pool'] as const).map((manner) => ({
    manner,
    address: manner === 'pool' ? null : address,
    usual: manner === usual,
    wants: wants(manner),
    told: manner === 'reservation' ? 'router' : manner === 'fixed' ? 'box' : 'nobody',
  }));
}

/** Where the administration page of a box opens; null where its system has none, or nobody knows its address. */
export function pageOf(
  profile: Profile | undefined,
  host: Host | undefined,
  network: Network | undefined,
): { byAddress: string; byName: string | null } | null {
  const admin = profile?.admin;
  if (!admin || host?.address == null) return null;
  const usual = admin.scheme === 'https' ? 443 : 80;
  const url = (at: string): string =>
    `${admin.scheme}://${at}${admin.port === usual ? '' : `:${admin.port}`}${admin.path}`;
  return {
    byAddress: url(host.address),
    byName: host.label === null || network?.domain == null ? null : url(fullName(host.label, network.domain)),
  };
}

const knownHosts = plainTemplate('known_hosts', ',');

/** The line by which other machines know the shell of a host: its names, then its key (OpenSSH sshd(8), known_hosts). */
export const knownHostsLines = (
  host: Host,
  network: Network | undefined,
  keys: readonly { type: string; key: string }[],
): string[] => {
  const names = [
    ...(host.label === null ? [] : [fullName(host.label, network?.domain ?? null)]),
    ...(host.address === null ? [] : [host.address]),
  ];
  return names.length === 0 ? [] : keys.map(({ type, key }) => knownHosts`${names} ${type} ${key}`.text);
};

/** The IPv6 address that a host makes for itself from its card, where it makes it so and none was seen yet; null else (RFC 4862). */
export function selfMade6(host: Host, network: Network): string | null {
  const prefix = prefixOf(network.prefix6);
  return host.manner6 === 'made by itself' &&
    host.address6 === null &&
    host.hardware !== null &&
    prefix?.bits === 64
    ? formatIp(ownAddress6(prefix, host.hardware))
    : null;
}

/** What nobody finds any more once a host has moved. */
export type Gone =
  | { code: 'page'; url: string }
  | { code: 'shell'; address: string }
  | { code: 'name server'; network: string };

/** Of every host that a cut may move or that may have to share its address: what would be gone with it. */
export function goneAfter(bench: Bench, cut: Cut): Map<string, Gone[]> {
  const network = bench.networks.find((n) => n.id === cut.networkId);
  return new Map(
    cut.hosts.flatMap(({ id, fate, had }): [string, Gone[]][] => {
      if (fate === 'same' || had === null) return [];
      const host = bench.hosts.find((h) => h.id === id);
      const box = bench.boxes.find((b) => b.id === host?.boxId);
      const page =
        box && host && pageOf(findProfile(bench, box.profileId), { ...host, address: had }, network);
      const gone: Gone[] = [
        ...(page ? [{ code: 'page' as const, url: page.byAddress }] : []),
        ...(box?.reach?.shell === 'on' ? [{ code: 'shell' as const, address: had }] : []),
        ...(network?.nameServers.includes(had)
          ? [{ code: 'name server' as const, network: network.name }]
          : []),
      ];
      return gone.length > 0 ? [[id, gone]] : [];
    }),
  );
}

/** What stands on the label of a box. */
export function labelOfBox(bench: Bench, box: Box): LabelContent {
  const [host] = hostsOfBox(bench, box.id);
  const network = host && bench.networks.find((n) => n.id === host.networkId);
  const page = pageOf(findProfile(bench, box.profileId), host, network);
  const kept = box.first?.password?.kept;
  return {
    name: box.name,
    lines: [
      ...(host?.label == null ? [] : [fullName(host.label, network?.domain ?? null)]),
      ...(host?.address == null ? [] : [host.address]),
      box.purpose,
      ...(kept === undefined ? [] : [`password: ${kept}`]),
    ],
    page: page?.byAddress ?? null,
  };
}
