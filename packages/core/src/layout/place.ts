import { startsMachine, type PartWant } from '../model/layout';
import { UNIT } from './table';

/** A hole between parts. Whole units; within an extended part each new one takes a unit more, for its own record. */
export interface Hole {
  start: number;
  units: number;
  kind: 'free' | 'within extended';
}

/** What of a want counts when it is placed. Units. */
export interface Claim {
  want: PartWant;
  fixed: number | null;
  least: number;
  share: number | null;
  /** It is to be a logical part of a new extended one; must not be one at all; or either. */
  as: 'logical' | 'primary' | 'any';
}

/** Where each claim lies: the hole by its number, and its size in units. */
export type Placing = { hole: number; units: number }[];

/** So many ways are looked at before the search is given up; a drive with one hole has one. */
const MOST_WAYS = 50_000;

/** Sizes of the claims in one hole that share what the fixed ones leave; undefined where they do not fit. */
function sizesIn(room: number, claims: readonly Claim[], flexible: number): number[] | undefined {
  const left = room - claims.reduce((n, c) => n + (c.fixed ?? c.least), 0);
  if (left < 0) return undefined;
  let spare = left;
  const sizes = claims.map((c) => c.fixed ?? c.least);
  claims.forEach((c, i) => {
    if (c.share === null) return;
    const more = Math.max(0, Math.min(spare, Math.floor(c.share * flexible) - c.least));
    sizes[i] = c.least + more;
    spare -= more;
  });
  const rests = claims.flatMap((c, i) => (c.fixed === null && c.share === null ? [i] : []));
  rests.forEach((i, n) => {
    const more = Math.floor(spare / (rests.length - n));
    sizes[i] = (sizes[i] ?? 0) + more;
    spare -= more;
  });
  return sizes;
}

/** Units that a claim takes in this hole besides its own size: its record, where it is a logical part. */
const record = (c: Claim, hole: Hole): number =>
  c.as === 'logical' || hole.kind === 'within extended' ? 1 : 0;

/**
 * Places claims in holes, in their order within each hole: of all ways the one that gives most to those without a fixed
 * size, and of those the first. At most `primaries` lie outside an extended part; logical parts of a new extended one
 * lie in one hole. Undefined where there is no way; `exact` is false where not all were looked at.
 */
export function place(
  holes: readonly Hole[],
  claims: readonly Claim[],
  primaries: number,
): { placing: Placing | undefined; exact: boolean } {
  const total = holes.reduce((n, h) => n + h.units, 0);
  const flexible = Math.max(0, total - claims.reduce((n, c) => n + (c.fixed ?? 0), 0));
  const into: number[] = [];
  const used = holes.map(() => 0);
  let best: { placing: Placing; worth: number } | undefined;
  let ways = 0;

  const finish = (): void => {
    ways += 1;
    const units: number[] = [];
    for (const [h, hole] of holes.entries()) {
      const at = into.flatMap((x, i) => (x === h ? [i] : []));
      const mine = at.flatMap((i) => claims[i] ?? []);
      const room = hole.units - mine.reduce((n, c) => n + record(c, hole), 0);
      const sizes = sizesIn(room, mine, flexible);
      if (!sizes) return;
      at.forEach((i, n) => (units[i] = sizes[n] ?? 0));
    }
    const worth = claims.reduce((n, c, i) => n + (c.fixed === null ? (units[i] ?? 0) : 0), 0);
    if (!best || worth > best.worth)
      best = { placing: into.map((hole, i) => ({ hole, units: units[i] ?? 0 })), worth };
  };
  const go = (i: number, outside: number, extendedIn: number | null): void => {
    if (ways >= MOST_WAYS) return;
    const claim = claims[i];
    if (!claim) {
      finish();
      return;
    }
    for (const [h, hole] of holes.entries()) {
      const inside = hole.kind === 'within extended';
      if (inside && claim.as !== 'any') continue;
      if (claim.as === 'logical' && extendedIn !== null && extendedIn !== h) continue;
      const primary = !inside && claim.as !== 'logical';
      if (primary && outside >= primaries) continue;
      const takes = (claim.fixed ?? claim.least) + record(claim, hole);
      if ((used[h] ?? 0) + takes > hole.units) continue;
      used[h] = (used[h] ?? 0) + takes;
      into[i] = h;
      go(i + 1, outside + (primary ? 1 : 0), claim.as === 'logical' ? h : extendedIn);
      used[h] -= takes;
    }
  };
  go(0, 0, null);
  return { placing: best?.placing, exact: ways < MOST_WAYS };
}

/** Bytes as whole units, never fewer. */
export const unitsFor = (bytes: number): number => Math.max(1, Math.ceil(bytes / UNIT));

/** The least bytes of a want: its minimum, and what of a fixed size cannot be cut. */
export const leastOf = (w: PartWant): number => {
  if (w.minimum !== null) return Math.max(UNIT, w.minimum);
  // Cutting what starts the machine helps nobody.
  return w.size.kind === 'fixed' && startsMachine(w) ? w.size.bytes : UNIT;
};
