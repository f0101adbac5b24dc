import { lpText, type Model, type SolveLp, type Term } from '../assign/lp';
import type { Guest, GuestPlan } from '../model/guests';
import { MIB } from '../units/bytes';
import type { Pot } from './pot';
import { floorOf, memorySum, poolSums, running } from './sums';

/** One change to a guest that makes room. Bytes. */
export type Change =
  | { kind: 'less memory'; guest: string; from: number; to: number }
  | { kind: 'left out'; guest: string }
  | { kind: 'disk thin'; guest: string; disk: string; saves: number }
  | { kind: 'disk moved'; guest: string; disk: string; from: string; to: string; bytes: number };

/** The smallest change that makes a set fit. */
export interface Mended {
  changes: Change[];
  plan: GuestPlan;
  /** Guests that are touched, what they weigh together, and MiB that change. */
  touched: number;
  weight: number;
  mebibytes: number;
}

/** What became of the search. */
export type MendResult =
  | { code: 'fits already' }
  | { code: 'mended'; mended: Mended }
  | { code: 'cannot be mended' }
  | { code: 'stopped' };

/** Whether everything a set asks for is there: memory at most, each pool. What is checked beside it is not room. */
export function setFits(plan: GuestPlan, pot: Pot): boolean {
  const memory = memorySum(plan, pot);
  return (memory === undefined || memory.free >= 0) && poolSums(plan).every((p) => p.free >= 0);
}

/** A plan with changes made. */
export function changedPlan(plan: GuestPlan, changes: readonly Change[]): GuestPlan {
  const guests = plan.guests.flatMap((g): Guest[] => {
    const mine = changes.filter((c) => c.guest === g.id);
    // Its disks are not made either: what was not there yet needs no room.
    if (mine.some((c) => c.kind === 'left out')) return [{ ...g, on: false, disks: [] }];
    const less = mine.find((c) => c.kind === 'less memory');
    return [
      {
        ...g,
        ...(less
          ? {
              memoryBytes: less.to,
              floorBytes: g.floorBytes === null ? null : Math.min(g.floorBytes, less.to),
            }
          : {}),
        disks: g.disks.map((d) => {
          const thin = mine.some((c) => c.kind === 'disk thin' && c.disk === d.id);
          const moved = mine.find((c) => c.kind === 'disk moved' && c.disk === d.id);
          return {
            ...d,
            ...(thin ? { thin: true } : {}),
            ...(moved?.kind === 'disk moved' ? { poolId: moved.to } : {}),
          };
        }),
      },
    ];
  });
  return { ...plan, guests };
}

/** The least memory a guest works with. Bytes. */
export const leastOf = (g: Guest): number => Math.min(g.memoryBytes, g.leastBytes ?? g.memoryBytes);
const down = (bytes: number): number => Math.floor(bytes / MIB);
/**
 * Rows of the model are in these: a byte is then 1/512, which decimals of nine digits write exactly, and 2000 times what a
 * solver lets pass as rounding.
 */
const UNIT = 512;
const units = (bytes: number): number => bytes / UNIT;

/** A variable is set only where another is. */
const onlyWith = (name: string, other: string): Model['rows'][number] => ({
  terms: [
    { name, by: 1 },
    { name: other, by: -1 },
  ],
  sign: '<=',
  is: 0,
});

interface Built {
  model: Model;
  /** What each variable means when it is set. */
  means: Map<string, (value: number) => Change>;
  touched: Term[];
  weights: Term[];
  amounts: Term[];
}

/**
 * Every change as a variable: memory taken in whole MiB and down to the last byte of what a guest can spare, guests left out,
 * disks made thin or moved. `y` of a guest is set where anything of it changes. Sizes are exact: where no solution is found,
 * there is none.
 */
function build(plan: GuestPlan, pot: Pot): Built {
  const rows: Model['rows'] = [];
  const binary: string[] = [];
  const whole: Model['whole'] = [];
  const means: Built['means'] = new Map();
  const touched: Term[] = [];
  const weights: Term[] = [];
  const amounts: Term[] = [];
  const memory = memorySum(plan, pot);
  const memoryTerms: Term[] = [];
  const relief = new Map<string, Term[]>(plan.pools.map((p) => [p.id, []]));
  plan.guests.forEach((g, i) => {
    const y = `y${i}`;
    const out = `o${i}`;
    binary.push(y, out);
    touched.push({ name: y, by: 1 });
    weights.push({ name: y, by: g.weight });
    means.set(out, () => ({ kind: 'left out', guest: g.id }));
    rows.push(onlyWith(out, y));
    const spare = g.on ? g.memoryBytes - leastOf(g) : 0;
    amounts.push({ name: out, by: down(g.memoryBytes) });
    if (g.on) memoryTerms.push({ name: out, by: units(g.memoryBytes + pot.reserve.perGuest) });
    const less = (bytes: number): Change => ({
      kind: 'less memory',
      guest: g.id,
      from: g.memoryBytes,
      to: g.memoryBytes - bytes,
    });
    // Taken only from a guest that is touched, and not from one that is left out.
    const onlyOfTouched = (name: string, most: number): void =>
      void rows.push({
        terms: [
          { name, by: 1 },
          { name: y, by: -most },
          { name: out, by: most },
        ],
        sign: '<=',
        is: 0,
      });
    const steps = down(spare);
    const rest = spare - steps * MIB;
    if (steps > 0) {
      const m = `m${i}`;
      whole.push({ name: m, most: steps });
      means.set(m, (v) => less(v * MIB));
      onlyOfTouched(m, steps);
      memoryTerms.push({ name: m, by: units(MIB) });
      amounts.push({ name: m, by: 1 });
    }
    if (rest > 0) {
      // What it can spare beyond whole MiB.
      const r = `r${i}`;
      binary.push(r);
      means.set(r, () => less(rest));
      onlyOfTouched(r, 1);
      memoryTerms.push({ name: r, by: units(rest) });
      amounts.push({ name: r, by: 1 });
    }
    for (const [j, d] of g.disks.entries())
      diskTerms(plan, g, d, { i, j, y, out, rows, binary, means, relief, amounts });
  });
  if (memory && memory.free < 0) rows.push({ terms: memoryTerms, sign: '>=', is: units(-memory.free) });
  for (const s of poolSums(plan)) {
    const terms = relief.get(s.pool.id) ?? [];
    if (terms.length > 0 || s.free < 0)
      rows.push({
        terms: terms.length > 0 ? terms : [{ name: 'nothing', by: 1 }],
        sign: '>=',
        is: units(-s.free),
      });
  }
  return { model: { objective: [], rows, binary, whole }, means, touched, weights, amounts };
}

function diskTerms(
  plan: GuestPlan,
  g: Guest,
  d: Guest['disks'][number],
  at: {
    i: number;
    j: number;
    y: string;
    out: string;
    rows: Model['rows'];
    binary: string[];
    means: Built['means'];
    relief: Map<string, Term[]>;
    amounts: Term[];
  },
): void {
  const { i, j, y, out, rows, binary, means, relief, amounts } = at;
  const pool = plan.pools.find((p) => p.id === d.poolId);
  if (!pool) return;
  const thin = d.thin && pool.thin;
  const takes = thin ? Math.min(d.usedBytes ?? 0, d.bytes) : d.bytes;
  relief.get(d.poolId)?.push({ name: out, by: units(takes) });
  const one: Term[] = [{ name: out, by: 1 }];
  if (!thin && pool.thin && d.usedBytes !== null && d.usedBytes < d.bytes) {
    const t = `t${i}_${j}`;
    const saves = d.bytes - d.usedBytes;
    binary.push(t);
    one.push({ name: t, by: 1 });
    rows.push(onlyWith(t, y));
    relief.get(d.poolId)?.push({ name: t, by: units(saves) });
    means.set(t, () => ({ kind: 'disk thin', guest: g.id, disk: d.id, saves }));
  }
  for (const [k, p] of plan.pools.entries()) {
    if (p.id === d.poolId) continue;
    const there = d.thin && p.thin ? Math.min(d.usedBytes ?? 0, d.bytes) : d.bytes;
    const v = `v${i}_${j}_${k}`;
    binary.push(v);
    one.push({ name: v, by: 1 });
    rows.push(onlyWith(v, y));
    relief.get(d.poolId)?.push({ name: v, by: units(takes) });
    relief.get(p.id)?.push({ name: v, by: -units(there) });
    amounts.push({ name: v, by: down(there) });
    means.set(v, () => ({
      kind: 'disk moved',
      guest: g.id,
      disk: d.id,
      from: d.poolId,
      to: p.id,
      bytes: there,
    }));
  }
  // One fate for a disk: left out, made thin, or moved to one place.
  rows.push({ terms: one, sign: '<=', is: 1 });
}

/** Memory taken from one guest in several changes is one change. */
function together(changes: readonly Change[]): Change[] {
  const out: Change[] = [];
  for (const c of changes) {
    const before = out.findIndex((o) => o.kind === 'less memory' && o.guest === c.guest);
    const known = out[before];
    if (c.kind === 'less memory' && known?.kind === 'less memory')
      out[before] = { ...known, to: known.to - (c.from - c.to) };
    else out.push(c);
  }
  return out;
}

/**
 * The smallest change that makes an impossible set fit, proven: fewest guests touched; among those what matters least; and of the
 * guests that are then touched as few MiB changed as will do. Three models, each with what the one before proved. Seconds: for each.
 */
export function mendGuests(plan: GuestPlan, pot: Pot, solve: SolveLp, seconds = 10): MendResult {
  if (setFits(plan, pot)) return { code: 'fits already' };
  const { model, means, touched, weights, amounts } = build(plan, pot);
  const rows = [...model.rows];
  let values: ReadonlyMap<string, number> = new Map();
  for (const [i, goal] of [touched, weights, amounts].entries()) {
    const objective = goal.map((t) => ({ ...t, by: -t.by }));
    const found = solve(lpText({ ...model, rows, objective }), seconds);
    if (found.status !== 'optimal')
      return { code: found.status === 'infeasible' ? 'cannot be mended' : 'stopped' };
    values = found.values;
    if (i === 0) rows.push({ terms: goal, sign: '=', is: Math.round(-found.objective) });
    // Who is touched is settled: what of them changes is made as little as it can be.
    else
      for (const t of touched)
        rows.push({ terms: [{ name: t.name, by: 1 }], sign: '=', is: Math.round(values.get(t.name) ?? 0) });
  }
  const changes = together(
    [...means].flatMap(([name, change]) => {
      const v = Math.round(values.get(name) ?? 0);
      return v > 0 ? [change(v)] : [];
    }),
  );
  const total = (terms: readonly Term[]): number =>
    terms.reduce((sum, t) => sum + t.by * Math.round(values.get(t.name) ?? 0), 0);
  const mended = mendedBy(plan, changes, total(amounts));
  // Whole numbers come back as fractions of them: what does not fit to the byte is not given out.
  return setFits(mended.plan, pot) ? { code: 'mended', mended } : { code: 'stopped' };
}

/** Changes with what they make of a plan, and what they touch. */
export function mendedBy(plan: GuestPlan, changes: Change[], mebibytes: number): Mended {
  const ids = new Set(changes.map((c) => c.guest));
  const touched = plan.guests.filter((g) => ids.has(g.id));
  return {
    changes,
    plan: changedPlan(plan, changes),
    touched: touched.length,
    weight: touched.reduce((sum, g) => sum + g.weight, 0),
    mebibytes,
  };
}

/** Guests that could do with less while everything runs: what ballooning alone would free, in bytes. */
export const couldGiveBack = (plan: GuestPlan): number =>
  running(plan).reduce((sum, g) => sum + g.memoryBytes - floorOf(g), 0);
