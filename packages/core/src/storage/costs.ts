import type { PoolManner } from '../model/storage';
import { GIB } from '../units/bytes';
import { boundBy, type PlacedPool } from './placed';
import { wattsOf } from './poolDrive';
import type { PoolRoom } from './room';

/** Memory a manner wants: the least it runs in, and what it runs well in. Bytes. */
export interface PoolMemory {
  least: number;
  well: number;
}

/**
 * What each manner wants beside the system. Of RAID-Z-like pools the handbook of their makers says 2 GB at least and 8 GB
 * for good use (OpenZFS documentation, “Hardware”, from memory); the others keep little of their own (common practice,
 * no source). A gigabyte per terabyte is a saying; it is asked for only where duplicates are looked for while writing.
 */
const MEMORY: Record<PoolManner, PoolMemory> = {
  plain: { least: 0.5 * GIB, well: GIB },
  padded: { least: 2 * GIB, well: 8 * GIB },
  groups: { least: GIB, well: 2 * GIB },
};
/** Memory a pool of this manner wants. */
export const memoryOf = (manner: PoolManner): PoolMemory => MEMORY[manner];

/** What a pool costs: money by what its drives cost (null where a price is missing), and watts at rest. */
export interface PoolCosts {
  price: number | null;
  /** Money for each 10¹² usable bytes; null where a price is missing or nothing is usable. */
  perTerabyte: number | null;
  watts: number;
  /** Watts of at least one drive are what is usual for its kind. */
  wattsAssumed: boolean;
}

/** Money and watts of all drives that are bound by it, a waiting one included. */
export function costsOf(pool: PlacedPool, room: PoolRoom): PoolCosts {
  const drives = boundBy(pool);
  const price = drives.reduce<number | null>(
    (sum, d) => (sum === null || d.price === null ? null : sum + d.price),
    0,
  );
  const watts = drives.map(wattsOf);
  return {
    price,
    perTerabyte: price === null || room.usable === 0 ? null : price / (room.usable / 1e12),
    watts: watts.reduce((sum, w) => sum + w.watts, 0),
    wattsAssumed: watts.some((w) => w.assumed),
  };
}
