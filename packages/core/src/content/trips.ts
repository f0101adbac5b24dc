/** Something that goes together: a folder, or a set that is not torn apart. Bytes on the stick, rounded to its clusters. */
export interface Load {
  id: string;
  bytes: number;
}

/** What goes on which trip, and how sure it is that no fewer do. */
export interface Trips {
  trips: string[][];
  /** No way needs fewer. */
  least: number;
  /** As many as there are at least: proven, not only found. */
  proven: boolean;
  /** What does not fit even by itself. */
  tooLarge: string[];
}

/** Up to so many things every way is tried, within so many steps. */
const EXACT = 28;
const STEPS = 400_000;

/**
 * Bounds from below: all bytes over the room of a trip, and (Martello and Toth’s second bound, 1990) what large things leave
 * beside them, for every size that “large” could mean.
 */
export function leastTrips(sizes: readonly number[], room: number): number {
  let least = Math.ceil(sizes.reduce((sum, s) => sum + s, 0) / room);
  for (const k of new Set(sizes.filter((s) => s <= room / 2))) {
    const large = sizes.filter((s) => s > room - k).length;
    const middle = sizes.filter((s) => s > room / 2 && s <= room - k);
    const small = sizes.filter((s) => s >= k && s <= room / 2);
    const rest =
      small.reduce((sum, s) => sum + s, 0) - (middle.length * room - middle.reduce((sum, s) => sum + s, 0));
    least = Math.max(least, large + middle.length + Math.max(0, Math.ceil(rest / room)));
  }
  return least;
}

/** The largest first, each where it leaves least room: never more than 11/9 of the best and one more (Johnson 1973). */
function bestFit(loads: readonly Load[], room: number): Load[][] {
  const trips: { loads: Load[]; free: number }[] = [];
  for (const load of loads) {
    let best: (typeof trips)[number] | undefined;
    for (const t of trips) if (t.free >= load.bytes && (!best || t.free < best.free)) best = t;
    if (best) {
      best.loads.push(load);
      best.free -= load.bytes;
    } else trips.push({ loads: [load], free: room - load.bytes });
  }
  return trips.map((t) => t.loads);
}

/** Tries to do with so many trips; undefined where none was found within the steps. */
function within(
  loads: readonly Load[],
  room: number,
  trips: number,
): { found: Load[][] | undefined; whole: boolean } {
  const into: Load[][] = Array.from({ length: trips }, () => []);
  const left = into.map(() => room);
  let steps = 0;
  const put = (i: number): boolean => {
    const load = loads[i];
    if (!load) return true;
    steps += 1;
    if (steps > STEPS) return false;
    const tried = new Set<number>();
    for (let t = 0; t < trips; t += 1) {
      const free = left[t] ?? 0;
      // Two trips with the same room are one choice.
      if (free < load.bytes || tried.has(free)) continue;
      tried.add(free);
      into[t]?.push(load);
      left[t] = free - load.bytes;
      if (put(i + 1)) return true;
      into[t]?.pop();
      left[t] = free;
      if (steps > STEPS) return false;
    }
    return false;
  };
  const done = put(0);
  return { found: done ? into : undefined, whole: steps <= STEPS };
}

/**
 * What goes by which trip of a stick with so much room: as few trips as can be. Exact for a few dozen things, where the
 * bound from below is met or every way was tried; of more, a packing with its bound.
 */
export function packTrips(loads: readonly Load[], room: number): Trips {
  const tooLarge = loads.filter((l) => l.bytes > room).map((l) => l.id);
  const fits = loads.filter((l) => l.bytes <= room).sort((a, b) => b.bytes - a.bytes);
  if (fits.length === 0) return { trips: [], least: 0, proven: true, tooLarge };
  let least = leastTrips(
    fits.map((l) => l.bytes),
    room,
  );
  let trips = bestFit(fits, room);
  if (trips.length > least && fits.length <= EXACT)
    while (trips.length > least) {
      const tried = within(fits, room, trips.length - 1);
      if (tried.found) trips = tried.found.filter((t) => t.length > 0);
      else {
        if (tried.whole) least = trips.length;
        break;
      }
    }
  return {
    trips: trips.map((t) => t.map((l) => l.id)),
    least,
    proven: trips.length === least,
    tooLarge,
  };
}
