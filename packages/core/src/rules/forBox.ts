import {
  findMachine,
  findProfile,
  hostsOfBox,
  type Bench,
  type Box,
  type Host,
  type Network,
} from '../model/bench';
import { noGate, type GatePlan } from '../model/gate';
import { knownFlag, knownNumber } from '../model/known';
import { gateReport, type GateReport } from './report';
import type { Carrier } from './pace';
import { usualPlan } from './usual';

/** Permits up to which a plan is judged by the way, for the ledger; larger ones on a thread when their sheet is open. */
const BY_THE_WAY = 120;

/** What stop 10 knows of the rules of a box. */
export interface BoxGate {
  plan: GatePlan;
  networks: readonly Network[];
  hosts: readonly Host[];
}

/** Rules of a box with the networks around it. */
export const gateOf = (bench: Bench, box: Box): BoxGate => ({
  plan: box.gate ?? noGate(),
  networks: bench.networks,
  hosts: bench.hosts,
});

/** Whether a box is a gate, and is asked for rules. */
export const isGate = (box: Box): boolean => box.purpose === 'firewall' || box.gate !== null;

const lately = new WeakMap<
  GatePlan,
  { networks: Bench['networks']; hosts: Bench['hosts']; report: GateReport | null }
>();

/** A plan judged by the way; null where it is too large for that, or nothing was decided. */
export function reportOfBox(bench: Bench, box: Box): GateReport | null {
  const plan = box.gate;
  if (!plan || plan.zones.length === 0) return null;
  const before = lately.get(plan);
  if (before?.networks === bench.networks && before.hosts === bench.hosts) return before.report;
  const small = plan.permits.length + plan.forwards.length <= BY_THE_WAY && plan.zones.length <= 12;
  const report = small ? gateReport(plan, bench.networks, bench.hosts) : null;
  lately.set(plan, { networks: bench.networks, hosts: bench.hosts, report });
  return report;
}

/** A plan for a box to begin with: its machine's sockets, the networks it has a place in, or all that are laid out. */
export function draftGate(bench: Bench, box: Box): GatePlan {
  const mine = hostsOfBox(bench, box.id).map((h) => h.networkId);
  const laid = bench.networks.filter((n) => n.prefix !== null);
  const own = laid.filter((n) => mine.includes(n.id));
  const machine = findMachine(bench, box.machineId);
  const devices = machine?.networkPorts.filter((p) => p.kind === 'wired').map((p) => p.name) ?? [];
  const admin = findProfile(bench, box.profileId)?.admin;
  return usualPlan(own.length > 1 ? own : laid, devices.length > 1 ? devices : ['eth0', 'eth1'], [
    admin?.port ?? 443,
    22,
  ]);
}

/** What the machine of a box brings to carrying packets. */
export function carrierOf(bench: Bench, box: Box): Carrier {
  const machine = findMachine(bench, box.machineId);
  const mhz = knownNumber(machine, 'cpu.mhz');
  const speed = knownNumber(machine, 'network.speed');
  const slowest = (box.gate?.ports ?? []).flatMap((p) => (p.megabits === null ? [] : [p.megabits]));
  const link = slowest.length > 0 ? Math.min(...slowest) : speed;
  return {
    cores: knownNumber(machine, 'cpu.cores'),
    hertz: mhz === null ? null : mhz * 1e6,
    year: knownNumber(machine, 'cpu.year'),
    small: machine?.form === 'board',
    aes: knownFlag(machine, 'cpu.aes'),
    linkBits: link === null ? null : link * 1e6,
  };
}
