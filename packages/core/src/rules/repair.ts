import { GATE, type GatePlan, type Permit } from '../model/gate';
import type { Host, Network } from '../model/network';
import { blankPermit } from './permits';
import { TooManyClasses } from './forest';
import { judgePlan, type Kept, type SeatHeld } from './promises';

/** One change that mends a promise. */
export type Mend =
  | { kind: 'permit off'; permit: string }
  | { kind: 'permit narrowed'; permit: string; services: string[] }
  | { kind: 'permit added'; permit: Permit }
  | { kind: 'forward off'; forward: string }
  | { kind: 'sources checked' };

/** A change, and the plan after it. */
export interface Repair {
  mend: Mend;
  plan: GatePlan;
}

/** A plan with a change made. */
export function mended(plan: GatePlan, mend: Mend): GatePlan {
  switch (mend.kind) {
    case 'permit off':
      return { ...plan, permits: plan.permits.map((p) => (p.id === mend.permit ? { ...p, on: false } : p)) };
    case 'permit narrowed':
      return {
        ...plan,
        permits: plan.permits.map((p) => (p.id === mend.permit ? { ...p, services: mend.services } : p)),
      };
    case 'permit added':
      // Before all others: nothing that refuses may stand before it.
      return { ...plan, permits: [mend.permit, ...plan.permits] };
    case 'forward off':
      return {
        ...plan,
        forwards: plan.forwards.map((f) => (f.id === mend.forward ? { ...f, on: false } : f)),
      };
    case 'sources checked':
      return { ...plan, strictSources: true };
  }
}

/** Changes that might mend a promise, most careful first. */
function candidates(plan: GatePlan, kept: Kept): Mend[] {
  const { promise, walk } = kept;
  if (promise.kind === 'own sources') return plan.strictSources ? [] : [{ kind: 'sources checked' }];
  if (promise.kind === 'reaches') {
    const { from, to, services, family } = promise;
    return [{ kind: 'permit added', permit: permitOf(`for-${promise.id}`, from, to, services, family) }];
  }
  if (promise.kind !== 'closed') return [];
  const by = /^permit (.+?)(\.\d+)?$/.exec(walk?.by ?? '')?.[1];
  const permit = plan.permits.find((p) => p.id === by);
  const forward = plan.forwards.find((f) => walk?.translated?.rule.startsWith(`arrive ${f.id}`));
  const named = [...new Set(promise.but.flatMap((b) => b.services))];
  return [
    ...(permit && named.length > 0
      ? [{ kind: 'permit narrowed' as const, permit: permit.id, services: named }]
      : []),
    ...(forward ? [{ kind: 'forward off' as const, forward: forward.id }] : []),
    ...(permit ? [{ kind: 'permit off' as const, permit: permit.id }] : []),
  ];
}

const permitOf = (
  id: string,
  from: Permit['from'],
  to: Permit['to'],
  services: string[],
  family: Permit['family'],
): Permit => ({ ...blankPermit(id, from.zone, to.zone), from, to, services, family });

const GOOD: ReadonlySet<Kept['verdict']> = new Set(['holds', 'about nothing']);
const worse = (before: readonly Kept[], after: readonly Kept[]): boolean =>
  before.some(
    (k) =>
      GOOD.has(k.verdict) && !GOOD.has(after.find((a) => a.promise.id === k.promise.id)?.verdict ?? 'fails'),
  );

/** Judged again after a change; a change that cannot be judged is none that is offered. */
function judged(plan: GatePlan, networks: readonly Network[], hosts: readonly Host[]) {
  try {
    return judgePlan(plan, networks, { hosts });
  } catch (error) {
    if (error instanceof TooManyClasses) return undefined;
    throw error;
  }
}

/** Changes that mend a broken promise and break no other, each tried out over every packet. Shapes: most careful first. */
export function repairsOf(
  plan: GatePlan,
  networks: readonly Network[],
  hosts: readonly Host[],
  kept: readonly Kept[],
  broken: Kept,
): Repair[] {
  return candidates(plan, broken).flatMap((mend) => {
    const after = mended(plan, mend);
    const found = judged(after, networks, hosts);
    const now = found?.kept.find((k) => k.promise.id === broken.promise.id);
    return found && now && GOOD.has(now.verdict) && !worse(kept, found.kept) ? [{ mend, plan: after }] : [];
  });
}

/** The change that lets whoever sits there to the page again; none where the seat itself is not in its zone. */
export function seatRepair(
  plan: GatePlan,
  networks: readonly Network[],
  hosts: readonly Host[],
  seat: readonly SeatHeld[],
): Repair[] {
  const at = plan.seat;
  if (!at || seat.every((s) => s.verdict === 'holds')) return [];
  const id = 'seat-page';
  const set = plan.services.find((s) =>
    at.ports.every((p) => s.entries.some((e) => e.protocol === 'tcp' && e.ports?.[0] === p)),
  );
  const withSet: GatePlan = set
    ? plan
    : {
        ...plan,
        services: [
          ...plan.services,
          {
            id,
            name: 'page and shell',
            entries: at.ports.map((p) => ({
              protocol: 'tcp' as const,
              ports: [p, p] as [number, number],
              types: [],
            })),
          },
        ],
      };
  const side = { addresses: [] };
  const permit = permitOf(id, { zone: at.zone, ...side }, { zone: GATE, ...side }, [set?.id ?? id], null);
  const mend: Mend = { kind: 'permit added', permit };
  const after = mended(withSet, mend);
  return judged(after, networks, hosts)?.seat.every((s) => s.verdict === 'holds')
    ? [{ mend, plan: after }]
    : [];
}
