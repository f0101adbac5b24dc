import type { ImageRegion } from '../model/inspection';

const SMALLEST = 26;

/**
 * Heights (in the caller's unit) that sum to `total` where there is room: every region gets a smallest height so that
 * it can be read, the rest is shared by the square root of its size, so that a table stays visible beside a system.
 */
export function readableHeights(
  regions: readonly Pick<ImageRegion, 'bytes' | 'kind' | 'detail'>[],
  total: number,
): number[] {
  const floor = regions.map((r) => (r.kind === 'part' || r.detail.length > 34 ? SMALLEST + 12 : SMALLEST));
  const spare = Math.max(0, total - floor.reduce((a, b) => a + b, 0));
  const roots = regions.map((r) => Math.sqrt(r.bytes));
  const sum = roots.reduce((a, b) => a + b, 0) || 1;
  return floor.map((f, i) => Math.round(f + (spare * (roots[i] ?? 0)) / sum));
}
