import { hostsOfBox } from '../../model/bench';
import { cableFor } from '../../network/cable';
import { useOf } from '../../network/forBox';
import type { Scene } from '../scene';
import type { TradeLine } from './line';

/** Lines of the trade where a box gets its wire and its address. */
export function networkLines({ bench, box, machine, profile }: Scene): TradeLine[] {
  if (!machine) return [];
  const wired = machine.networkPorts.filter((p) => p.kind === 'wired').length;
  const [host] = hostsOfBox(bench, box.id);
  const use = host && useOf(bench, host);
  const wants = use?.wantsMbps ?? profile?.prefers.wiredMbps ?? null;
  const port = use?.portMbps ?? null;
  const carries = wants === null ? null : Math.min(wants, port ?? wants);
  const cable = carries === null ? undefined : cableFor(carries);
  return [
    ...(wired > 1 ? [{ code: 'one wire at a time' as const, machine: machine.name, ports: wired }] : []),
    ...(carries !== null && cable !== undefined
      ? [{ code: 'cable and port' as const, machine: machine.name, wants: carries, cable, port }]
      : []),
  ];
}
