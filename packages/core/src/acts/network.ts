import { draftHost } from '../network/forBox';
import { takeReading, type Taken } from '../network/take';
import type { NetworkReading } from '../network/read/sighting';
import type { Bench, Box, Host, LogEntry, Network } from '../model/bench';
import { edited, type Act, type Change } from '../model/changes';
import { blankNetwork } from '../model/network';
import { noReach, type Reach } from '../model/reach';
import { logBase, logged } from './base';
import { updateBox } from './box';
import type { Stamp } from './stamp';

const put = (host: Host): Change => ({ in: 'hosts', id: host.id, to: host });

/** A network of this name, with nothing else said of it yet. */
export function addNetwork(name: string, stamp: Stamp): Act & { network: Network } {
  const network = blankNetwork(stamp.id(), name);
  return {
    network,
    label: `Network “${name}” added`,
    changes: [{ in: 'networks', id: network.id, to: network }],
  };
}

/** Changes what is said of a network. */
export const editNetwork = (before: Network, after: Network): Act => ({
  label: `Network “${after.name}” saved`,
  changes: [edited('networks', before, after)],
});

/** Takes a network away with the hosts in it; boxes stay, and have no address there any more. */
export function removeNetwork(bench: Bench, network: Network): Act {
  const there = bench.hosts.filter((h) => h.networkId === network.id);
  return {
    label: `Network “${network.name}” removed`,
    changes: [
      ...there.map((h): Change => ({ in: 'hosts', id: h.id, to: null })),
      { in: 'networks', id: network.id, to: null },
    ],
  };
}

/** Writes a host down. */
export const addHost = (host: Host): Act => ({ label: `“${host.name}” written down`, changes: [put(host)] });

/** Changes what is said of a host; whoever changes it knows of it from then on. */
export const editHost = (before: Host, changed: Partial<Host>, label: string): Act => ({
  label,
  changes: [edited('hosts', before, { ...before, known: true, ...changed })],
});

/** Takes a host away. */
export const removeHost = (host: Host): Act => ({
  label: `“${host.name}” taken away`,
  changes: [{ in: 'hosts', id: host.id, to: null }],
});

/** Gives a box a place in a network, as it would be had nobody said otherwise; another host of it stays where it is. */
export function placeBox(bench: Bench, box: Box, network: Network, stamp: Stamp): Act & { host: Host } {
  const host = draftHost(bench, box, network, stamp.id());
  return { host, label: `${box.name} placed in ${network.name}`, changes: [put(host)] };
}

/** Decides how a box has its address, with a line of the log that says so. */
export function decideAddress(
  box: Box,
  before: Host,
  changed: Partial<Host>,
  because: string,
  stamp: Stamp,
): Act {
  const after: Host = { ...before, known: true, ...changed };
  const value = [after.address ?? 'from the pool', after.manner].join(', ');
  const text = `Address of ${box.name}: ${value}; ${because}`;
  const line: LogEntry = { kind: 'decision', ...logBase(box, 'network', stamp), text };
  return {
    label: `${box.name}: ${value}`,
    changes: [edited('hosts', before, after), logged(line)],
  };
}

/** Notes how a box is reached. */
export const noteReach = (box: Box, changed: Partial<Reach>, label: string): Act =>
  updateBox(box, { reach: { ...(box.reach ?? noReach()), ...changed } }, label);

/** What a reading would change, and the act that does it. What hosts showed of themselves goes to the boxes they are. */
export function takeInto(
  bench: Bench,
  network: Network,
  reading: NetworkReading,
  by: string,
  stamp: Stamp,
): { taken: Taken; act: Act } {
  const taken = takeReading(network, bench.hosts, reading, { id: stamp.id, at: stamp.now, by });
  const fresh = new Set(taken.fresh);
  const byId = new Map(bench.hosts.map((h) => [h.id, h]));
  const there = bench.networks.some((n) => n.id === network.id);
  return {
    taken,
    act: {
      label: `${taken.hosts.length} seen in ${network.name}`,
      changes: [
        there
          ? edited('networks', network, taken.network)
          : { in: 'networks', id: network.id, to: taken.network },
        ...taken.hosts.map((h): Change => {
          const before = byId.get(h.id);
          return before && !fresh.has(h.id) ? edited('hosts', before, h) : put(h);
        }),
        ...shownTo(bench, network, reading, stamp),
      ],
    },
  };
}

/** What hosts showed, noted with the boxes that answer there; a certificate that was noted before stays as it was. */
function shownTo(bench: Bench, network: Network, reading: NetworkReading, stamp: Stamp): Change[] {
  const after = new Map<string, Reach>();
  for (const shown of reading.shown) {
    const at = shown.host.replace(/:\d+$/, '').replace(/^\[|\]$/g, '');
    const host = bench.hosts.find(
      (h) =>
        h.networkId === network.id &&
        h.boxId !== null &&
        (h.address === at ||
          h.address6 === at ||
          (h.label !== null && (at === h.label || at === `${h.label}.${network.domain ?? ''}`))),
    );
    const box = bench.boxes.find((b) => b.id === host?.boxId);
    if (!box) continue;
    const reach = after.get(box.id) ?? box.reach ?? noReach();
    after.set(
      box.id,
      shown.what === 'certificate'
        ? {
            ...reach,
            page: reach.page ?? { fingerprint: shown.fingerprint, at: stamp.now, expires: shown.expires },
          }
        : {
            ...reach,
            shell: 'on',
            hostKeys: reach.hostKeys.some((k) => k.type === shown.type)
              ? reach.hostKeys
              : [...reach.hostKeys, { type: shown.type, key: shown.key }],
          },
    );
  }
  return [...after].flatMap(([id, reach]) => {
    const box = bench.boxes.find((b) => b.id === id);
    return box ? [edited('boxes', box, { ...box, reach })] : [];
  });
}

/** What a box showed that is not what was noted of it: somebody else answers there, or it was made anew. */
export interface ShownOtherwise {
  boxId: string;
  what: 'certificate' | 'host key';
  noted: string;
  shown: string;
}

/** Held against what was noted, each thing that hosts showed in a reading. */
export function shownOtherwise(bench: Bench, reading: NetworkReading): ShownOtherwise[] {
  return reading.shown.flatMap((shown): ShownOtherwise[] => {
    const at = shown.host.replace(/:\d+$/, '');
    const host = bench.hosts.find(
      (h) => h.boxId !== null && (h.address === at || h.label === at.split('.')[0]),
    );
    const reach = bench.boxes.find((b) => b.id === host?.boxId)?.reach;
    if (!host?.boxId || !reach) return [];
    if (shown.what === 'certificate')
      return reach.page && reach.page.fingerprint !== shown.fingerprint
        ? [
            {
              boxId: host.boxId,
              what: 'certificate',
              noted: reach.page.fingerprint,
              shown: shown.fingerprint,
            },
          ]
        : [];
    const noted = reach.hostKeys.find((k) => k.type === shown.type);
    return noted && noted.key !== shown.key
      ? [{ boxId: host.boxId, what: 'host key', noted: noted.key, shown: shown.key }]
      : [];
  });
}
