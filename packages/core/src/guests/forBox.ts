import { findMachine, hostsOfBox, findNetwork, type Bench, type Box } from '../model/bench';
import { knownFlag, knownNumber } from '../model/known';
import { guestPlanSchema, noGuests, type Guest, type GuestPlan, type GuestPool } from '../model/guests';
import { laidBox } from '../layout/forBox';
import { storageOf } from '../storage/forBox';
import { GIB } from '../units/bytes';
import { checkGuests, type GuestFinding } from './check';
import { plainName } from './plainName';
import { guestStart, installersOf, withInstallers, type Installer } from './start';
import { potOf, type Pot } from './pot';

/** What stop 10 knows of the guests of a box. */
export interface BoxGuests {
  plan: GuestPlan;
  /** Images that lie on the pools too. */
  installers: Installer[];
  /** The same with the room that installers take off the pools. */
  counted: GuestPlan;
  pot: Pot;
  findings: GuestFinding[];
}

/** Whether a box hosts guests. */
export const isHost = (box: Box): boolean => box.purpose === 'virtual machines' || box.guests !== null;

const lately = new WeakMap<Box, { bench: Bench; found: BoxGuests }>();

/** Guests of a box with the pot they share; worked out once for each state of the bench. */
export function guestsOf(bench: Bench, box: Box): BoxGuests {
  const before = lately.get(box);
  if (before?.bench === bench) return before.found;
  const plan = box.guests ?? noGuests();
  const machine = findMachine(bench, box.machineId);
  const pot = potOf(plan, {
    cores: knownNumber(machine, 'cpu.cores'),
    threads: knownNumber(machine, 'cpu.threads'),
    memory: knownNumber(machine, 'memory.bytes'),
  });
  const installers = installersOf(bench, plan);
  const counted = withInstallers(plan, installers);
  const findings = [
    ...checkGuests(counted, pot, knownFlag(machine, 'cpu.virtualisation')),
    ...plan.guests.flatMap((g) => checkImage(bench, g)),
  ];
  const found = { plan, installers, counted, pot, findings };
  lately.set(box, { bench, found });
  return found;
}

function checkImage(bench: Bench, g: Guest): GuestFinding[] {
  if (!g.on || g.imageId === null) return [];
  const { image, start } = guestStart(bench, g);
  if (!image) return [{ grade: 'check', fault: { code: 'not there', guest: g.name, missing: g.imageId } }];
  const about = { guest: g.name, image: image.name };
  if (!start) return [{ grade: 'check', fault: { code: 'image not read', ...about } }];
  return start.starts === 'no' ? [{ grade: 'stop', fault: { code: 'image does not start', ...about } }] : [];
}

/** Volumes of a box that guests could lie on: its pool, and what is left of the drive of its system. */
export function poolsOfBox(bench: Bench, box: Box): GuestPool[] {
  const out: GuestPool[] = [];
  const { chosen, pool } = storageOf(bench, box);
  if (chosen)
    out.push({
      id: 'pool',
      name: pool.name,
      bytes: chosen.room.usable,
      otherBytes: 0,
      thin: true,
      path: `/srv/${pool.name}/guests`,
    });
  const { drive } = laidBox(bench, box);
  if (drive)
    out.push({
      id: 'system',
      name: 'system drive',
      bytes: drive.bytes,
      // A plain host with its updates and logs. Common practice, no source.
      otherBytes: Math.min(drive.bytes, 32 * GIB),
      thin: true,
      path: '/srv/guests',
    });
  return out;
}

/** A plan to begin with: pools as they are laid out, a bridge into each network the box is in, and no guest. */
export function draftGuests(bench: Bench, box: Box): GuestPlan {
  const networks = hostsOfBox(bench, box.id).flatMap((h) => findNetwork(bench, h.networkId) ?? []);
  const laid = networks.length > 0 ? networks : bench.networks.slice(0, 1);
  return guestPlanSchema.parse({
    pools: poolsOfBox(bench, box),
    nets: laid.map((n, i) => ({
      id: `net-${n.id}`,
      name: plainName(n.name) || 'net',
      mode: 'bridge',
      bridge: `br${i}`,
      networkId: n.id,
      prefix: n.prefix,
    })),
  });
}

/** A guest with nothing said but its name: two cores, 2 GiB, a thin disk of 20 GiB. Common practice, no source. */
export const draftGuest = (plan: GuestPlan, id: string): Guest => ({
  id,
  name: `guest-${plan.guests.length + 1}`,
  purpose: '',
  on: true,
  cores: 2,
  memoryBytes: 2 * GIB,
  floorBytes: null,
  leastBytes: null,
  disks: plan.pools[0]
    ? [
        {
          id: `${id}-0`,
          bytes: 20 * GIB,
          poolId: plan.pools[0].id,
          thin: plan.pools[0].thin,
          usedBytes: null,
          growsPerDay: 0,
        },
      ]
    : [],
  nics: plan.nets[0] ? [{ netId: plan.nets[0].id, hardware: null }] : [],
  order: 100,
  delaySeconds: 30,
  autostart: true,
  weight: 5,
  screen: 'none',
  firmware: 'uefi',
  imageId: null,
  devices: [],
  nested: false,
  seed: null,
});
