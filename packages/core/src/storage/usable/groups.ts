import { GIB, MIB } from '../../units/bytes';

/** How a kind of block group is spread: Btrfs, “Profiles” of mkfs.btrfs(8). */
export interface Profile {
  /** Everything is kept so often. */
  copies: number;
  /** Drives’ worth of parity. */
  parity: number;
  /** Drives that one group needs at least, and takes at most (0: all). */
  least: number;
  most: number;
  /** Of two copies, both may lie on one drive. */
  onOne?: boolean;
}

/** A stripe is a multiple of this (btrfs(5), “Stripe length”); no group has smaller ones. */
const STRIPE = 64 * 1024;
/** The first MiB of every drive is never given away. */
export const FRONT = MIB;
const SYSTEM = 8 * MIB;
/** The first group of metadata takes no less of a drive. */
const LEAST_OWN = 32 * MIB;
/** A group of data takes at most so much of one drive, and is at most so large; read off the kernel’s fs/btrfs/volumes.c. */
const MOST_OF_ONE = GIB;
const MOST_DATA = 10 * GIB;
/** No group is more than a tenth of all there is. */
const SHARE = 0.1;

/** Where the bytes of one kind went. */
export interface Given {
  /** Bytes taken on each drive, by its place in the list. */
  on: number[];
  /** What of it can be used. */
  usable: number;
}

const floorTo = (n: number, unit: number): number => Math.floor(n / unit) * unit;
/**
 * The smallest drive that mkfs.btrfs takes: the first groups it makes have to lie on any of them. As mkfs.btrfs 6.2 says it
 * (“minimum size for each btrfs device”); held against it in the oracles.
 */
export const leastDriveOf = (data: Profile, metadata: Profile): number =>
  21 * MIB +
  40 * MIB * (metadata.onOne ? 2 : 1) +
  (data.copies + data.parity > 1 || data.most === 0 ? 64 : 8) * MIB;
const none = (drives: readonly number[]): Given => ({ on: drives.map(() => 0), usable: 0 });

/** How many drives a group takes of those that have room, in bytes that can be used on each of them once. */
interface Cut {
  chosen: readonly number[];
  each: number;
  usable: number;
}

/** The next group on the drives in `order`; undefined where none fits. */
function nextGroup(
  free: readonly number[],
  p: Profile,
  order: readonly number[],
  stripe: number,
  chunk: number,
): Cut | undefined {
  const perDrive = p.onOne ? 2 : 1;
  const chosen = order.filter((i) => (free[i] ?? 0) >= STRIPE * perDrive);
  if (p.most > 0) chosen.length = Math.min(chosen.length, p.most);
  if (chosen.length < p.least) return undefined;
  const data = p.parity > 0 ? chosen.length - p.parity : (chosen.length * perDrive) / p.copies;
  let room = stripe * perDrive;
  for (const i of chosen) room = Math.min(room, free[i] ?? 0);
  const least = floorTo(room / perDrive, STRIPE);
  const cut =
    least * data > chunk
      ? Math.min(floorTo(Math.ceil(chunk / data / (16 * MIB)) * 16 * MIB, STRIPE), least)
      : least;
  return { chosen, each: cut * perDrive, usable: cut * data };
}

/** Gives so many groups of one cut. */
function give(free: number[], given: Given, cut: Cut, times = 1): void {
  for (const i of cut.chosen) {
    free[i] = (free[i] ?? 0) - cut.each * times;
    given.on[i] = (given.on[i] ?? 0) + cut.each * times;
  }
  given.usable += cut.usable * times;
}

/** The drives with most room, as many as are wanted (0: all); of those with room for a whole stripe, the one with most left. */
function byRoom(free: readonly number[], stripe: number, wanted: number): number[] {
  const before = (a: number, b: number): boolean => {
    const [x = 0, y = 0] = [free[a], free[b]];
    const by = Math.min(y, stripe) - Math.min(x, stripe) || y - x || a - b;
    return by < 0;
  };
  const most = wanted === 0 ? free.length : wanted;
  const top: number[] = [];
  // Put in where it belongs, and what falls out at the end is let go: few are wanted of few.
  for (let i = 0; i < free.length; i += 1) {
    let at = top.length;
    while (at > 0 && before(i, top[at - 1] ?? 0)) at -= 1;
    if (at >= most) continue;
    top.splice(at, 0, i);
    if (top.length > most) top.pop();
  }
  return top;
}

/**
 * Groups that come again: once all drives that took part have given equally much, the same groups follow in the same
 * order, until one of these drives has no more than another one, or no whole stripe. Drives of many terabytes are thousands
 * of groups.
 */
class Round {
  private before: number[];
  cuts: Cut[] = [];
  constructor(free: readonly number[]) {
    this.before = [...free];
  }
  begin(free: readonly number[]): void {
    this.before = [...free];
    this.cuts = [];
  }
  add(cut: Cut): void {
    this.cuts.push(cut);
  }
  /** How often more the groups since the beginning follow; undefined where they are no round. */
  again(free: readonly number[], stripe: number): number | undefined {
    const gave = free.map((f, i) => (this.before[i] ?? 0) - f);
    const part = free.map((_, i) => i).filter((i) => (gave[i] ?? 0) > 0);
    const each = gave[part[0] ?? 0] ?? 0;
    // Longer than this no round is: what was begun among unequal drives begins anew.
    const long = this.cuts.length > 2 * free.length;
    const others = Math.max(0, ...free.filter((_, i) => (gave[i] ?? 0) === 0));
    const least = Math.min(...part.map((i) => free[i] ?? 0));
    const even = part.every((i) => gave[i] === each);
    const times = even ? Math.floor((least - Math.max(others, stripe)) / each) - 1 : 0;
    if (times > 0) return times;
    if (long) this.begin(free);
    return undefined;
  }
}

/**
 * Gives drives to metadata as they are when the file system was just made, then to data until nothing more fits: each
 * group goes to the drives with most room. `drives` are bytes, in the order in which they are named when it is made:
 * what it keeps of itself at first goes to the last of them. Source: fs/btrfs/volumes.c of Linux 6.1, from memory, and
 * what mkfs.btrfs 6.2 makes; held against both in the oracles.
 */
export function fillGroups(
  drives: readonly number[],
  data: Profile,
  metadata: Profile,
): { data: Given; metadata: Given; free: number[] } {
  const whole = drives.map((d) => floorTo(d, 4096));
  const free = whole.map((d) => Math.max(0, d - FRONT));
  const total = whole.reduce((sum, d) => sum + d, 0);
  const own = none(drives);
  const theirs = none(drives);
  if (drives.some((d) => d < leastDriveOf(data, metadata))) return { data: theirs, metadata: own, free };
  const last = drives.map((_, i) => drives.length - 1 - i);
  const keep = (want: number): void => {
    const cut = nextGroup(free, metadata, last, want, want);
    if (cut) give(free, own, cut);
  };
  keep(SYSTEM);
  const want = total > 50 * GIB ? GIB : 256 * MIB;
  const tenth = total * SHARE;
  // Only where a tenth is less than is wanted does it bind, and then it is shared out among the copies.
  keep(tenth < want ? Math.max(LEAST_OWN, floorTo(tenth / metadata.copies, STRIPE)) : want);
  const chunk = Math.min(MOST_DATA, floorTo(total * SHARE, STRIPE));
  const stripe = Math.min(MOST_OF_ONE, chunk);
  const perDrive = data.onOne ? 2 : 1;
  const round = new Round(free);
  for (;;) {
    const cut = nextGroup(free, data, byRoom(free, stripe * perDrive, data.most), stripe, chunk);
    if (!cut || cut.usable === 0) break;
    give(free, theirs, cut);
    round.add(cut);
    const more = round.again(free, stripe * perDrive);
    if (more === undefined) continue;
    for (const c of round.cuts) give(free, theirs, c, more);
    round.begin(free);
  }
  return { data: theirs, metadata: own, free };
}
