import { oneStep } from './numbers/change';
import { median } from './numbers/describe';

/** How a drive writes on: whether its fast part ends, and what is left then. Bytes per second, seconds, bytes. */
export interface Sustained {
  /** Null where its rate never drops. */
  drop: { seconds: number; bytes: number } | null;
  /** The rate before the drop, or all along. */
  fast: number;
  /** The rate after it: what a long write gets. */
  steady: number;
}

/** How much less it must be to be a drop: a fifth. Common practice, no source. */
const DROP = 0.8;

/**
 * Finds where a long write drops from its fast part to what it keeps up: the one step that explains most (least squares), if it
 * goes down by a fifth and explains a third of all that varies. `t`: the end of each stretch in seconds; `rates`: bytes/s in it.
 */
export function sustainedOf(t: ArrayLike<number>, rates: ArrayLike<number>): Sustained | undefined {
  const n = rates.length;
  if (n < 2) return undefined;
  const all = Array.from(rates);
  const step = oneStep(all, Math.min(3, Math.floor(n / 2)));
  if (!step || step.explained < 1 / 3 || step.after > step.before * DROP) {
    const rate = median(all);
    return { drop: null, fast: rate, steady: rate };
  }
  let bytes = 0;
  for (let i = 0; i < step.at; i += 1) bytes += (all[i] ?? 0) * ((t[i] ?? 0) - (t[i - 1] ?? 0));
  return {
    drop: { seconds: t[step.at - 1] ?? 0, bytes },
    fast: median(all.slice(0, step.at)),
    steady: median(all.slice(step.at)),
  };
}

/** Whether clocks fall while the part is at its limit: the share of readings below this share of the highest clock. */
export interface Throttling {
  /** Share of readings at which the clock stands lower than nine tenths of what it was, 0 to 1. */
  share: number;
  /** Clock before and while, in the unit given. */
  from: number;
  to: number;
}

/**
 * Throttling seen in the clocks: they step down by a tenth at least while the temperature stands at its highest (within 3 K).
 * Undefined where they do not. Readings at the same times, after any boost window.
 */
export function throttlingOf(clock: ArrayLike<number>, heat: ArrayLike<number>): Throttling | undefined {
  const n = Math.min(clock.length, heat.length);
  const step = oneStep(Array.from(clock).slice(0, n), 5);
  if (!step || step.explained < 0.5 || step.after > step.before * 0.9) return undefined;
  let top = -Infinity;
  for (let i = 0; i < n; i += 1) top = Math.max(top, heat[i] ?? -Infinity);
  if ((heat[step.at] ?? -Infinity) < top - 3) return undefined;
  return { share: (n - step.at) / n, from: step.before, to: step.after };
}
