/** The smallest share of a column that can be seen as a stratum of its own. */
const VISIBLE = 0.08;

/** Shares of a drive column for an image and the free rest; small images are drawn larger so that they can be seen. */
export function columnHeights(imageBytes: number, targetBytes: number): { image: number; rest: number } {
  const image = targetBytes > 0 ? Math.min(1, Math.max(VISIBLE, imageBytes / targetBytes)) : 1;
  return { image, rest: 1 - image };
}
