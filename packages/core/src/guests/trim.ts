import type { SolveLp } from '../assign/lp';
import type { GuestPlan } from '../model/guests';
import { MIB } from '../units/bytes';
import type { Pot } from './pot';
import { leastOf, mendedBy, mendGuests, setFits, type Change, type Mended, type MendResult } from './repair';
import { memorySum, running } from './sums';

/** Two respectable ways to make a set fit: the smallest change, and a little less memory for everybody. */
export interface WaysToFit {
  smallest: MendResult;
  /** Null where memory is not what is short, one guest alone can spare any, or all of them together cannot spare enough. */
  everywhere: Mended | null;
}

/**
 * A little less memory for every guest that can spare some, the same share of what each can spare, in whole MiB; nobody is left
 * out. Pools that are too small are mended first, by the smallest change. Null where there is no such way. Seconds: for each
 * model that is solved.
 */
export function trimEverywhere(plan: GuestPlan, pot: Pot, solve: SolveLp, seconds = 10): Mended | null {
  const asked = memorySum(plan, pot);
  if (!asked || asked.free >= 0) return null;
  const pools = mendGuests(plan, { ...pot, memory: null }, solve, seconds);
  if (pools.code !== 'mended' && pools.code !== 'fits already') return null;
  const first: readonly Change[] = pools.code === 'mended' ? pools.mended.changes : [];
  if (first.some((c) => c.kind === 'left out')) return null;
  const short = -asked.free;
  const spare = running(plan).flatMap((g) => {
    const bytes = g.memoryBytes - leastOf(g);
    return bytes > 0 ? [{ g, bytes }] : [];
  });
  const all = spare.reduce((sum, s) => sum + s.bytes, 0);
  if (spare.length < 2 || all < short) return null;
  const trims = spare.map(({ g, bytes }): Change => {
    const by = Math.min(bytes, Math.ceil(((short / all) * bytes) / MIB) * MIB);
    return { kind: 'less memory', guest: g.id, from: g.memoryBytes, to: g.memoryBytes - by };
  });
  const changes = [...first, ...trims];
  const mebibytes = trims.reduce((sum, c) => sum + (c.kind === 'less memory' ? (c.from - c.to) / MIB : 0), 0);
  const mended = mendedBy(plan, changes, mebibytes + (pools.code === 'mended' ? pools.mended.mebibytes : 0));
  return setFits(mended.plan, pot) ? mended : null;
}

/** Both ways to make a set fit. */
export const waysToFit = (plan: GuestPlan, pot: Pot, solve: SolveLp, seconds = 10): WaysToFit => ({
  smallest: mendGuests(plan, pot, solve, seconds),
  everywhere: trimEverywhere(plan, pot, solve, seconds),
});
