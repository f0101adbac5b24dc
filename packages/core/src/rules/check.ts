import { interfaceOf, type GateFault, type GatePlan } from '../model/gate';
import type { Network } from '../model/network';
import { addressSpans, ofFamily } from '../units/addressLine';
import { overlap, parsePrefix } from '../units/prefix';
import { grouped } from '../units/group';
import { inSpans, sharedSpans } from '../units/spans';
import { groundOf } from './sides';
import { interfacesOf, prefixesOf } from './topology';

/** Something that is wrong with a plan, and how much it matters. */
export interface GateFinding {
  grade: 'stop' | 'check' | 'note';
  fault: GateFault;
}

/** What is wrong with a plan before any packet is looked at. */
export function checkGate(plan: GatePlan, networks: readonly Network[]): GateFinding[] {
  if (plan.zones.length === 0) return [];
  const out: GateFinding[] = [];
  const add = (grade: GateFinding['grade'], fault: GateFault): void => void out.push({ grade, fault });
  if (!plan.zones.some((z) => z.kind === 'outside')) add('stop', { code: 'no outside' });
  if (!plan.zones.some((z) => z.kind !== 'outside')) add('stop', { code: 'no inside' });
  for (const z of plan.zones)
    if (interfacesOf(plan, z.id).length === 0) add('stop', { code: 'zone without port', zone: z.name });
  for (const [port, list] of grouped(plan.ports, interfaceOf))
    if (list.length > 1) add('stop', { code: 'port twice', port });
  for (const p of plan.ports) {
    const zone = plan.zones.find((z) => z.id === p.zoneId);
    if (!zone) add('stop', { code: 'not there', what: interfaceOf(p), missing: p.zoneId });
    else if (zone.kind !== 'outside' && !networks.some((n) => n.id === p.networkId && n.prefix !== null))
      add('stop', { code: 'port without network', port: interfaceOf(p), zone: zone.name });
  }
  checkOverlaps(plan, networks, add);
  checkNames(plan, add);
  checkForwards(plan, networks, add);
  if (plan.seat === null) add('check', { code: 'no seat' });
  if (plan.promises.every((p) => !p.on)) add('check', { code: 'nothing promised' });
  for (const p of plan.permits)
    if (p.on && p.hours) add('note', { code: 'hours by the clock', permit: p.name || p.id });
  return out;
}

type Add = (grade: GateFinding['grade'], fault: GateFault) => void;

function checkOverlaps(plan: GatePlan, networks: readonly Network[], add: Add): void {
  const used = plan.ports.flatMap((p) => networks.find((n) => n.id === p.networkId) ?? []);
  used.forEach((a, i) => {
    for (const b of used.slice(i + 1)) {
      const meet = (['prefix', 'prefix6'] as const).some((k) => {
        const [x, y] = [a[k], b[k]].map((t) => (t === null ? undefined : parsePrefix(t)));
        return x && y && overlap(x, y);
      });
      if (meet) add('stop', { code: 'networks overlap', networks: [a.name, b.name] });
    }
  });
}

/** Sets and zones that are named and not there, and sets with nothing in them. */
function checkNames(plan: GatePlan, add: Add): void {
  const zones = new Set([...plan.zones.map((z) => z.id), 'gate']);
  const addresses = new Map(plan.addresses.map((a) => [a.id, a]));
  const services = new Set(plan.services.map((s) => s.id));
  for (const p of plan.permits) {
    const what = p.name || p.id;
    const missing = [
      ...[p.from.zone, p.to.zone].filter((z) => !zones.has(z)),
      ...[...p.from.addresses, ...p.to.addresses].filter((a) => !addresses.has(a)),
      ...p.services.filter((s) => !services.has(s)),
    ];
    for (const m of missing) add('stop', { code: 'not there', what, missing: m });
    const families = ([4, 6] as const).filter((f) =>
      [p.from.addresses, p.to.addresses].every((ids) => {
        const entries = ids.flatMap((i) => addresses.get(i)?.entries ?? []);
        return ids.length === 0 || ofFamily(addressSpans(entries), f).length > 0;
      }),
    );
    if (families.length === 0) add('check', { code: 'set of one family', permit: what });
  }
  for (const a of plan.addresses)
    if (a.entries.length === 0) add('check', { code: 'empty set', set: a.name });
}

function checkForwards(plan: GatePlan, networks: readonly Network[], add: Add): void {
  const on = plan.forwards.filter((f) => f.on);
  on.forEach((a, i) => {
    const twice = on
      .slice(i + 1)
      .filter(
        (b) =>
          a.protocol === b.protocol &&
          a.ports[0] <= b.ports[1] &&
          b.ports[0] <= a.ports[1] &&
          a.sources.join() === b.sources.join(),
      );
    if (twice.length > 0)
      add('check', { code: 'forward twice', forwards: [a.name, ...twice.map((b) => b.name)] });
  });
  const inner = addressSpans(
    plan.zones.filter((z) => z.kind !== 'outside').flatMap((z) => prefixesOf(plan, networks, z.id)),
  );
  const { routes } = groundOf(plan, networks);
  for (const f of on) {
    const to = addressSpans([f.to]);
    const own = to[0] !== undefined && inSpans(routes.own, to[0][0]);
    if (sharedSpans(to, inner).length === 0)
      add('stop', { code: 'forward to nowhere', forward: f.name, to: f.to });
    const page = plan.seat?.ports.find((p) => own && (f.toPort ?? f.ports[0]) === p);
    if (page !== undefined) add('stop', { code: 'forward of the page', forward: f.name, port: page });
  }
}
