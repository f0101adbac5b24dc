import type { BoxPool } from '../model/storage';

/** What snapshots take once as many are kept as are meant to be. Bytes. */
export interface SnapshotRoom {
  count: number;
  bytes: number;
  /** Of the pool, 0 to 1. */
  share: number;
}

/**
 * Room of snapshots: what changed or was deleted since the oldest of them is still there, at most once for each day that
 * they reach back. An upper bound: what is changed again between two of them is kept once. Common practice, no source.
 */
export function snapshotRoom(plan: NonNullable<BoxPool['snapshots']>, usable: number): SnapshotRoom {
  const bytes = plan.changedPerDay * plan.keepDays;
  return {
    count: Math.ceil((plan.keepDays * 24) / plan.everyHours),
    bytes,
    share: usable === 0 ? 1 : bytes / usable,
  };
}
