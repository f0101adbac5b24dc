/** Steps a reader counts in, in seconds: 1, 2, 5, 10, 20, 30 s, then minutes and hours of the same kind. */
const STEPS = [1, 2, 5, 10, 20, 30, 60, 120, 300, 600, 1200, 1800, 3600, 7200, 18_000, 36_000];

/** The end of a time axis from 0 (seconds) and the count of equal steps to it; never more than five steps. */
export function timeAxis(longest: number): { max: number; steps: number } {
  const step = STEPS.find((s) => longest <= 5 * s) ?? Math.ceil(longest / 5 / 36_000) * 36_000;
  const steps = Math.max(1, Math.ceil(longest / step));
  return { max: steps * step, steps };
}
