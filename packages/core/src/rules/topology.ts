import type { GatePlan, GatePortPlan } from '../model/gate';
import { interfaceOf } from '../model/gate';
import type { Network } from '../model/network';
import { joinSpans, type Spans } from '../units/spans';
import type { Routes } from './routes';
import type { GatePort, Topology } from './ruleset';

/**
 * Interfaces of a plan as routes need them, and the kernel's settings as `write/sysctl.ts` writes them. Towards the outside the gate has what was set by hand, or what the line gives.
 */
export function topologyOf(plan: GatePlan, networks: readonly Network[]): Topology {
  return { ports: plan.ports.map((p) => portOf(plan, p, networks)), reversePath: true };
}

function portOf(plan: GatePlan, p: GatePortPlan, networks: readonly Network[]): GatePort {
  const network = networks.find((n) => n.id === p.networkId);
  const outside = plan.zones.find((z) => z.id === p.zoneId)?.kind === 'outside';
  const own =
    p.own.length > 0 ? p.own : [network?.gateway, network?.gateway6].filter((a) => typeof a === 'string');
  return {
    name: interfaceOf(p),
    own,
    fromLine: outside,
    prefixes: network ? [network.prefix, network.prefix6].filter((t) => t !== null) : [],
    outside,
  };
}

/** Prefixes of all ports of a zone. */
export const prefixesOf = (plan: GatePlan, networks: readonly Network[], zoneId: string): string[] =>
  plan.ports.filter((p) => p.zoneId === zoneId).flatMap((p) => portOf(plan, p, networks).prefixes);

/** Names of all interfaces of a zone. */
export const interfacesOf = (plan: GatePlan, zoneId: string): string[] =>
  plan.ports.filter((p) => p.zoneId === zoneId).map(interfaceOf);

/** Addresses that lie behind the interfaces of a zone. */
export const behindZone = (plan: GatePlan, routes: Routes, zoneId: string): Spans =>
  joinSpans(...interfacesOf(plan, zoneId).map((n) => routes.behind.get(n) ?? []));

/** The zone an interface is in. */
export const zoneOfInterface = (plan: GatePlan, name: string): string | undefined =>
  plan.ports.find((p) => interfaceOf(p) === name)?.zoneId;
