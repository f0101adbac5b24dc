import { tQuantile } from './distributions';

/** A curve that settles: y = final + start × e^(−(t − from)/τ). */
export interface Settling {
  /** Where it ends. */
  final: number;
  /** The range of that end at 95 %: all ends whose best curve is not much worse (profile likelihood). Infinite where it is open. */
  low: number;
  high: number;
  /** How far from the end at `from`, below it where negative. */
  start: number;
  /** Time constant, seconds. */
  tau: number;
  /** Standard deviation of readings about the curve; of a long log, of readings put together. */
  spread: number;
  /** The seconds it was fitted over: from where on one time constant describes the readings. */
  from: number;
  to: number;
}

/** Readings enough to fit to; more are put together in equal stretches. */
const KEPT = 400;

/** Means of equal stretches, so that hours of readings cost no more than minutes. */
function thinned(t: ArrayLike<number>, y: ArrayLike<number>): { t: number[]; y: number[] } {
  const n = t.length;
  if (n <= KEPT) return { t: Array.from(t), y: Array.from(y) };
  const every = Math.ceil(n / KEPT);
  const out = { t: [] as number[], y: [] as number[] };
  for (let from = 0; from < n; from += every) {
    const to = Math.min(n, from + every);
    let st = 0;
    let sy = 0;
    for (let i = from; i < to; i += 1) {
      st += t[i] ?? 0;
      sy += y[i] ?? 0;
    }
    out.t.push(st / (to - from));
    out.y.push(sy / (to - from));
  }
  return out;
}

interface Trial {
  tau: number;
  squares: number;
  end: number;
  start: number;
  /** Variance of the end for readings of variance 1. */
  endVariance: number;
}

/** The best curve with this time constant: linear in all else (Golub and Pereyra, 1973). */
function trial(t: readonly number[], y: readonly number[], tau: number): Trial | undefined {
  const n = t.length;
  const t0 = t[0] ?? 0;
  let [e1, e2, y1, y2, ey] = [0, 0, 0, 0, 0];
  for (let i = 0; i < n; i += 1) {
    const e = Math.exp(-((t[i] ?? 0) - t0) / tau);
    const v = y[i] ?? 0;
    e1 += e;
    e2 += e * e;
    y1 += v;
    y2 += v * v;
    ey += e * v;
  }
  const det = n * e2 - e1 * e1;
  if (!(det > 1e-12 * n * e2)) return undefined;
  const end = (e2 * y1 - e1 * ey) / det;
  const start = (n * ey - e1 * y1) / det;
  return { tau, squares: Math.max(0, y2 - end * y1 - start * ey), end, start, endVariance: e2 / det };
}

/** Narrows a time constant down around the best of a grid (golden section, on its logarithm). */
function narrowed(best: number, step: number, of: (tau: number) => Trial | undefined): Trial | undefined {
  const g = (Math.sqrt(5) - 1) / 2;
  const at = (x: number): number => of(Math.exp(x))?.squares ?? Infinity;
  let a = Math.log(best / step);
  let b = Math.log(best * step);
  let c = b - g * (b - a);
  let d = a + g * (b - a);
  let [fc, fd] = [at(c), at(d)];
  for (let i = 0; i < 30; i += 1) {
    if (fc < fd) {
      b = d;
      d = c;
      fd = fc;
      c = b - g * (b - a);
      fc = at(c);
    } else {
      a = c;
      c = d;
      fc = fd;
      d = a + g * (b - a);
      fd = at(d);
    }
  }
  return of(Math.exp((a + b) / 2));
}

const least = (trials: readonly (Trial | undefined)[]): Trial | undefined =>
  trials.reduce((a, b) => (b && (!a || b.squares < a.squares) ? b : a), undefined);

/** How much what is left of a fit hangs together from reading to reading, 0 to 0.95. */
function hanging(t: readonly number[], y: readonly number[], best: Trial): number {
  const t0 = t[0] ?? 0;
  let [whole, along, before] = [0, 0, 0];
  t.forEach((at, i) => {
    const left = (y[i] ?? 0) - best.end - best.start * Math.exp(-(at - t0) / best.tau);
    whole += left * left;
    along += i === 0 ? 0 : left * before;
    before = left;
  });
  return whole === 0 ? 0 : Math.min(0.95, Math.max(0, along / whole));
}

/** Factors by which the time constant is moved to see how much worse its curve gets: fine near by, coarse far away. */
const MOVES = [-1, 1].flatMap((way) =>
  Array.from({ length: 26 }, (_, i) => Math.exp(way * 1e-4 * 1.45 ** i)),
);

const GRID = 50;

/** One time constant fitted to all of these readings. */
function fitAll(t: readonly number[], y: readonly number[]): (Settling & { rho: number }) | undefined {
  const n = t.length;
  const [first, last] = [t[0] ?? 0, t[n - 1] ?? 0];
  const whole = last - first;
  if (n < 6 || !(whole > 0)) return undefined;
  // Large constant parts would drown the small squares.
  const base = y[0] ?? 0;
  const shifted = y.map((v) => v - base);
  const of = (tau: number): Trial | undefined => trial(t, shifted, tau);
  const [short, long] = [Math.max((2 * whole) / n, whole / 400), whole * 20];
  const step = (long / short) ** (1 / (GRID - 1));
  const tried = Array.from({ length: GRID }, (_, i) => of(short * step ** i));
  const coarse = least(tried);
  if (!coarse) return undefined;
  const best = least([coarse, narrowed(coarse.tau, step, of)]) ?? coarse;
  const rho = hanging(t, shifted, best);
  const dof = Math.max(1, (n * (1 - rho)) / (1 + rho) - 3);
  const spread = best.squares / Math.max(1, n - 3);
  const room = tQuantile(0.975, dof) ** 2 * spread * ((1 + rho) / (1 - rho));
  let [low, high] = [best.end, best.end];
  for (const other of [best, ...tried, ...MOVES.map((by) => of(best.tau * by))]) {
    const left = other ? room - (other.squares - best.squares) : -1;
    if (!other || left < 0) continue;
    const reach = Math.sqrt(left * other.endVariance);
    low = Math.min(low, other.end - reach);
    high = Math.max(high, other.end + reach);
  }
  // Where the time constant is longer than all that was seen, the end is anywhere beyond.
  const open = best.tau > whole * 4;
  return {
    final: base + best.end,
    low: open && best.start > 0 ? -Infinity : base + low,
    high: open && best.start < 0 ? Infinity : base + high,
    start: best.start,
    tau: best.tau,
    spread: Math.sqrt(spread),
    from: first,
    to: last,
    rho,
  };
}

/** Where fitting may begin, as shares of the readings. */
const BEGINNINGS = [0, 0.08, 0.16, 0.25, 0.35, 0.45, 0.55];

/** Standard deviation of readings by their second differences, which a trend does not touch (von Neumann, 1941). */
function noiseOf(y: readonly number[]): number {
  let sum = 0;
  for (let i = 1; i + 1 < y.length; i += 1) sum += ((y[i - 1] ?? 0) - 2 * (y[i] ?? 0) + (y[i + 1] ?? 0)) ** 2;
  return Math.sqrt(sum / 6 / Math.max(1, y.length - 2));
}

/** The step in which readings are given: the least distance of two that differ; 0 where all are one. */
function stepOf(y: ArrayLike<number>): number {
  const values = [...new Set(Array.from(y))].sort((a, b) => a - b);
  let step = Infinity;
  for (let i = 1; i < values.length; i += 1) step = Math.min(step, (values[i] ?? 0) - (values[i - 1] ?? 0));
  return Number.isFinite(step) ? step : 0;
}

/**
 * Fits a curve that settles to readings `y` at `t` seconds (rising). A die follows within seconds, and a fan changes the time
 * constant as it speeds up: what comes first is left out as far as it must be, until one time constant describes the rest as well
 * as readings vary by themselves, which is no less than rounding makes them: a step over the root of twelve. Undefined with fewer than 6 readings.
 */
export function fitSettling(t: ArrayLike<number>, y: ArrayLike<number>): Settling | undefined {
  const kept = thinned(t, y);
  const n = kept.t.length;
  let last: Settling | undefined;
  const rounded = stepOf(y) / Math.sqrt(12);
  for (const share of BEGINNINGS) {
    const at = Math.floor(n * share);
    if (at > 0 && n - at < 24) break;
    const ys = kept.y.slice(at);
    const fit = fitAll(kept.t.slice(at), ys);
    if (!fit) break;
    const { rho, ...plain } = fit;
    // A later stretch tells less: it is taken only because the longer one is not described.
    last = plain;
    if (fit.spread <= 1.25 * Math.max(noiseOf(ys), rounded) + 1e-9 || rho < 0.15) break;
  }
  return last;
}

/** How far it still has to go at a second: slope × τ. */
export const stillToGo = (s: Settling, t: number): number =>
  Math.abs(s.start) * Math.exp(-(t - s.from) / s.tau);

/**
 * Where three readings at equal distances end, if they settle with one time constant (Aitken, 1926): 30, 50, 60 → 70. Undefined
 * where they do not settle.
 */
export function endOfThree(a: number, b: number, c: number): number | undefined {
  const ratio = (c - b) / (b - a);
  return ratio > 0 && ratio < 1 ? (a * c - b * b) / (a + c - 2 * b) : undefined;
}
