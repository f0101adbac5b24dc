/** Why a time is left out of what is learned from; null where it counts. */
export type NotCredible = 'in a row' | 'away';

/** So many ticks, each within these seconds of the next, were made from memory and not at the work. Common practice, no source. */
const ROW = 3;
const ROW_SECONDS = 10;
/** A step that took so much longer than its range was left lying. Seconds; common practice, no source. */
const AWAY_SECONDS = 3600;

/** A tick with its time. `at`: ISO 8601, UTC; seconds; `range`: what was foretold of it, eight of ten. */
export interface TickTime {
  at: string;
  seconds: number;
  range: { high: number } | null;
}

/**
 * Which times are learned from: not those of steps that were ticked in a row within seconds, and not one that ended an hour after
 * it should have. Ticks in the order in which they were made.
 */
export function credible(ticks: readonly TickTime[]): (NotCredible | null)[] {
  const at = ticks.map((t) => Date.parse(t.at) / 1000);
  const inRow = new Set<number>();
  let first = 0;
  for (let i = 1; i <= ticks.length; i += 1) {
    const close = i < ticks.length && (at[i] ?? 0) - (at[i - 1] ?? 0) <= ROW_SECONDS;
    if (close) continue;
    if (i - first >= ROW) for (let j = first; j < i; j += 1) inRow.add(j);
    first = i;
  }
  return ticks.map(({ seconds, range }, i) =>
    inRow.has(i) ? 'in a row' : range && seconds > range.high + AWAY_SECONDS ? 'away' : null,
  );
}
