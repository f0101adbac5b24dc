import type { GatePlan } from '../model/gate';
import { blankPermit } from '../rules/permits';
import { usualPlan } from '../rules/usual';
import { demoNetworks } from './network';

/**
 * The hall’s gate: guests were to read one page of the archive, and whoever let them in named no port. One promise fails by
 * it; everything else holds.
 */
export function hallGate(): GatePlan {
  const plan = usualPlan(demoNetworks, ['eth0', 'eth1'], [8443, 22]);
  const on = (id: string, socket: string): GatePlan['ports'] =>
    plan.ports.filter((p) => p.id === id).map((p) => ({ ...p, socket, megabits: 1000 }));
  return {
    ...plan,
    ports: [
      ...on('port-outside', 'nearer the power plug'),
      ...on('port-hall', 'nearer the corner'),
      ...on('port-guests', 'the same wire, by number'),
    ],
    addresses: [
      { id: 'archive', name: 'archive', entries: ['10.44.8.20', 'fd3c:71a4:9e02:8::14'] },
      { id: 'printer', name: 'printer', entries: ['10.44.8.90'] },
    ],
    services: [
      ...plan.services,
      { id: 'reading', name: 'reading room', entries: [{ protocol: 'tcp', ports: [8080, 8080], types: [] }] },
    ],
    permits: [
      ...plan.permits.map((p) =>
        p.id === 'guests-out' ? { ...p, hours: { from: 480, to: 1380, days: [] } } : p,
      ),
      {
        ...blankPermit('reading-room', 'guests', 'hall'),
        name: 'reading room',
        to: { zone: 'hall', addresses: ['archive'] },
      },
    ],
    promises: plan.promises.map((p) =>
      p.id === 'apart-guests' && p.kind === 'closed'
        ? { ...p, but: [{ addresses: ['archive'], services: ['reading'] }] }
        : p,
    ),
    seat: { zone: 'hall', address: '10.44.8.156', ports: [8443, 22] },
    upstream: ['100.72.16.1'],
  };
}
