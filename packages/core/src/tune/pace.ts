import type { Panel } from '../model/tune';

/** A cap of frames that a panel shows evenly. */
export interface EvenCap {
  /** Frames per second. */
  cap: number;
  /** Refreshes each frame stays for; null where the panel follows the frames. */
  stays: number | null;
}

/** Below this an even pace is still no motion. Common practice, no source. */
const LEAST = 24;

/**
 * Caps at which every frame stays equally long: whole divisors of the panel’s rate; with a panel that follows, also any rate in
 * its range, of which the greatest is given three below the top so that no frame is early (common practice, no source), and whose
 * lower end holds down to half of it, by showing frames twice, where the range spans a factor of two.
 */
export function evenCaps(panel: Panel): EvenCap[] {
  const out: EvenCap[] = [];
  for (let stays = 1; panel.hz / stays >= LEAST; stays += 1) out.push({ cap: panel.hz / stays, stays });
  if (panel.low !== null && panel.high !== null) out.push({ cap: panel.high - 3, stays: null });
  return out.sort((a, b) => b.cap - a.cap);
}

/** Rates between which a panel follows the frames; null where it does not. */
export function followedRates(panel: Panel): { low: number; high: number } | null {
  if (panel.low === null || panel.high === null) return null;
  return { low: panel.high >= 2 * panel.low ? panel.low / 2 : panel.low, high: panel.high };
}

/**
 * The cap to take for a machine whose slow frames come at `lowRate`: the greatest even one that they keep up with; in the range of
 * a panel that follows, that rate itself. Undefined where it keeps up with none.
 */
export function capFor(panel: Panel, lowRate: number): EvenCap | undefined {
  const range = followedRates(panel);
  if (range && lowRate >= range.low)
    return { cap: Math.floor(Math.min(lowRate, range.high - 3)), stays: null };
  return evenCaps(panel).find((c) => c.stays !== null && c.cap <= lowRate);
}
