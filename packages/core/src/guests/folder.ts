import type { Guest, GuestPlan, GuestPool } from '../model/guests';

/** The folder of a pool on its host; where there is none, the one that is usual. */
export const folderOf = (pool: GuestPool | undefined): string =>
  pool?.path.replace(/\/$/, '') ?? '/srv/guests';

/** The pool that what belongs to a guest lies on: that of its first disk, or the first. */
export const homePool = (plan: GuestPlan, g: Guest | undefined): GuestPool | undefined =>
  plan.pools.find((p) => p.id === g?.disks[0]?.poolId) ?? plan.pools[0];
