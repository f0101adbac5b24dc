import type { PoolDrive, PoolWay } from '../model/storage';
import { bySize, membersOf, rowsOf, type PlacedPool } from './placed';
import { roomOf, type PoolRoom } from './room';

/** What more drives give, later. */
export interface Growth {
  /** Drives that have to be added together; null where it does not grow by adding. */
  add: 1 | 2 | null;
  /** Bytes of each, as large as the largest there is. */
  each: number;
  /** Bytes that are yours by it. */
  gives: number;
  /** What it takes. */
  by: 'at once' | 'a new row' | 'spread anew' | 'newest releases only' | 'made anew';
}

const MANNER: Partial<Record<PoolWay['shape'], Record<PoolWay['manner'], Pick<Growth, 'add' | 'by'>>>> = {
  joined: {
    plain: { add: 1, by: 'at once' },
    padded: { add: 1, by: 'at once' },
    groups: { add: 1, by: 'at once' },
  },
  single: {
    plain: { add: null, by: 'made anew' },
    padded: { add: null, by: 'made anew' },
    groups: { add: 1, by: 'spread anew' },
  },
  mirror: {
    plain: { add: null, by: 'made anew' },
    padded: { add: 2, by: 'a new row' },
    groups: { add: null, by: 'made anew' },
  },
  pairs: {
    plain: { add: 2, by: 'a new row' },
    padded: { add: 2, by: 'a new row' },
    groups: { add: 2, by: 'a new row' },
  },
  copies: {
    plain: { add: 1, by: 'spread anew' },
    padded: { add: 1, by: 'spread anew' },
    groups: { add: 1, by: 'spread anew' },
  },
  parity: {
    plain: { add: 1, by: 'spread anew' },
    // OpenZFS 2.3, “RAIDZ expansion”, from memory.
    padded: { add: 1, by: 'newest releases only' },
    groups: { add: 1, by: 'spread anew' },
  },
};

/**
 * What adding gives: one drive (or two, where only pairs can be added) as large as the largest of the pool, reckoned as
 * the pool it would be. Commands: mdadm(8) --grow, lvm(8), zpool-add(8), btrfs-device(8) and btrfs-balance(8).
 */
export function growthOf(pool: PlacedPool, room: PoolRoom): Growth {
  const drives = membersOf(pool);
  const model = bySize(drives)[0];
  const each = model?.bytes ?? 0;
  const how = MANNER[pool.way.shape]?.[pool.way.manner] ?? { add: null, by: 'made anew' };
  if (how.add === null || !model) return { ...how, each, gives: 0 };
  const more = Array.from({ length: how.add }, (_, i): PoolDrive => ({
    ...model,
    id: `${model.id} +${i + 1}`,
  }));
  const way: PoolWay =
    pool.way.shape === 'mirror'
      ? { ...pool.way, shape: 'pairs', level: 2 }
      : pool.way.shape === 'single'
        ? { ...pool.way, shape: 'joined' }
        : pool.way;
  // A mirror becomes two of them: the row there is stays as it is.
  const rows = pool.way.shape === 'mirror' ? [...pool.rows, more] : rowsOf(way, [...drives, ...more]);
  const after = roomOf({ way, rows, spare: null, left: [] });
  return { ...how, each, gives: Math.max(0, after.usable - room.usable) };
}
