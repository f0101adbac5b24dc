import { randomFrom } from '../units/random';
import { allot, type Pool } from './allot';
import { given, promisedIn } from './cutCount';
import type { CutWay, Returning } from './cutWorld';

/** What can be said of a host without going through every order. */
export interface Argued {
  /** `same`: no order moves it. `may move`: an order was found that does. `perhaps`: neither was shown. */
  is: 'same' | 'may move' | 'perhaps';
  at: Set<number>;
  ill: string[] | undefined;
  /** An order was found in which another is given its address, which it keeps. */
  clash: boolean;
}

/** So many orders are tried, drawn by the seed. */
const TRIED = 60;

/**
 * All addresses a host may ever be given: where its search begins, and on as long as somebody else may be there first. Who may
 * be where follows from the same of all others, until nothing is added: it never says too little.
 */
function reach(returning: readonly Returning[], pool: Pool, way: CutWay): Map<string, Set<number>> {
  const out = new Map<string, Set<number>>(returning.map((r) => [r.id, new Set<number>()]));
  // How many may be at an address: whether others may is asked for every step.
  const counts = new Map<number, number>();
  const reaches = (id: string, address: number): void => {
    const mine = out.get(id);
    if (!mine || mine.has(address)) return;
    mine.add(address);
    counts.set(address, (counts.get(address) ?? 0) + 1);
  };
  for (const r of returning) if (r.had !== undefined && (!r.asks || way.remembers)) reaches(r.id, r.had);
  const asking = returning.filter((r) => r.asks && !(way.remembers && r.had !== undefined));
  for (let grew = true; grew;) {
    grew = false;
    for (const r of asking) {
      const mine = out.get(r.id);
      if (!mine) continue;
      const before = mine.size;
      const othersMay = (address: number): boolean =>
        (counts.get(address) ?? 0) > (mine.has(address) ? 1 : 0);
      if (r.asksAgain !== false && r.had !== undefined) reaches(r.id, r.had);
      // What it had may be taken: then, and where it does not ask, it is given another.
      if (r.asksAgain !== true || r.had === undefined || othersMay(r.had))
        walk(pool, r, othersMay, (a) => reaches(r.id, a));
      if (mine.size > before) grew = true;
    }
  }
  return out;
}

function walk(
  pool: Pool,
  host: Returning,
  othersMay: (address: number) => boolean,
  reaches: (address: number) => void,
): void {
  const busy = new Set<number>();
  for (;;) {
    const at = allot(pool, host.hardware, busy, undefined);
    if (at === undefined) return;
    const taken = othersMay(at);
    reaches(at);
    if (!taken) return;
    busy.add(at);
  }
}

function shuffled<T>(all: readonly T[], next: () => number): T[] {
  const out = [...all];
  for (let i = out.length - 1; i > 0; i -= 1) {
    const j = Math.floor(next() * (i + 1));
    [out[i], out[j]] = [out[j] as T, out[i] as T];
  }
  return out;
}

/** One order played: what each is given, and at which arrival something went ill for whom. */
function play(
  order: readonly Returning[],
  pool: Pool,
  way: CutWay,
  next: () => number,
  tell: (of: Returning, at: number | undefined, ill: boolean, clash: boolean, n: number) => void,
): void {
  const leases = promisedIn(order, way);
  // Given, promised, or, to a server that looks, answering.
  const busy = new Set(leases);
  const standing = new Map<number, Returning>();
  // Addresses of those who are there, whoever else they are promised to.
  const there = new Set<number>();
  let last = leases.length > 0 ? Math.max(...leases) : undefined;
  order.forEach((host, n) => {
    if (!host.asks) {
      if (host.had === undefined) return;
      const clash = there.has(host.had);
      tell(host, host.had, clash, clash, n);
      standing.set(host.had, host);
      if (way.looks) busy.add(host.had);
      return;
    }
    const ways = given(pool, way, host, busy, last);
    const at = ways[Math.floor(next() * ways.length)];
    tell(host, at, at === undefined || (host.had !== undefined && at !== host.had), false, n);
    if (at === undefined) return;
    const stood = standing.get(at);
    if (stood) tell(stood, at, true, true, n);
    there.add(at);
    busy.add(at);
    last = Math.max(at, last ?? at);
  });
}

/** What can be said of many hosts: by argument that one stays, by an order that one moves. */
export function argue(
  returning: readonly Returning[],
  pool: Pool,
  way: CutWay,
  seed: number,
): Map<string, Argued> {
  const next = randomFrom(seed);
  // One after the other, whoever is new may be given any: where the search begins depends on all who came before.
  const fresh = returning.some((r) => r.asks && !(way.remembers && r.had !== undefined));
  const can = pool.manner === 'in order' && fresh ? undefined : reach(returning, pool, way);
  const inReach = new Map<number, number>();
  for (const set of can?.values() ?? []) for (const a of set) inReach.set(a, (inReach.get(a) ?? 0) + 1);
  const out = new Map<string, Argued>(
    returning.map((r) => {
      const where = can?.get(r.id) ?? new Set(r.had === undefined ? [] : [r.had]);
      // It can be nowhere else, and nobody else can be there.
      const stays =
        can !== undefined &&
        r.had !== undefined &&
        where.size === 1 &&
        where.has(r.had) &&
        inReach.get(r.had) === 1;
      return [r.id, { is: stays ? 'same' : 'perhaps', at: new Set(where), ill: undefined, clash: false }];
    }),
  );
  for (let t = 0; t < TRIED; t += 1) {
    const order = shuffled(returning, next);
    play(order, pool, way, next, (host, at, ill, clash, n) => {
      const said = out.get(host.id);
      if (!said) return;
      if (at !== undefined) said.at.add(at);
      if (!ill) return;
      if (clash) said.clash = true;
      else said.is = 'may move';
      if (!said.ill || n + 1 < said.ill.length) said.ill = order.slice(0, n + 1).map((r) => r.id);
    });
  }
  return out;
}
