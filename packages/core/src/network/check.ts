import type { Host, NetworkPlan } from '../model/network';
import { checkAmong, checkHost, type HostUse } from './checkHost';
import { checkNetwork, checkTogether } from './checkNetwork';
import type { NetworkFinding } from './finding';

const RANK = { stop: 0, check: 1, note: 2 };

/** Findings, the gravest first; those alike in the order they came. */
export const byGrade = (found: readonly NetworkFinding[]): NetworkFinding[] =>
  found
    .map((f, i) => ({ f, i }))
    .sort((a, b) => RANK[a.f.grade] - RANK[b.f.grade] || a.i - b.i)
    .map((x) => x.f);

/** Hosts by the network they live in, in the order of the list. */
export function hostsByNetwork(hosts: readonly Host[]): Map<string, Host[]> {
  const out = new Map<string, Host[]>();
  for (const host of hosts)
    if (host.networkId !== null) {
      const there = out.get(host.networkId);
      if (there) there.push(host);
      else out.set(host.networkId, [host]);
    }
  return out;
}

/** Everything that is wrong with networks and the hosts in them but their domains, the gravest first. `use` tells what a host is for. */
export function checkPlan(
  { networks, hosts }: NetworkPlan,
  use: (host: Host) => HostUse | undefined = () => undefined,
): NetworkFinding[] {
  const of = hostsByNetwork(hosts);
  const found = [
    ...networks.flatMap((n) => {
      const there = of.get(n.id) ?? [];
      return [...checkNetwork(n, there.filter((h) => h.manner === 'pool').length), ...checkAmong(n, there)];
    }),
    ...checkTogether(networks),
    ...hosts.flatMap((h) =>
      checkHost(
        h,
        networks.find((n) => n.id === h.networkId),
        use(h),
      ),
    ),
  ];
  return byGrade(found);
}
