import { findMachine, findProfile, storesOf, type Bench, type Box, type Store } from '../model/bench';
import { contentTitle, isBlank } from '../model/content';
import { knownNumber } from '../model/known';
import { noPool, type BoxPool, type PoolDrive, type PoolFault } from '../model/storage';
import { claimAgainst, type Claim } from '../plan/claims';
import { isPooledBy } from '../plan/medium';
import { laidBox } from '../layout/forBox';
import { systemDriveOf } from '../layout/systemDrive';
import { checkOffer, checkRoom, poolFinding, type PoolFinding, type Room } from './check';
import { poolDriveOf } from './poolDrive';
import { offer, type PoolOffer } from './ways';

/** A drive that may take part, and whether it does. */
export interface PoolCandidate {
  store: Store;
  drive: PoolDrive;
  taken: boolean;
  /** It is in the machine already. */
  inside: boolean;
  /** It carries the system: its port stays its own. */
  system: boolean;
  /** The other box that has reserved it or uses it; null where it is free. */
  held: Claim | null;
  /** What is known to be on it; empty where nothing is, or its serial was typed and it was wiped. */
  holds: string;
}

/** What stop 10 knows of the drives of a box. */
export interface BoxStorage {
  pool: BoxPool;
  candidates: PoolCandidate[];
  /** Drives that take part. */
  drives: PoolDrive[];
  /** The way that was taken, on the drives there are now; undefined where none was, or these drives do not make it. */
  chosen: PoolOffer | undefined;
  findings: PoolFinding[];
  room: Room;
}

/** Ports, bays, leads and memory of a machine with the adapters that were put aside for the box. */
export function roomOfBox(bench: Bench, box: Box): Room {
  const machine = findMachine(bench, box.machineId);
  const added = bench.items.reduce(
    (sum, i) => (i.kind === 'adapter' && box.parts.includes(i.id) ? sum + i.sataPorts : sum),
    0,
  );
  const sata = knownNumber(machine, 'ports.sata');
  const boot = laidBox(bench, box).drive;
  return {
    ports: sata === null ? null : sata + added,
    bays: knownNumber(machine, 'ports.bays'),
    leads: knownNumber(machine, 'power.sataLeads'),
    memory: knownNumber(machine, 'memory.bytes'),
    boot: boot && { id: boot.id, name: boot.name, port: boot.transport === 'sata' },
  };
}

/** Drives in the machine and loose ones; those that are proposed are in it, may be lost and carry no system. */
function candidatesOf(bench: Bench, box: Box, pool: BoxPool): PoolCandidate[] {
  const boot = systemDriveOf(bench, box) ?? laidBox(bench, box).drive ?? undefined;
  return storesOf(bench)
    .filter(
      (s) =>
        (s.kind === 'drive' && s.owned && (s.in === null || s.in === box.machineId)) ||
        pool.drives?.includes(s.id),
    )
    .map((store) => {
      const inside = store.in === box.machineId && store.in !== null;
      const system = store.id === boot?.id;
      const held = claimAgainst(bench, box, store.id);
      const wiped = store.serial !== null && pool.wiped.includes(store.serial);
      return {
        store,
        drive: poolDriveOf(bench, store),
        inside,
        system,
        taken: pool.drives
          ? pool.drives.includes(store.id)
          : // Before it is decided which drive takes the system none is proposed: it might be that one.
            boot !== undefined &&
            inside &&
            !system &&
            !held &&
            store.installed === null &&
            store.fate === 'may be lost' &&
            store.kind === 'drive',
        held: held ?? null,
        holds: wiped || isBlank(store.content) || isPooledBy(store, box) ? '' : contentTitle(store),
      };
    })
    .sort((a, b) => Number(b.inside) - Number(a.inside) || b.store.bytes - a.store.bytes);
}

/** What stands on drives that are about to become a pool. */
function checkContent(box: Box, candidates: readonly PoolCandidate[]): PoolFinding[] {
  return candidates
    .filter((c) => c.taken && !isPooledBy(c.store, box))
    .flatMap(({ store, holds, held }): PoolFinding[] => {
      const about = { drive: store.name, holds };
      const out: PoolFinding[] = [];
      const add = (grade: PoolFinding['grade'], fault: PoolFault): void =>
        void out.push(poolFinding(grade, fault, store.id));
      if (held)
        add('stop', { code: 'held drive in pool', drive: store.name, box: held.boxName, as: held.as });
      if (store.fate === 'keep') add('stop', { code: 'kept drive in pool', ...about });
      else if (store.fate === 'not decided') add('stop', { code: 'not decided in pool', ...about });
      else if (holds !== '') add('check', { code: 'not wiped', ...about });
      if (store.realBytes !== null && store.realBytes < store.bytes)
        add('stop', { code: 'claims more', drive: store.name, bytes: store.bytes });
      return out;
    });
}

const lately = new WeakMap<Box, { bench: Bench; found: BoxStorage }>();

/** Drives, way and findings of a box; worked out once for each state of the bench, because ledger and sheet both ask. */
export function storageOf(bench: Bench, box: Box): BoxStorage {
  const before = lately.get(box);
  if (before?.bench === bench) return before.found;
  const pool = box.pool ?? noPool();
  const candidates = candidatesOf(bench, box, pool);
  const drives = candidates.filter((c) => c.taken).map((c) => c.drive);
  const chosen = pool.way ? offer(pool.way, { drives, filled: pool.filled }) : undefined;
  const room = roomOfBox(bench, box);
  const findings = [
    ...checkContent(box, candidates),
    ...(chosen ? [...checkRoom(chosen, room), ...checkOffer(chosen)] : []),
  ];
  const found = { pool, candidates, drives, chosen, findings, room };
  lately.set(box, { bench, found });
  return found;
}

/** Whether a box is one that keeps things for others, so that it is asked for a pool and for copies. */
export function keepsThings(bench: Bench, box: Box): boolean {
  const profile = findProfile(bench, box.profileId);
  return box.purpose === 'file store' || (profile?.needs.dataDrives ?? 0) > 0 || box.pool !== null;
}
