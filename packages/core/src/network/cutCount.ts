import { allot, type Pool } from './allot';
import type { CutWay, Returning } from './cutWorld';

/** How often something happened to one host; worlds are orders times what nobody said. */
export interface Fates {
  same: bigint;
  moved: bigint;
  none: bigint;
  /** Of a host that was set by hand: another is given its address. It counts among those that stay. */
  clash: bigint;
  /** Addresses it had afterwards. */
  at: Set<number>;
  /** A shortest order of arrivals, by ids, that ends ill for it. */
  ill: string[] | undefined;
}

interface State {
  mask: number;
  /** Addresses that are given or promised, in order. */
  leases: number[];
  worlds: bigint;
  /** How it came to be so, for one of its worlds. */
  before: State | undefined;
  by: number;
}

/** In how many orders so many can come. */
export const factorial = (n: number): bigint => (n < 2 ? 1n : BigInt(n) * factorial(n - 1));

/** More states than this are not gone through: what is counted must be counted while somebody waits. */
const MOST_STATES = 25_000;

/** In how many manners a host may ask, where nobody said which. */
const mannersOf = (r: Returning, way: CutWay): bigint =>
  r.asks && !way.remembers && r.asksAgain === null ? 2n : 1n;

/** All worlds of one way: every order, times every manner of asking that nobody said. */
export const worldsOf = (returning: readonly Returning[], way: CutWay): bigint =>
  returning.reduce((n, r) => n * mannersOf(r, way), factorial(returning.length));

/** What a host that asks is given, once for each manner in which it may ask. */
export function given(
  pool: Pool,
  way: CutWay,
  host: Returning,
  busy: ReadonlySet<number>,
  last: number | undefined,
): (number | undefined)[] {
  const { had } = host;
  // A lease that the server knows is answered as it stands, whoever else may be there.
  if (way.remembers && had !== undefined) return [had];
  const fresh = allot(pool, host.hardware, busy, last);
  if (way.remembers || host.asksAgain === false) return [fresh];
  const again = had !== undefined && !busy.has(had) && !pool.kept.has(had) ? had : fresh;
  return host.asksAgain === true ? [again] : [again, fresh];
}

/** What a server that knows its leases begins with: none of them goes to anybody else. */
export function promisedIn(returning: readonly Returning[], way: CutWay): number[] {
  return way.remembers ? returning.flatMap((r) => (r.asks && r.had !== undefined ? [r.had] : [])) : [];
}

const sorted = (numbers: readonly number[]): number[] => [...new Set(numbers)].sort((a, b) => a - b);

const trail = (returning: readonly Returning[], state: State | undefined): string[] => {
  const out: string[] = [];
  for (let s = state; s?.before; s = s.before) out.unshift(returning[s.by]?.id ?? '');
  return out;
};

/** One way gone through: hosts arrive one after the other, and orders that lead to the same are followed once. */
class Count {
  readonly fates: Map<string, Fates>;
  private next = new Map<string, State>();

  constructor(
    private readonly returning: readonly Returning[],
    private readonly pool: Pool,
    private readonly way: CutWay,
  ) {
    this.fates = new Map(
      returning.map((r) => [
        r.id,
        { same: 0n, moved: 0n, none: 0n, clash: 0n, at: new Set(), ill: undefined },
      ]),
    );
  }

  /** False where there are too many states. */
  run(progress?: (share: number) => void): boolean {
    let states: State[] = [
      {
        mask: 0,
        leases: sorted(promisedIn(this.returning, this.way)),
        worlds: 1n,
        before: undefined,
        by: -1,
      },
    ];
    for (let left = this.returning.length - 1; left >= 0; left -= 1) {
      this.next = new Map();
      for (const state of states) this.arrivals(state, left);
      if (this.next.size > MOST_STATES) return false;
      states = [...this.next.values()];
      progress?.(1 - left / this.returning.length);
    }
    return true;
  }

  private isThere = (state: State, i: number): boolean => (state.mask & (1 << i)) !== 0;

  private arrivals(state: State, left: number): void {
    const busy = new Set(state.leases);
    // Whoever was set by hand answers, to a server that looks.
    if (this.way.looks)
      this.returning.forEach((r, i) => {
        if (!r.asks && r.had !== undefined && this.isThere(state, i)) busy.add(r.had);
      });
    const orders = factorial(left);
    this.returning.forEach((host, i) => {
      if (this.isThere(state, i)) return;
      // What is still to come can happen in so many manners after this.
      const after = this.returning.reduce(
        (m, r, j) => (j === i || this.isThere(state, j) ? m : m * mannersOf(r, this.way)),
        orders,
      );
      if (host.asks)
        for (const at of given(this.pool, this.way, host, busy, state.leases.at(-1)))
          this.given(state, host, i, at, after);
      else this.stands(state, host, i, after);
    });
  }

  private ill(state: State, of: Returning, by: Returning): void {
    const fates = this.fates.get(of.id);
    if (fates) fates.ill ??= [...trail(this.returning, state), by.id];
  }

  private given(state: State, host: Returning, i: number, at: number | undefined, after: bigint): void {
    const fates = this.fates.get(host.id);
    if (!fates) return;
    const worlds = state.worlds * after;
    if (at === undefined) fates.none += worlds;
    else if (host.had !== undefined && at !== host.had) fates.moved += worlds;
    else fates.same += worlds;
    if (at === undefined || (host.had !== undefined && at !== host.had)) this.ill(state, host, host);
    if (at === undefined) return this.goOn(state, i, state.leases);
    fates.at.add(at);
    this.returning.forEach((r, j) => {
      if (r.asks || r.had !== at || !this.isThere(state, j)) return;
      const stood = this.fates.get(r.id);
      if (stood) stood.clash += worlds;
      this.ill(state, r, host);
    });
    this.goOn(state, i, sorted([...state.leases, at]));
  }

  /** A host that was set by hand comes up, whoever has its address. */
  private stands(state: State, host: Returning, i: number, after: bigint): void {
    const fates = this.fates.get(host.id);
    if (!fates || host.had === undefined) return this.goOn(state, i, state.leases);
    const worlds = state.worlds * after;
    fates.same += worlds;
    fates.at.add(host.had);
    if (this.isGiven(state, host.had)) {
      fates.clash += worlds;
      this.ill(state, host, host);
    }
    this.goOn(state, i, state.leases);
  }

  /** Whether an address was given to somebody who is there, and is not only promised to one who is not. */
  private isGiven(state: State, address: number): boolean {
    if (!state.leases.includes(address)) return false;
    const promised = this.way.remembers ? this.returning.findIndex((r) => r.asks && r.had === address) : -1;
    return promised < 0 || this.isThere(state, promised);
  }

  private goOn(state: State, by: number, leases: number[]): void {
    const mask = state.mask | (1 << by);
    const key = `${mask} ${leases.join(' ')}`;
    const there = this.next.get(key);
    if (there) there.worlds += state.worlds;
    else this.next.set(key, { mask, leases, worlds: state.worlds, before: state, by });
  }
}

/**
 * Every order in which hosts may return, counted exactly. Undefined where too many states would have to be gone through.
 */
export function countOrders(
  returning: readonly Returning[],
  pool: Pool,
  way: CutWay,
  progress?: (share: number) => void,
): Map<string, Fates> | undefined {
  if (returning.length > 30) return undefined;
  const count = new Count(returning, pool, way);
  return count.run(progress) ? count.fates : undefined;
}
