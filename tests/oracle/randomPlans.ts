/** Plans of a gate at random: zones, sets, services, permits in both families, hours, forwarded ports. */
import { gatePlanSchema, type GatePlan } from '@zb/core/model/gate';
import { networkSchema, type Network } from '@zb/core/model/network';
import { randomFrom } from '@zb/core/units/random';

/** Networks of such plans: both families, one of IPv4 alone. */
export const PLAN_NETWORKS: Network[] = [
  {
    id: 'n0',
    name: 'n0',
    prefix: '10.0.0.0/24',
    gateway: '10.0.0.1',
    prefix6: 'fd00:0:0:1::/64',
    gateway6: 'fd00:0:0:1::1',
  },
  {
    id: 'n1',
    name: 'n1',
    prefix: '10.0.1.0/24',
    gateway: '10.0.1.1',
    prefix6: 'fd00:0:0:2::/64',
    gateway6: 'fd00:0:0:2::1',
  },
  { id: 'n2', name: 'n2', prefix: '172.20.4.0/22', gateway: '172.20.4.1' },
].map((n) => networkSchema.parse({ ...n, prefix6: n.prefix6 ?? null }));

/** A plan by its seed. */
export function planAtRandom(seed: number): GatePlan {
  const dice = randomFrom(seed);
  const upTo = (n: number): number => Math.floor(dice() * n);
  const one = <T>(list: readonly T[]): T => list[upTo(list.length)] as T;
  const zones = ['outside', 'z0', 'z1', 'z2'];
  const sides = [...zones, 'gate'];
  const port = (): [number, number] => {
    const from = 1 + upTo(60_000);
    return [from, from + one([0, 0, 1, 7, 300])];
  };
  const address = (): string =>
    one([
      () => `10.0.${upTo(2)}.${2 + upTo(250)}`,
      () => `10.0.${upTo(2)}.${upTo(4) * 64}/26`,
      () => `172.20.${4 + upTo(4)}.${10 + upTo(20)}-172.20.7.${40 + upTo(100)}`,
      () => `fd00:0:0:${1 + upTo(2)}::${(2 + upTo(60_000)).toString(16)}`,
      () => `fd00:0:0:${1 + upTo(2)}::/${one([80, 96, 120])}`,
      () => `8.${upTo(256)}.0.0/16`,
      () => `2600:${upTo(9)}::/32`,
    ])();
  const addresses = Array.from({ length: 8 }, (_, i) => ({
    id: `a${i}`,
    name: `set ${i}`,
    entries: Array.from({ length: 1 + upTo(3) }, address),
  }));
  const services = Array.from({ length: 8 }, (_, i) => ({
    id: `s${i}`,
    name: `service ${i}`,
    entries: Array.from({ length: 1 + upTo(3) }, () =>
      one([
        () => ({ protocol: 'tcp', ports: port() }),
        () => ({ protocol: 'udp', ports: port() }),
        () => ({ protocol: 'tcp', ports: null }),
        () => ({ protocol: 'icmp', types: one([[8], [8, 13], []]) }),
        () => ({ protocol: 'icmpv6', types: [128] }),
      ])(),
    ),
  }));
  const some = (id: string, n: number): string[] => (upTo(2) === 0 ? [`${id}${upTo(n)}`] : []);
  const hours = (): object | null => {
    if (upTo(4) > 0) return null;
    const now = new Date();
    // Either well within or well without the present hour, so that a test does not end on its border.
    const at = (now.getUTCHours() * 60 + (upTo(2) === 0 ? 1440 - 120 : 300)) % 1440;
    return { from: at, to: (at + 240) % 1440, days: one([[], [now.getUTCDay()], [0, 1, 2, 3, 4, 5, 6]]) };
  };
  const permits = Array.from({ length: 14 + upTo(16) }, (_, i) => {
    const from = one(sides);
    return {
      id: `q${i}`,
      name: `permit ${i}`,
      from: { zone: from, addresses: some('a', 8) },
      to: { zone: one(sides.filter((s) => s !== from)), addresses: some('a', 8) },
      services: some('s', 8),
      does: one(['let in', 'let in', 'refuse']),
      family: one([null, null, 4, 6]),
      hours: hours(),
      rate: upTo(6) === 0 ? { count: 100_000, per: 'second', burst: 100_000 } : null,
      log: upTo(8) === 0,
    };
  });
  const forwards = Array.from({ length: 4 }, (_, i) => ({
    id: `f${i}`,
    name: `forward ${i}`,
    protocol: one(['tcp', 'udp']),
    ports: port(),
    to: one(['10.0.0.20', '10.0.1.30', '172.20.5.5']),
    toPort: one([null, 80, 8443]),
    sources: upTo(3) === 0 ? [`a${upTo(8)}`] : [],
  }));
  return gatePlanSchema.parse({
    zones: zones.map((id, i) => ({
      id,
      name: id,
      kind: i === 0 ? 'outside' : 'inside',
      tells: upTo(2) === 0,
    })),
    ports: [
      { id: 'p', device: 'wan', zoneId: 'outside', own: ['100.72.16.9', '2600:77::9'] },
      ...PLAN_NETWORKS.map((n, i) => ({ id: `p${i}`, device: `lan${i}`, zoneId: `z${i}`, networkId: n.id })),
    ],
    addresses,
    services,
    permits,
    forwards,
    translates: upTo(3) > 0,
    strictSources: upTo(3) > 0,
  });
}
