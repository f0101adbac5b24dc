import type { PoolDrive, PoolWay } from '../model/storage';

/** A way with the drives it takes: rows of drives that keep each other, one that waits, and those left out. */
export interface PlacedPool {
  way: PoolWay;
  rows: PoolDrive[][];
  spare: PoolDrive | null;
  left: PoolDrive[];
}

/** Largest first; of equal ones the order they came in. */
export const bySize = (drives: readonly PoolDrive[]): PoolDrive[] =>
  [...drives].sort((a, b) => b.bytes - a.bytes);

/** Drives a way wants at least; a spare not counted. */
export function leastDrives({ shape, level }: PoolWay): number {
  switch (shape) {
    case 'single':
      return 1;
    case 'joined':
      return 2;
    case 'pairs':
      return 4;
    case 'mirror':
    case 'copies':
      return level;
    case 'parity':
      // Fewer would be a mirror that costs more; md wants so many (mdadm(8)).
      return level + 2;
  }
}

/** Drives a way takes at most. */
export const mostDrives = ({ shape, level }: PoolWay): number =>
  shape === 'single' ? 1 : shape === 'mirror' ? level : 24;

/** The drives of a way put into rows: two by two the nearest in size, else all in one, or each for itself. */
export function rowsOf({ manner, shape }: PoolWay, drives: readonly PoolDrive[]): PoolDrive[][] {
  const sorted = bySize(drives);
  if (shape === 'pairs')
    return Array.from({ length: Math.floor(sorted.length / 2) }, (_, i) => sorted.slice(2 * i, 2 * i + 2));
  if (shape === 'joined' && manner !== 'groups') return sorted.map((d) => [d]);
  return [sorted];
}

/** Every drive that holds something of it. */
export const membersOf = (pool: Pick<PlacedPool, 'rows'>): PoolDrive[] => pool.rows.flat();
/** Every drive that is bound by it: its members, and the one that waits. */
export const boundBy = (pool: PlacedPool): PoolDrive[] => [
  ...membersOf(pool),
  ...(pool.spare ? [pool.spare] : []),
];
/** The drives of block groups as they are named when they are made, the smallest first: what is kept of itself at first goes to the last. */
export const asNamed = ({ rows }: PlacedPool): PoolDrive[] => [...(rows[0] ?? [])].reverse();
