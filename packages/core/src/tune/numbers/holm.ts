/** p-values corrected for being several, in their order: Holm's step-down method (1979). */
export function holm(ps: readonly number[]): number[] {
  const order = ps.map((p, i) => ({ p, i })).sort((a, b) => a.p - b.p);
  const out = new Array<number>(ps.length).fill(1);
  let least = 0;
  order.forEach(({ p, i }, at) => {
    least = Math.max(least, Math.min(1, p * (ps.length - at)));
    out[i] = least;
  });
  return out;
}
