import type { Guest, GuestPlan } from '../model/guests';
import type { Pot } from './pot';
import { floorOf, running } from './sums';

/** A guest that starts by itself: when, and whether there is memory for it then. */
export interface Turn {
  guest: Guest;
  /** Seconds after the first. */
  at: number;
  /** Bytes that are missing as it begins; 0: it fits. Those before it have given back what they can by then. */
  short: number;
  /** Bytes that are missing if all began at once. */
  shortAtOnce: number;
}

/** Guests that start by themselves, in order; those of one order in that of the plan. */
export const inOrder = (plan: GuestPlan): Guest[] =>
  running(plan)
    .filter((g) => g.autostart)
    .map((g, i) => ({ g, i }))
    .sort((a, b) => a.g.order - b.g.order || a.i - b.i)
    .map(({ g }) => g);

/**
 * The start of all guests one after another. A guest begins with all of its memory, because it gives back only once its own
 * driver runs; so a set that fits when everything is up may not fit while it comes up.
 */
export function turnsOf(plan: GuestPlan, pot: Pot): Turn[] {
  const { base, cache, perGuest } = pot.reserve;
  const has = (pot.memory ?? 0) - base - cache;
  let at = 0;
  let given = 0;
  let full = 0;
  return inOrder(plan).map((guest): Turn => {
    const wants = guest.memoryBytes + perGuest;
    full += wants;
    const turn: Turn = {
      guest,
      at,
      short: Math.max(0, given + wants - has),
      shortAtOnce: Math.max(0, full - has),
    };
    given += floorOf(guest) + perGuest;
    at += guest.delaySeconds;
    return turn;
  });
}
