import type { BoxPool, PoolDrive, PoolFault } from '../model/storage';
import { differenceInCalendarDays, parseISO } from 'date-fns';
import { grouped } from '../units/group';
import { boundBy, membersOf } from './placed';
import { readRateOf } from './poolDrive';
import type { PoolOffer } from './ways';

/** A fault of a pool with its grade, and the drive it is about. */
export interface PoolFinding {
  grade: 'stop' | 'check' | 'note';
  fault: PoolFault;
  /** Id of the drive it is about, where it is about one. */
  store?: string;
}

/** A drive that used up so much of its rated life is looked at first. Common practice, no source. */
const WORN = 80;
/** Hours after which turning drives fail more often: five years. Common practice, no source. */
const OLD_HOURS = 5 * 365.25 * 24;
/** A share lost to smaller drives that is worth a word. */
const LOST = 0.1;
/** A chance of a read fault that is worth a word. */
const LIKELY = 0.05;
/** A drive so much slower than the others holds all of them up. */
const SLOW = 0.6;

/** What the machine has for drives: ports, bays and power leads; null where nobody counted them. */
export interface Room {
  ports: number | null;
  bays: number | null;
  leads: number | null;
  /** Bytes of memory. */
  memory: number | null;
  /** The drive its system starts from, which keeps its port. */
  boot: { id: string; name: string; port: boolean } | null;
}

/** A finding by its parts. */
export const poolFinding = (grade: PoolFinding['grade'], fault: PoolFault, store?: string): PoolFinding =>
  store === undefined ? { grade, fault } : { grade, fault, store };

/** Drives of one model and one age stand together: they wear out together. */
function alike(drives: readonly PoolDrive[]): PoolFinding[] {
  // A thousand hours apart is about six weeks of running: bought together.
  const age = (d: PoolDrive): string => (d.hours === null ? '' : String(Math.round(d.hours / 1000)));
  const by = grouped(drives, (d) => (d.model === null ? undefined : `${d.model} ${d.bytes} ${age(d)}`));
  return [...by.values()]
    .filter((same) => same.length > 1)
    .map((same) => poolFinding('note', { code: 'drives alike', drives: same.map((d) => d.name) }));
}

function ofDrives(drives: readonly PoolDrive[]): PoolFinding[] {
  const out: PoolFinding[] = alike(drives);
  for (const d of drives) {
    if (d.wear !== null && d.wear >= WORN)
      out.push(poolFinding('check', { code: 'worn', drive: d.name, wear: d.wear }, d.id));
    if (d.badSectors !== null && d.badSectors > 0)
      out.push(poolFinding('check', { code: 'bad sectors', drive: d.name, sectors: d.badSectors }, d.id));
    if (d.rotational !== false && d.hours !== null && d.hours >= OLD_HOURS)
      out.push(
        poolFinding('note', { code: 'old drive', drive: d.name, years: Math.round(d.hours / 8766) }, d.id),
      );
    if (d.removable) out.push(poolFinding('check', { code: 'removable in pool', drive: d.name }, d.id));
  }
  const known = drives.filter((d) => d.sectorBytes !== null);
  const small = known.filter((d) => d.sectorBytes === 512);
  if (small.length > 0 && small.length < known.length)
    out.push(poolFinding('note', { code: 'sectors of two sizes', drives: small.map((d) => d.name) }));
  const open = drives.filter((d) => d.sectorBytes === null);
  if (open.length > 0)
    out.push(poolFinding('note', { code: 'sector not known', drives: open.map((d) => d.name) }));
  const turning = drives.filter((d) => d.rotational === true);
  const names = (list: readonly PoolDrive[]): string[] => list.map((d) => d.name);
  const shingled = turning.filter((d) => d.shingled === true);
  const untold = turning.filter((d) => d.shingled === null);
  if (shingled.length > 0) out.push(poolFinding('check', { code: 'shingled', drives: names(shingled) }));
  if (untold.length > 0) out.push(poolFinding('note', { code: 'shingled not known', drives: names(untold) }));
  const fast = Math.max(...drives.map((d) => readRateOf(d).fast));
  for (const d of drives)
    if (readRateOf(d).fast < fast * SLOW)
      out.push(poolFinding('note', { code: 'slow drive', drive: d.name, rate: readRateOf(d).fast }, d.id));
  return out;
}

/** What its way and its drives let one expect: worn ones, bad pairings, what it cannot do. */
export function checkOffer(o: PoolOffer): PoolFinding[] {
  const { way } = o.pool;
  const drives = membersOf(o.pool);
  const out = ofDrives(drives);
  if (o.survival.any === 0)
    out.push(
      poolFinding(drives.length > 1 ? 'check' : 'note', { code: 'survives none', drives: drives.length }),
    );
  // Sums tell that a block is wrong; to mend it there has to be another one (btrfs(5), “Checksumming”; zpool-scrub(8)).
  if (way.manner !== 'plain' && o.survival.any === 0) out.push(poolFinding('note', { code: 'cannot mend' }));
  const lost = o.room.takes.find((t) => t.what === 'lost to smaller')?.bytes ?? 0;
  const raw = drives.reduce((sum, d) => sum + d.bytes, 0);
  if (lost > raw * LOST)
    out.push(poolFinding('note', { code: 'lost to smaller', bytes: lost, share: lost / raw }));
  if (o.rebuild && !o.rebuild.fault.mended && o.rebuild.fault.chance > LIKELY)
    out.push(poolFinding('check', { code: 'read fault likely', chance: o.rebuild.fault.chance }));
  // Linux, Documentation/driver-api/md/raid5-ppl.rst and raid5-cache.rst: RAID 5 has a log of partial parity, RAID 6 a journal alone.
  if (way.manner === 'plain' && way.shape === 'parity')
    out.push(
      poolFinding('check', {
        code: 'write hole',
        closed: way.level === 1 ? 'partial parity log' : 'journal',
      }),
    );
  // Its makers call it not ready for use (btrfs(5), “RAID56 status”).
  if (way.manner === 'groups' && way.shape === 'parity')
    out.push(poolFinding('check', { code: 'parity of groups' }));
  return out;
}

/** What the machine has no room for. */
export function checkRoom(o: PoolOffer, room: Room): PoolFinding[] {
  const inside = boundBy(o.pool);
  const out: PoolFinding[] = [];
  const boot = room.boot;
  const asBoot = boot && inside.find((d) => d.id === boot.id);
  if (asBoot) out.push(poolFinding('stop', { code: 'boot drive in pool', drive: asBoot.name }, asBoot.id));
  const wanted = inside.filter((d) => !d.removable).length + (boot && !asBoot && boot.port ? 1 : 0);
  if (room.ports !== null && wanted > room.ports)
    out.push(poolFinding('stop', { code: 'too many for ports', drives: wanted, ports: room.ports }));
  if (room.bays !== null && wanted > room.bays)
    out.push(poolFinding('check', { code: 'too many for bays', drives: wanted, bays: room.bays }));
  if (room.leads !== null && wanted > room.leads)
    out.push(poolFinding('check', { code: 'too many leads', drives: wanted, leads: room.leads }));
  if (room.memory !== null && room.memory < o.memory.least)
    out.push(poolFinding('check', { code: 'little memory', has: room.memory, wants: o.memory.least }));
  else if (room.memory !== null && room.memory < o.memory.well)
    out.push(poolFinding('note', { code: 'little memory', has: room.memory, wants: o.memory.well }));
  return out;
}

/** Whether everything is read through as often as it was decided; `today` is a calendar day. */
export function checkScrub(pool: Pick<BoxPool, 'scrubDays' | 'scrubbed'>, today: string): PoolFinding[] {
  if (pool.scrubDays === null) return [poolFinding('check', { code: 'never read through' })];
  if (pool.scrubbed === null) return [];
  const days = differenceInCalendarDays(parseISO(today), parseISO(pool.scrubbed));
  return days > pool.scrubDays
    ? [poolFinding('check', { code: 'read through late', days, every: pool.scrubDays })]
    : [];
}
