import type { Box } from '../model/bench';

/** Id of the decision how a whole system is written. */
export const WRITE_WAY = 'write-way';

/** How a whole system reaches its final drive. */
export const writeWays = ['installer stick', 'adapter', 'running system'] as const;
/** How a whole system reaches its final drive. */
export type WriteWay = (typeof writeWays)[number];

/** The way that a box has decided on; null where it has on none. */
export function writeWayOf(box: Pick<Box, 'decisions'>): WriteWay | null {
  const decided = box.decisions.find((d) => d.id === WRITE_WAY)?.value;
  return writeWays.find((w) => w === decided) ?? null;
}
