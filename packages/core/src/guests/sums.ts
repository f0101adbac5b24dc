import type { Guest, GuestPlan, GuestPool } from '../model/guests';
import type { Pot } from './pot';

/** How far more cores are given away than there are. Common practice, no source: 1, 2, 4 and 8 to a thread. */
export const commitGrades = ['none', 'light', 'usual', 'heavy', 'too much'] as const;
/** One of them. */
export type CommitGrade = (typeof commitGrades)[number];

/** The grade of so many cores to a thread. */
export const commitGrade = (ratio: number): CommitGrade =>
  ratio <= 1 ? 'none' : ratio <= 2 ? 'light' : ratio <= 4 ? 'usual' : ratio <= 8 ? 'heavy' : 'too much';

/** Memory of all guests that run. Bytes. */
export interface MemorySum {
  has: number;
  base: number;
  cache: number;
  /** Of all guests together. */
  overhead: number;
  /** What is left for guests. */
  left: number;
  /** What they ask at most, and with what they can be made to do. */
  most: number;
  floor: number;
  /** Left at most and at their floors; below zero: so much is missing. */
  free: number;
  freeAtFloor: number;
}

/** Cores of all guests that run. */
export interface CoreSum {
  threads: number;
  cores: number;
  ratio: number;
  grade: CommitGrade;
}

/** Disks in one pool. Bytes. */
export interface PoolSum {
  pool: GuestPool;
  /** Room for guests. */
  has: number;
  /** Disks that take all of it at once. */
  thick: number;
  /** Disks that take what was written: promised, and written so far. */
  promised: number;
  written: number;
  /** Disks of which nobody knows what was written. */
  notKnown: number;
  free: number;
  /** Promised and taken together, to what there is. */
  factor: number;
  /** Growth of a day, and days until it is full; null: it does not grow. */
  perDay: number;
  daysLeft: number | null;
  /** Guests that stop when it is full. */
  stops: string[];
}

/** Guests that are to run. */
export const running = (plan: GuestPlan): Guest[] => plan.guests.filter((g) => g.on);

/** With how little a guest can be made to do while it runs. One that holds a device keeps all of its memory. */
export const floorOf = (g: Guest): number =>
  g.floorBytes === null || g.devices.length > 0 ? g.memoryBytes : Math.min(g.floorBytes, g.memoryBytes);

/** Memory; undefined where nobody knows how much there is. */
export function memorySum(plan: GuestPlan, pot: Pot): MemorySum | undefined {
  if (pot.memory === null) return undefined;
  const on = running(plan);
  const { base, cache, perGuest } = pot.reserve;
  const overhead = on.length * perGuest;
  const left = pot.memory - base - cache - overhead;
  const most = on.reduce((sum, g) => sum + g.memoryBytes, 0);
  const floor = on.reduce((sum, g) => sum + floorOf(g), 0);
  return {
    has: pot.memory,
    base,
    cache,
    overhead,
    left,
    most,
    floor,
    free: left - most,
    freeAtFloor: left - floor,
  };
}

/** Cores; undefined where nobody knows how many threads there are. */
export function coreSum(plan: GuestPlan, pot: Pot): CoreSum | undefined {
  if (pot.threads === null) return undefined;
  const cores = running(plan).reduce((sum, g) => sum + g.cores, 0);
  const threads = Math.max(1, pot.threads - pot.reserve.threads);
  const ratio = cores / threads;
  return { threads: pot.threads, cores, ratio, grade: commitGrade(ratio) };
}

/** Every pool with its disks; a guest that does not run keeps them. */
export function poolSums(plan: GuestPlan): PoolSum[] {
  return plan.pools.map((pool): PoolSum => {
    const disks = plan.guests.flatMap((g) =>
      g.disks.filter((d) => d.poolId === pool.id).map((d) => ({ g, d })),
    );
    const thin = disks.filter(({ d }) => d.thin && pool.thin).map(({ d }) => d);
    const thick = disks.filter(({ d }) => !(d.thin && pool.thin)).reduce((sum, { d }) => sum + d.bytes, 0);
    const promised = thin.reduce((sum, d) => sum + d.bytes, 0);
    const written = thin.reduce((sum, d) => sum + Math.min(d.usedBytes ?? 0, d.bytes), 0);
    const has = Math.max(0, pool.bytes - pool.otherBytes);
    const free = has - thick - written;
    const perDay = thin.reduce((sum, d) => sum + ((d.usedBytes ?? 0) < d.bytes ? d.growsPerDay : 0), 0);
    return {
      pool,
      has,
      thick,
      promised,
      written,
      notKnown: thin.filter((d) => d.usedBytes === null).length,
      free,
      factor: has === 0 ? (thick + promised > 0 ? Infinity : 0) : (thick + promised) / has,
      perDay,
      daysLeft: daysUntilFull(thin, free),
      // A disk that has all of its room already goes on writing.
      stops: [...new Set(disks.filter(({ d }) => d.thin && pool.thin).map(({ g }) => g.name))],
    };
  });
}

/** Days until thin disks that grow have taken what is free; each stops growing where it is full. Null: they never do. */
function daysUntilFull(
  disks: readonly { bytes: number; usedBytes: number | null; growsPerDay: number }[],
  free: number,
): number | null {
  if (free <= 0) return 0;
  let left = free;
  let days = 0;
  let growing = disks
    .filter((d) => d.growsPerDay > 0)
    .map((d) => ({ rest: d.bytes - (d.usedBytes ?? 0), rate: d.growsPerDay }))
    .filter((d) => d.rest > 0);
  while (growing.length > 0) {
    const rate = growing.reduce((sum, d) => sum + d.rate, 0);
    const next = Math.min(...growing.map((d) => d.rest / d.rate));
    if (rate * next >= left) return days + left / rate;
    left -= rate * next;
    days += next;
    growing = growing.map((d) => ({ ...d, rest: d.rest - d.rate * next })).filter((d) => d.rest > 1e-6);
  }
  return null;
}

/** How much more memory one guest could be given while all others keep theirs; below zero: it has too much already. */
export const couldGrow = (plan: GuestPlan, pot: Pot): number => memorySum(plan, pot)?.free ?? 0;
