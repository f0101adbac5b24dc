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
  const asking = returning.filter((r) => r.asks);
  for (const r of returning) if (r.had !== undefined && (!r.asks || way.remembers)) out.get(r.id)?.add(r.had);
  for (let grew = true; grew;) {
    grew = false;
    for (const r of asking) {
      if (way.remembers && r.had !== undefined) continue;
      const mine = out.get(r.id);
      if (!mine) continue;
      const before = mine.size;
      const others = new Set<number>();
      for (const [id, where] of out) if (id !== r.id) for (const a of where) others.add(a);
      const mayAsk = r.asksAgain !== false && r.had !== undefined;
      if (mayAsk && r.had !== undefined) mine.add(r.had);
      // What it had may be taken: then, and where it does not ask, it is given another.
      if (r.asksAgain !== true || r.had === undefined || others.has(r.had)) walk(pool, r, others, mine);
      if (mine.size > before) grew = true;
    }
  }
  return out;
}

function walk(pool: Pool, host: Returning, others: ReadonlySet<number>, into: Set<number>): void {
  const busy = new Set<number>();
  for (;;) {
    const at = allot(pool, host.hardware, busy, undefined);
    if (at === undefined) return;
    into.add(at);
    if (!others.has(at)) return;
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
  const promised = promisedIn(order, way);
  const busy = new Set(promised);
  const there = new Map<number, Returning>();
  let last = promised.length > 0 ? Math.max(...promised) : undefined;
  order.forEach((host, n) => {
    if (!host.asks) {
      if (host.had === undefined) return;
      const clash = there.has(host.had);
      tell(host, host.had, clash, clash, n);
      there.set(host.had, host);
      if (way.looks) busy.add(host.had);
      return;
    }
    const ways = given(pool, way, host, busy, last);
    const at = ways[Math.floor(next() * ways.length)];
    tell(host, at, at === undefined || (host.had !== undefined && at !== host.had), false, n);
    if (at === undefined) return;
    const stood = there.get(at);
    if (stood && !stood.asks) tell(stood, at, true, true, n);
    there.set(at, host);
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
  const can = pool.manner === 'in order' && !way.remembers ? undefined : reach(returning, pool, way);
  const out = new Map<string, Argued>(
    returning.map((r) => {
      const where = can?.get(r.id) ?? new Set(r.had === undefined ? [] : [r.had]);
      const others = [...(can ?? [])].some(
        ([id, set]) => id !== r.id && r.had !== undefined && set.has(r.had),
      );
      const stays = can !== undefined && where.size === 1 && r.had !== undefined && where.has(r.had);
      return [
        r.id,
        { is: stays && !others ? 'same' : 'perhaps', at: new Set(where), ill: undefined, clash: false },
      ];
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
