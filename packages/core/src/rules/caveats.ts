import type { GatePromise } from '../model/gate';
import { serviceClauses, servicesOf } from './clauses';
import { hasPorts, PROTOCOL } from './protocols';
import type { Ground } from './sides';

/** What a verdict about packets does not cover, though it matters to whoever relies on it. */
export type Caveat = 'no ports under masquerading' | 'full connection table' | 'one wire' | 'kernel settings';

/** Protocols that a translation tells apart by something of their own (RFC 5508 §3.1: an echo by its identifier). */
const TOLD_APART = new Set<number>([PROTOCOL.icmp, PROTOCOL.icmpv6]);

/** Is some packet of these services without ports, so that a translation cannot tell two conversations apart? */
function hasPortless({ plan }: Ground, services: readonly string[]): boolean {
  const clauses = serviceClauses(servicesOf(plan, services));
  return clauses.some(({ spans }) => {
    const protocols = spans.proto ?? [[0n, 255n] as const];
    return protocols.some(([from, to]) => {
      for (let n = from; n <= to; n += 1n)
        if (!hasPorts(Number(n)) && !TOLD_APART.has(Number(n))) return true;
      return false;
    });
  });
}

/**
 * What stands beside a verdict. `reaches`: behind one address two machines cannot both speak a protocol without ports to one
 * destination (RFC 3022 §2.2), and nothing new begins while the table of connections is full (Linux, nf_conntrack_max).
 * `closed`: machines on one wire speak without the gate. Common practice, no source. What comes under a strange address is dropped
 * by the settings that `write/sysctl.ts` writes.
 */
export function caveatsOf(ground: Ground, promise: GatePromise): Caveat[] {
  const { plan } = ground;
  if (promise.kind === 'closed') return ['one wire', 'kernel settings'];
  if (promise.kind === 'own sources') return ['kernel settings'];
  if (promise.kind !== 'reaches') return [];
  const target = plan.zones.find((z) => z.id === promise.to.zone);
  const masqueraded = plan.translates && target?.kind === 'outside' && promise.family !== 6;
  return [
    ...(masqueraded && hasPortless(ground, promise.services)
      ? (['no ports under masquerading'] as const)
      : []),
    'full connection table',
  ];
}
