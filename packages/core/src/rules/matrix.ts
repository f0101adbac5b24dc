import { GATE, type Forward, type GatePlan, type Permit } from '../model/gate';
import type { Network } from '../model/network';
import { addressSpans } from '../units/addressLine';
import { sharedSpans } from '../units/spans';
import type { Kept } from './promises';
import { groundOf } from './sides';
import { behindZone, zoneOfInterface } from './topology';

/** Who may begin what from one side to another. */
export interface Crossing {
  from: string;
  to: string;
  permits: Permit[];
  /** Ports that lead from outside to hosts there. */
  forwards: Forward[];
  /** A promise fails by a packet that crosses here. */
  broken: boolean;
}

/** All sides of a plan in their order, the gate itself last. */
export const sidesOf = (plan: GatePlan): string[] => [...plan.zones.map((z) => z.id), GATE];

/** Sides by sides: a line for each side that begins, and in it a crossing for each side it may begin with; null with itself. */
export function matrixOf(
  plan: GatePlan,
  networks: readonly Network[],
  kept: readonly Kept[],
): { from: string; cells: (Crossing | null)[] }[] {
  const sides = sidesOf(plan);
  const { routes } = groundOf(plan, networks);
  const broken = new Set(kept.filter((k) => k.verdict === 'fails').map((k) => brokenAt(plan, k)));
  const leads = (f: Forward, to: string): boolean =>
    sharedSpans(addressSpans([f.to]), behindZone(plan, routes, to)).length > 0;
  return sides.map((from) => ({
    from,
    cells: sides.map((to) =>
      from === to
        ? null
        : {
            from,
            to,
            permits: plan.permits.filter((p) => p.from.zone === from && p.to.zone === to),
            forwards:
              plan.zones.find((z) => z.id === from)?.kind === 'outside'
                ? plan.forwards.filter((f) => leads(f, to))
                : [],
            broken: broken.has(`${from} ${to}`),
          },
    ),
  }));
}

/** The crossing a packet that breaks a promise takes. */
function brokenAt(plan: GatePlan, { packet, walk, promise }: Kept): string {
  if (!packet) return '';
  const from = zoneOfInterface(plan, packet.iif) ?? GATE;
  const to = walk?.out == null ? null : zoneOfInterface(plan, walk.out);
  if (to !== null && to !== undefined) return `${from} ${to}`;
  return promise.kind === 'reaches' ? `${from} ${promise.to.zone}` : `${from} ${GATE}`;
}
