import { oneStep } from './numbers/change';
import { fitSettling, stillToGo, type Settling } from './numbers/exponential';

/** How far from its end a reading may be and still count, in kelvin: slope × τ, and not a slope by itself. */
export const COUNTS_WITHIN = 0.5;

/** Whether a reading counts yet. Seconds from the first reading; temperatures in °C. */
export type Steadiness =
  | { code: 'too short' }
  /** It changes by no more than counts: it was warm before. */
  | { code: 'level'; at: number }
  | {
      code: 'steady' | 'not yet' | 'open';
      fit: Settling;
      /** The second from which a reading counts; of “not yet” foretold. */
      at: number;
      /** Time constant. */
      tau: number;
      /** How far it still had to go at the last reading. */
      left: number;
      /** Seconds cut off because boost still ran; 0 where none were. */
      boost: number;
    };

/**
 * The end of a boost window: the second at which power (or a clock) falls to a lower level and stays there, within the first five
 * minutes and by at least a twentieth. 0 where there is none.
 */
export function boostEnds(t: ArrayLike<number>, level: ArrayLike<number>): number {
  const n = t.length;
  const first = t[0] ?? 0;
  let count = 0;
  // A step within the first ten minutes; later ones are something else.
  while (count < n && (t[count] ?? 0) - first <= 600) count += 1;
  const step = oneStep(Array.from({ length: count }, (_, i) => level[i] ?? 0));
  if (!step || step.explained < 0.5 || step.after > step.before * 0.95) return 0;
  const at = (t[step.at] ?? 0) - first;
  return at <= 300 ? at : 0;
}

/**
 * Judges whether a temperature has settled: a curve with one time constant is fitted to what it describes, and a reading counts once it is
 * within 0.5 K of the end. “open” where it is too early to tell when that will be. `power`: readings at the same times, from which
 * a boost window is cut off. `t` in seconds, rising.
 */
export function judgeSteady(
  t: ArrayLike<number>,
  y: ArrayLike<number>,
  power?: ArrayLike<number>,
): Steadiness {
  const boost = power ? boostEnds(t, power) : 0;
  const first = (t[0] ?? 0) + boost;
  let from = 0;
  while (from < t.length && (t[from] ?? 0) < first) from += 1;
  const ts = Array.from(t).slice(from);
  const ys = Array.from(y).slice(from);
  const begin = t[0] ?? 0;
  const last = ts[ts.length - 1] ?? 0;
  if (ts.length < 6) return { code: 'too short' };
  const low = Math.min(...ends(ys));
  const high = Math.max(...ends(ys));
  const whole = fitSettling(ts, ys);
  if (!whole) return { code: 'too short' };
  const fit = widened(whole, ts, ys);
  const moved = Math.abs(stillToGo(fit, fit.from));
  if (moved < COUNTS_WITHIN && high - low < 2 * COUNTS_WITHIN + 4 * fit.spread)
    return { code: 'level', at: boost };
  const { tau } = fit;
  const left = stillToGo(fit, last);
  const at = momentOf(fit) - begin;
  const more = { fit, at, tau, left, boost };
  const width = fit.high - fit.low;
  if (left <= COUNTS_WITHIN && width <= 4 * COUNTS_WITHIN) return { code: 'steady', ...more };
  return { code: width <= Math.max(4, 0.5 * moved) ? 'not yet' : 'open', ...more };
}

/**
 * The range of the end made as wide as the second half of the readings says: a fan that still speeds up, or a case that warms
 * slowly, shows as an end that moves.
 */
function widened(fit: Settling, t: readonly number[], y: readonly number[]): Settling {
  const middle = (fit.from + fit.to) / 2;
  const at = t.findIndex((s) => s >= middle);
  const later = at < 0 ? undefined : fitSettling(t.slice(at), y.slice(at));
  if (!later || !Number.isFinite(later.low) || !Number.isFinite(later.high)) return fit;
  return { ...fit, low: Math.min(fit.low, later.final), high: Math.max(fit.high, later.final) };
}

/** The first and last tenth of a series, each by its mean. */
function ends(y: readonly number[]): [number, number] {
  const k = Math.max(1, Math.floor(y.length / 10));
  const of = (part: readonly number[]): number => part.reduce((s, v) => s + v, 0) / part.length;
  return [of(y.slice(0, k)), of(y.slice(-k))];
}

/** The second at which the fitted curve comes within reach of its end. */
const momentOf = (fit: Settling): number =>
  fit.from + Math.max(0, fit.tau * Math.log(stillToGo(fit, fit.from) / COUNTS_WITHIN));

/** Seconds to wait until a machine with this time constant has settled, if it starts `span` kelvin away (30 where nobody knows). */
export const settleTime = (tau: number, span = 30): number =>
  Math.max(0, tau * Math.log(span / COUNTS_WITHIN));
