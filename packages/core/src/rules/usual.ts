import {
  GATE,
  type GatePlan,
  type GatePromise,
  type Permit,
  type ServiceSet,
  type Zone,
} from '../model/gate';
import { noGate } from '../model/gate';
import { blankPermit } from './permits';
import type { Network } from '../model/network';

const tcp = (...ports: number[]) =>
  ports.map((p) => ({ protocol: 'tcp' as const, ports: [p, p] as [number, number], types: [] }));
const udp = (...ports: number[]) =>
  ports.map((p) => ({ protocol: 'udp' as const, ports: [p, p] as [number, number], types: [] }));

/** Services every gate has to do with, by their ports (IANA, Service Name and Transport Protocol Port Number Registry). */
export function usualServices(pagePorts: readonly number[]): ServiceSet[] {
  return [
    { id: 'names', name: 'names', entries: [...udp(53), ...tcp(53)] },
    { id: 'time', name: 'time', entries: udp(123) },
    { id: 'web', name: 'web', entries: [...tcp(80, 443), ...udp(443)] },
    { id: 'mail', name: 'mail', entries: tcp(465, 587, 993, 995) },
    { id: 'page', name: 'page and shell', entries: tcp(...pagePorts) },
    {
      id: 'echo',
      name: 'echo',
      entries: [
        { protocol: 'icmp', ports: null, types: [8] },
        { protocol: 'icmpv6', ports: null, types: [128] },
      ],
    },
  ];
}

const permit = (id: string, name: string, from: string, to: string, services: string[]): Permit => ({
  ...blankPermit(id, from, to),
  name,
  services,
});
const side = (zone: string) => ({ zone, addresses: [] });

/** Who may begin what, where nobody has decided anything yet (common practice, no source): the inside everything outwards, guests the web and mail. */
function usualPermits(zones: readonly Zone[]): Permit[] {
  const outside = zones.find((z) => z.kind === 'outside');
  const inner = zones.filter((z) => z.kind !== 'outside');
  return [
    ...inner.flatMap((z) => {
      const own = z.kind === 'inside';
      return [
        ...(outside
          ? [
              permit(
                `${z.id}-out`,
                own ? 'everything outwards' : 'web and mail',
                z.id,
                outside.id,
                own ? [] : z.kind === 'guests' ? ['web', 'mail'] : ['time'],
              ),
            ]
          : []),
        permit(
          `${z.id}-served`,
          own ? 'page, names, time' : 'names, time',
          z.id,
          GATE,
          own ? ['page', 'names', 'time', 'echo'] : ['names', 'time'],
        ),
      ];
    }),
    ...(outside
      ? [permit('gate-out', 'updates, names, time', GATE, outside.id, ['web', 'names', 'time', 'echo'])]
      : []),
  ];
}

/** What is promised where nobody has said anything else. */
export function usualPromises(zones: readonly Zone[]): GatePromise[] {
  const outside = zones.find((z) => z.kind === 'outside');
  const inner = zones.filter((z) => z.kind !== 'outside');
  const inside = inner.filter((z) => z.kind === 'inside');
  const strangers = inner.filter((z) => z.kind === 'guests' || z.kind === 'things');
  const on = true;
  const reaches = (
    id: string,
    from: string,
    to: string,
    services: string[],
    family: 4 | 6 | null = null,
  ): GatePromise => ({
    id,
    on,
    kind: 'reaches',
    from: side(from),
    to: side(to),
    services,
    family,
  });
  const closed = (id: string, from: string, to: string[], services: string[] = []): GatePromise => ({
    id,
    on,
    kind: 'closed',
    from: side(from),
    to: to.map(side),
    services,
    forwards: true,
    but: [],
  });
  return [
    ...inside.map((z) => reaches(`page-${z.id}`, z.id, GATE, ['page'])),
    ...(outside && inner.length > 0
      ? [
          closed(
            'nothing-in',
            outside.id,
            inner.map((z) => z.id),
          ),
        ]
      : []),
    ...(outside ? [closed('gate-shut', outside.id, [GATE], ['page', 'names', 'time'])] : []),
    ...strangers.flatMap((z) =>
      inside.length > 0
        ? [
            closed(
              `apart-${z.id}`,
              z.id,
              inside.map((i) => i.id),
            ),
          ]
        : [],
    ),
    { id: 'answers', on, kind: 'answers' },
    ...(outside ? [reaches('updates', GATE, outside.id, ['web', 'names', 'time'])] : []),
    ...inner.map((z) => reaches(`names-${z.id}`, z.id, GATE, ['names'])),
    ...zones.map((z): GatePromise => ({ id: `own-${z.id}`, on, kind: 'own sources', zone: z.id })),
    { id: 'icmp6', on, kind: 'icmp6' },
  ];
}

const named = (name: string): 'guests' | 'things' | 'inside' =>
  /guest|visitor/i.test(name) ? 'guests' : /thing|sensor|camera/i.test(name) ? 'things' : 'inside';

/** An id that rules may carry, made from a name; never the gate's own. */
export const zoneId = (name: string): string => {
  const id =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'zone';
  return id === GATE ? 'the-gate' : id;
};

/**
 * A plan to begin with: the first socket outside, one zone for each network, on the sockets that are left, by VLAN where the
 * network has a number. `devices`: sockets of the machine, as its system calls them.
 */
export function usualPlan(
  networks: readonly Network[],
  devices: readonly string[],
  pagePorts: readonly number[],
): GatePlan {
  const [first = 'wan', ...others] = devices;
  const zones: Zone[] = [
    { id: 'outside', name: 'Outside', kind: 'outside', tells: false },
    ...networks.map((n): Zone => {
      const kind = named(n.name);
      return { id: zoneId(n.name), name: n.name, kind, tells: kind === 'inside' };
    }),
  ];
  const base = { hardware: null, socket: '', own: [], megabits: null };
  let next = 0;
  const ports = networks.map((n) => {
    const device = others[n.vlan === null ? Math.min(next, others.length - 1) : 0] ?? 'lan';
    if (n.vlan === null) next += 1;
    return { ...base, id: `port-${n.id}`, device, vlan: n.vlan, zoneId: zoneId(n.name), networkId: n.id };
  });
  const inside = zones.find((z) => z.kind === 'inside');
  return {
    ...noGate(),
    zones,
    ports: [
      { ...base, id: 'port-outside', device: first, vlan: null, zoneId: 'outside', networkId: null },
      ...ports,
    ],
    services: usualServices(pagePorts),
    permits: usualPermits(zones),
    promises: usualPromises(zones),
    seat: inside ? { zone: inside.id, address: null, ports: [...pagePorts] } : null,
  };
}
