import type { PoolAsk, PoolDrive, PoolWay } from '../model/storage';
import { costsOf, memoryOf, type PoolCosts, type PoolMemory } from './costs';
import { growthOf, type Growth } from './grow';
import { bySize, leastDrives, mostDrives, rowsOf, type PlacedPool } from './placed';
import { ratesOf, type PoolRates } from './rates';
import { rebuildOf, type Rebuild } from './rebuild';
import { roomOf, type PoolRoom } from './room';
import { survivalOf, type Survival } from './survives';

/** A way with all that is told of it. */
export interface PoolOffer {
  pool: PlacedPool;
  room: PoolRoom;
  survival: Survival;
  rates: PoolRates;
  /** Undefined where nothing keeps a drive’s content. */
  rebuild: Rebuild | undefined;
  memory: PoolMemory;
  costs: PoolCosts;
  growth: Growth;
}

const way = (manner: PoolWay['manner'], shape: PoolWay['shape'], level = 1, spare = false): PoolWay => ({
  manner,
  shape,
  level,
  spare,
});

/** Every way there is; which of them make sense depends on how many drives there are. */
const WAYS: readonly PoolWay[] = [
  way('groups', 'copies', 2),
  way('groups', 'copies', 3),
  way('groups', 'parity', 1),
  way('groups', 'parity', 2),
  way('groups', 'joined'),
  way('groups', 'single'),
  way('padded', 'mirror', 2),
  way('padded', 'mirror', 3),
  way('padded', 'pairs', 2),
  way('padded', 'parity', 1),
  way('padded', 'parity', 2),
  way('padded', 'parity', 3),
  way('padded', 'joined'),
  way('padded', 'single'),
  way('plain', 'mirror', 2),
  way('plain', 'mirror', 3),
  way('plain', 'pairs', 2),
  way('plain', 'parity', 1),
  way('plain', 'parity', 2),
  way('plain', 'joined'),
  way('plain', 'single'),
];

/** Ways in which a drive may wait beside the others. */
const mayWait = ({ manner, shape }: PoolWay): boolean =>
  manner !== 'groups' && (shape === 'mirror' || shape === 'pairs' || shape === 'parity');

/**
 * A way on these drives, with as many of the largest as give most room: rows go by their smallest drive, so that no other
 * choice gives more, but for the few MiB by which data begins later on a larger first drive of a plain row. Undefined where
 * there are too few drives for it.
 */
export function place(
  want: PoolWay,
  drives: readonly PoolDrive[],
): { pool: PlacedPool; room: PoolRoom } | undefined {
  const sorted = bySize(drives);
  // Only the largest can stand for whichever fails.
  const spare = want.spare ? (sorted[0] ?? null) : null;
  const rest = spare ? sorted.slice(1) : sorted;
  let best: { pool: PlacedPool; room: PoolRoom } | undefined;
  const most = Math.min(rest.length, mostDrives(want));
  // Block groups use every drive, and all that are joined are used: fewer never give more.
  const first = want.manner === 'groups' || want.shape === 'joined' ? most : leastDrives(want);
  for (let n = Math.max(first, leastDrives(want)); n <= most; n += 1) {
    if (want.shape === 'pairs' && n % 2 === 1) continue;
    const pool: PlacedPool = { way: want, rows: rowsOf(want, rest.slice(0, n)), spare, left: rest.slice(n) };
    const room = roomOf(pool);
    if (room.usable > 0 && (!best || room.usable >= best.room.usable)) best = { pool, room };
  }
  return best;
}

/** One way with all that is told of it; undefined where the drives do not make it. */
export function offer(want: PoolWay, ask: Pick<PoolAsk, 'drives' | 'filled'>): PoolOffer | undefined {
  const placed = place(want, ask.drives);
  if (!placed) return undefined;
  const { pool, room } = placed;
  return {
    pool,
    room,
    survival: survivalOf(pool),
    rates: ratesOf(pool),
    rebuild: rebuildOf(pool, room, ask.filled),
    memory: memoryOf(pool.way.manner),
    costs: costsOf(pool, room),
    growth: growthOf(pool, room),
  };
}

/** Every way these drives make, of one manner or of all: what survives more first, of those the one with more room. */
export function offers(
  ask: Pick<PoolAsk, 'drives' | 'filled'>,
  options: { manner?: PoolWay['manner']; spares?: boolean } = {},
): PoolOffer[] {
  const wanted = WAYS.filter((w) => options.manner === undefined || w.manner === options.manner).flatMap(
    (w) => (options.spares && mayWait(w) ? [w, { ...w, spare: true }] : [w]),
  );
  return wanted
    .flatMap((w) => offer(w, ask) ?? [])
    .sort((a, b) => b.survival.any - a.survival.any || b.room.usable - a.room.usable);
}

/** Whether two ways are the same. */
export const sameWay = (a: PoolWay, b: PoolWay): boolean =>
  a.manner === b.manner && a.shape === b.shape && a.level === b.level && a.spare === b.spare;
