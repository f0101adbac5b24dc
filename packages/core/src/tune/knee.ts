import { randomFrom } from '../units/random';

/** One state on the two axes of a trade: what it costs (less is better) and what it gives (more is better). */
export interface TradePoint {
  key: string;
  cost: number;
  gain: number;
  /** Its runs’ gains, for how sure it is. */
  runs?: readonly number[];
}

/** Keys of points that another beats: it costs no more and gives no less, and one of both is truly better. */
export function dominated(points: readonly TradePoint[]): Set<string> {
  return new Set(
    points
      .filter((p) =>
        points.some(
          (o) => o !== p && o.cost <= p.cost && o.gain >= p.gain && (o.cost < p.cost || o.gain > p.gain),
        ),
      )
      .map((p) => p.key),
  );
}

/** How far above the straight line between the ends a point must lie, as a share of the whole, to be a knee. */
const BENT = 0.08;

/**
 * The knee: among the states that none beats, the one farthest above the straight line from the cheapest to the dearest, with both
 * axes from 0 to 1 (a rule of ours: from there on, a further step gives less for its cost than the whole range does). Undefined
 * with fewer than three such states, or where they lie on a line.
 */
export function kneeOf(points: readonly TradePoint[]): string | undefined {
  const beaten = dominated(points);
  const kept = points.filter((p) => !beaten.has(p.key)).sort((a, b) => a.cost - b.cost);
  const [first, last] = [kept[0], kept[kept.length - 1]];
  if (kept.length < 3 || !first || !last || last.cost === first.cost || last.gain === first.gain)
    return undefined;
  let best: string | undefined;
  let far = BENT;
  for (const p of kept) {
    const above =
      (p.gain - first.gain) / (last.gain - first.gain) - (p.cost - first.cost) / (last.cost - first.cost);
    if (above > far) {
      far = above;
      best = p.key;
    }
  }
  return best;
}

/** How sure a knee is: the share of draws in which each state is it; what is missing had none. */
export interface KneeChance {
  knee: string | undefined;
  chances: { key: string; chance: number }[];
}

/** Draws runs anew from those of each state (bootstrap, Efron, 1979), with a seed, and looks for the knee each time. */
export function kneeChance(points: readonly TradePoint[], seed = 1, draws = 1000): KneeChance {
  const random = randomFrom(seed);
  const counts = new Map<string, number>();
  for (let d = 0; d < draws; d += 1) {
    const drawn = points.map((p): TradePoint => {
      const runs = p.runs ?? [];
      if (runs.length < 2) return p;
      let sum = 0;
      for (let i = 0; i < runs.length; i += 1) sum += runs[Math.floor(random() * runs.length)] ?? 0;
      const middle = runs.reduce((s, r) => s + r, 0) / runs.length;
      // Means of few runs drawn anew vary by less than they should; the factor makes up for it.
      const wider = Math.sqrt(runs.length / (runs.length - 1));
      return { ...p, gain: middle + (sum / runs.length - middle) * wider };
    });
    const knee = kneeOf(drawn);
    if (knee !== undefined) counts.set(knee, (counts.get(knee) ?? 0) + 1);
  }
  return {
    knee: kneeOf(points),
    chances: [...counts].map(([key, n]) => ({ key, chance: n / draws })).sort((a, b) => b.chance - a.chance),
  };
}
