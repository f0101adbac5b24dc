import { basename } from 'node:path';
import type { OtherServer } from '@zb/core/network/otherServer';
import { takeReading } from '@zb/core/network/take';
import { byGrade, checkPlan } from '@zb/core/network/check';
import { cutPower } from '@zb/core/network/cut';
import { checkDomains } from '@zb/core/network/domain';
import { addressSchools, draftHost, useOf } from '@zb/core/network/forBox';
import { nextFree } from '@zb/core/network/next';
import { hostsOfBox } from '@zb/core/model/bench';
import type { NetworkFinding } from '@zb/core/network/finding';
import { readNetworkText } from '@zb/core/network/read/read';
import { NetworkReadError, type NetworkReading } from '@zb/core/network/read/sighting';
import { streetOf } from '@zb/core/network/street';
import {
  hostWriterNames,
  networkWriterNames,
  networkWriters,
  writeForHost,
} from '@zb/core/network/write/forms';
import {
  blankNetwork,
  networkPlanSchema,
  type Host,
  type Network,
  type NetworkPlan,
} from '@zb/core/model/network';
import { purposes } from '@zb/core/model/profile';
import { networkReadWords, otherServerWords } from '@zb/core/words/lan';
import { networkFaultWords } from '@zb/core/words/network';
import { boxOf, readBench } from './benchOutput';
import { InputError } from './inputFile';
import { readPlan } from './planFile';

/** What a JSON text has under some keys; nothing where it is none. */
function headOf(text: string): { format?: unknown; plan?: unknown } {
  try {
    const value: unknown = JSON.parse(text);
    return typeof value === 'object' && value !== null ? value : {};
  } catch {
    return {};
  }
}

/** Networks and hosts of a file: a plan, what `zb network read` printed, or a bench. Throws InputError. */
export function networkPlan(text: string): NetworkPlan & { use: Parameters<typeof checkPlan>[1] } {
  const head = headOf(text);
  if (head.format !== 'zealous-box-bench')
    return {
      ...readPlan(head.plan === undefined ? text : JSON.stringify(head.plan), networkPlanSchema),
      use: undefined,
    };
  const bench = readBench(text);
  return { networks: bench.networks, hosts: bench.hosts, use: (host) => useOf(bench, host) };
}

/** The network that is meant: by its id or name, or the only one. Throws InputError. */
function oneNetwork(networks: readonly Network[], asked: string | undefined): Network {
  const found =
    asked === undefined
      ? networks.length === 1
        ? networks[0]
        : undefined
      : networks.find((n) => n.id === asked || n.name === asked);
  if (!found)
    throw new InputError(
      networks.length === 0
        ? 'no network is in it'
        : `say which network with --network: ${networks.map((n) => n.id).join(', ')}`,
    );
  return found;
}

const says = (finding: NetworkFinding, plan: NetworkPlan): object => {
  const name = (id: string): string =>
    plan.hosts.find((h) => h.id === id)?.name ?? plan.networks.find((n) => n.id === id)?.name ?? id;
  const { fault, hosts, networks } = finding;
  return {
    ...finding,
    says: networkFaultWords(fault, { hosts: hosts.map(name), networks: networks.map(name) }),
  };
};

/** What `zb network read FILE…` prints: each reading, and the network with its hosts that all of them make. Throws InputError. */
export function readOutput(files: readonly { path: string; text: string }[], at: string): object {
  const readings = files.map(({ path, text }): { path: string; reading: NetworkReading } => {
    try {
      return { path, reading: readNetworkText(text) };
    } catch (error) {
      if (error instanceof NetworkReadError)
        throw new InputError(`${path}: ${networkReadWords(error.fault)}`);
      throw error;
    }
  });
  let network = blankNetwork('network', 'Network');
  let hosts: Host[] = [];
  let next = 0;
  let guessed = false;
  const otherServers = new Map<string, OtherServer>();
  const strangers = new Map<string, NetworkReading['sightings'][number]>();
  // The network’s own addresses come first: without them nothing is known to lie in it.
  const ordered = [...readings].sort(
    (a, b) => Number(b.reading.prefixes.length > 0) - Number(a.reading.prefixes.length > 0),
  );
  for (const { path, reading } of ordered) {
    const taken = takeReading(network, hosts, reading, {
      id: () => `host-${(next += 1)}`,
      at,
      by: basename(path),
    });
    network = taken.network;
    guessed ||= taken.guessed;
    for (const o of taken.otherServers) otherServers.set(o.address, o);
    const changed = new Map(taken.hosts.map((h) => [h.id, h]));
    hosts = [
      ...hosts.map((h) => changed.get(h.id) ?? h),
      ...taken.hosts.filter((h) => taken.fresh.includes(h.id)),
    ];
    for (const s of taken.strangers) strangers.set(`${s.address ?? ''} ${s.hardware ?? ''}`, s);
  }
  return {
    readings: readings.map(({ path, reading }) => ({ file: path, ...reading })),
    plan: { networks: [network], hosts },
    /** Nothing told how far the network reaches. */
    guessedPrefix: guessed,
    elsewhere: [...strangers.values()],
    otherServers: { found: [...otherServers.values()], says: otherServerWords([...otherServers.values()]) },
  };
}

/** What `zb network check FILE` prints, and whether a Stop is among it. */
export function checkNetworkOutput(text: string): { findings: object[]; stops: number } {
  const plan = networkPlan(text);
  const findings = byGrade([...checkPlan(plan, plan.use), ...checkDomains(plan.networks)]);
  return {
    stops: findings.filter((f) => f.grade === 'stop').length,
    findings: findings.map((f) => says(f, plan)),
  };
}

/** What of a file is planned. */
export interface PlanAsked {
  network?: string | undefined;
  box?: string | undefined;
  purpose?: string | undefined;
  place?: string | undefined;
}

/** What `zb network plan FILE` prints: the street, the next free address, and for a box its ways. Throws InputError. */
export function planOutput(text: string, asked: PlanAsked): object {
  const plan = networkPlan(text);
  const network = oneNetwork(plan.networks, asked.network);
  const purpose = purposes.find((p) => p === (asked.purpose ?? 'file store'));
  if (!purpose) throw new InputError(`--purpose is one of: ${purposes.join(', ')}`);
  const place = asked.place === undefined ? null : Number(asked.place);
  if (place !== null && !(Number.isInteger(place) && place > 0))
    throw new InputError('--place is a whole number from 1');
  const street = streetOf(network, plan.hosts);
  if (asked.box === undefined)
    return { network: network.id, next: nextFree(network, plan.hosts, { purpose, place }) ?? null, street };
  const bench = readBench(text);
  const box = boxOf(bench, asked.box);
  const host =
    hostsOfBox(bench, box.id).find((h) => h.networkId === network.id) ??
    draftHost(bench, box, network, `${box.id}-host`);
  return {
    network: network.id,
    next: nextFree(network, plan.hosts, { purpose: box.purpose, place: host.place, hostId: host.id }) ?? null,
    host,
    schools: addressSchools(bench, box, host, network),
    street,
  };
}

const whole = (text: string, option: string): number => {
  const n = Number(text);
  if (!Number.isInteger(n) || n < 0) throw new InputError(`${option} is a whole number from 0`);
  return n;
};

/** What `zb network cut FILE` prints: counts as text, because they can be larger than a number holds. Throws InputError. */
export function cutOutput(
  text: string,
  asked: { network?: string | undefined; seed: string; outage: string },
): object {
  const plan = networkPlan(text);
  const cut = cutPower(oneNetwork(plan.networks, asked.network), plan.hosts, {
    seed: whole(asked.seed, '--seed'),
    outageSeconds: whole(asked.outage, '--outage'),
  });
  const count = (n: bigint | null): string | null => (n === null ? null : String(n));
  return {
    ...cut,
    worlds: count(cut.worlds),
    hosts: cut.hosts.map((h) => ({
      ...h,
      moved: count(h.moved),
      none: count(h.none),
      shared: count(h.shared),
    })),
  };
}

/** What `zb network write FILE --as FORM` prints: text for another program. Throws InputError. */
export function writeNetworkOutput(
  text: string,
  asked: { network?: string | undefined; as: string; host?: string | undefined },
): string {
  const plan = networkPlan(text);
  const network = oneNetwork(plan.networks, asked.network);
  const form = networkWriterNames.find((n) => n === asked.as);
  if (form) return networkWriters[form](network, plan.hosts);
  const own = hostWriterNames.find((n) => n === asked.as);
  if (!own) throw new InputError(`--as is one of: ${[...networkWriterNames, ...hostWriterNames].join(', ')}`);
  const host = plan.hosts.find((h) => h.id === asked.host || h.name === asked.host || h.label === asked.host);
  if (!host) throw new InputError(`--as ${own} is for one host: say which with --host`);
  const file = writeForHost(own, network, host);
  if (file === undefined)
    throw new InputError(`${host.name} has no address yet, or ${network.name} no prefix`);
  return file;
}
