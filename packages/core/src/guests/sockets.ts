import type { Guest, GuestPlan } from '../model/guests';
import type { Pot } from './pot';
import { running } from './sums';

/** Where guests lie on a machine of several sockets. */
export interface Placed {
  /** The socket of each guest by its id. */
  at: ReadonlyMap<string, number>;
  /** Guests larger than any socket: their memory lies on two, and the far half is slower. */
  spans: string[];
  /** Guests that fit a socket by themselves and that no share-out places; empty where all are. */
  left: string[];
  /** False: the share-out was not proven impossible, the search was cut off. */
  proven: boolean;
}

const MOST_TRIED = 2_000_000;

/** Room of each socket when the host's own share lies on all of them equally. */
function rooms(pot: Pot): number[] {
  const own = (pot.reserve.base + pot.reserve.cache) / pot.sockets;
  return pot.nodes.map((n) => Math.max(0, Math.floor(n - own)));
}

/**
 * Each guest whole on one socket, exactly: the largest first, tried on every socket that differs from those tried already, given up
 * only where nothing is left to try. A guest that holds a device stays with it.
 */
export function placeOnSockets(plan: GuestPlan, pot: Pot): Placed {
  const room = rooms(pot);
  const largest = Math.max(0, ...room);
  const wants = (g: Guest): number => g.memoryBytes + pot.reserve.perGuest;
  const on = running(plan);
  const spans = on.filter((g) => wants(g) > largest).map((g) => g.id);
  const bound = (g: Guest): number | null =>
    g.devices.map((i) => plan.devices.find((d) => d.id === i)?.node ?? null).find((n) => n !== null) ?? null;
  const guests = on.filter((g) => wants(g) <= largest).sort((a, b) => wants(b) - wants(a));
  const at = new Map<string, number>();
  let best: Map<string, number> = new Map();
  let tried = 0;
  const rec = (i: number): boolean => {
    const guest = guests[i];
    if (!guest) return true;
    if (i > best.size) best = new Map(at);
    if ((tried += 1) > MOST_TRIED) return false;
    const only = bound(guest);
    const seen = new Set<number>();
    for (const n of room.keys()) {
      const free = room[n] ?? 0;
      if ((only !== null && only !== n) || free < wants(guest)) continue;
      // Two sockets with as much room are one to whoever is not bound to either.
      if (only === null && guests.slice(i).every((g) => bound(g) === null) && seen.has(free)) continue;
      seen.add(free);
      room[n] = free - wants(guest);
      at.set(guest.id, n);
      if (rec(i + 1)) return true;
      at.delete(guest.id);
      room[n] = free;
    }
    return false;
  };
  const total = guests.reduce((sum, g) => sum + wants(g), 0);
  const enough = total <= room.reduce((sum, r) => sum + r, 0);
  const found = enough && rec(0);
  const placed = found ? at : best;
  return {
    at: new Map(placed),
    spans,
    left: guests.filter((g) => !placed.has(g.id)).map((g) => g.id),
    proven: found || !enough || tried <= MOST_TRIED,
  };
}
