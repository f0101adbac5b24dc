import { lpText, type Row, type SolveLp } from './lp';
import type { Part } from '../system/part';
import { buildModel, moneyPoints, partPoints, type AssignModel, type Placing } from './model';
import type { Scene } from './scene';

/** A part that a plan puts into a machine; the price is of one, in the bench's currency. */
export interface PlacedPart {
  partId: string;
  name: string;
  role: Placing['role'];
  /** How many of it; more than one only of what is bought. */
  count: number;
  /** Price of one; 0 for what is on the shelf. */
  price: number;
  offer: boolean;
}

/** One wish met: by which machine, with which system and parts. */
export interface Assignment {
  wishId: string;
  machineId: string;
  profileId: string;
  releaseId: string;
  variantId: string;
  score: number;
  parts: PlacedPart[];
}

/** A plan of the whole shelf, how good it is, and whether anything could be better. */
export interface Solution {
  /** Total worth in points, less what purchases and moved parts count. */
  value: number;
  optimal: boolean;
  /** How far the best possible value may lie above, as a share of it; 0 where proven. */
  gap: number;
  assignments: Assignment[];
  spent: number;
  partsMoved: number;
}

const EMPTY: Solution = { value: 0, optimal: true, gap: 0, assignments: [], spent: 0, partsMoved: 0 };

function read(scene: Scene, built: AssignModel, values: ReadonlyMap<string, number>): Solution {
  const count = (name: string): number => Math.round(values.get(name) ?? 0);
  const left = new Map<Part, Part[]>();
  /** Which parts of the class these are: each own part goes to one machine. */
  const handOut = (p: Placing, n: number): PlacedPart[] => {
    const placed = (part: Part, times: number): PlacedPart => ({
      partId: part.id,
      name: part.name,
      role: p.role,
      count: times,
      price: part.price,
      offer: part.offer,
    });
    if (p.part.offer) return [placed(p.part, n)];
    const stock = left.get(p.part) ?? [...p.members];
    left.set(p.part, stock);
    return stock.splice(0, n).map((part) => placed(part, 1));
  };
  const assignments = built.options.flatMap((o, i): Assignment[] => {
    const wish = scene.wishes[o.wish];
    const machine = scene.machines[o.machine];
    if (!wish || !machine || count(`x${i}`) === 0) return [];
    const parts = built.placings
      .filter((p) => p.machine === o.machine && count(p.name) > 0)
      .flatMap((p) => handOut(p, count(p.name)));
    const { profileId, releaseId, variantId, score } = o;
    return [{ wishId: wish.id, machineId: machine.id, profileId, releaseId, variantId, score, parts }];
  });
  const placed = assignments.flatMap((a) => a.parts);
  const spent = placed.reduce((n, p) => n + p.price * p.count, 0);
  const partsMoved = placed.reduce((n, p) => n + p.count, 0);
  const moved = built.placings.reduce((n, p) => n + count(p.name) * partPoints(p.part), 0);
  const worth = built.options.reduce((n, o, i) => n + (count(`x${i}`) > 0 ? o.value : 0), 0);
  return {
    ...EMPTY,
    value: worth - spent * moneyPoints(scene) - moved,
    assignments,
    spent,
    partsMoved,
  };
}

/** Further demands on a solution: pairs not to be taken all together again, wishes that must be met. */
export interface Demands {
  without?: readonly (readonly Pick<Assignment, 'wishId' | 'machineId'>[])[];
  met?: readonly string[];
}

function demandRows(scene: Scene, built: AssignModel, demands: Demands): Row[] {
  const of = (test: (o: AssignModel['options'][number]) => boolean): Row['terms'] =>
    built.options.flatMap((o, i) => (test(o) ? [{ name: `x${i}`, by: 1 }] : []));
  const without = (demands.without ?? []).map((pairs): Row => ({
    terms: of((o) =>
      pairs.some(
        (p) => scene.wishes[o.wish]?.id === p.wishId && scene.machines[o.machine]?.id === p.machineId,
      ),
    ),
    sign: '<=',
    is: pairs.length - 1,
  }));
  const met = (demands.met ?? []).map((id): Row => ({
    terms: of((o) => scene.wishes[o.wish]?.id === id),
    sign: '>=',
    is: 1,
  }));
  return [...without, ...met];
}

function solveWith(
  scene: Scene,
  built: AssignModel,
  solveLp: SolveLp,
  seconds: number,
  demands: Demands,
): Solution | undefined {
  const rows = demandRows(scene, built, demands);
  // A demand no variable can serve has no row in the text, and must not be lost.
  if (rows.some((r) => r.sign === '>=' && r.terms.length === 0)) return undefined;
  if (built.options.length === 0) return EMPTY;
  const model = { ...built.model, rows: [...built.model.rows, ...rows] };
  const solved = solveLp(lpText(model), seconds);
  if (solved.status === 'infeasible' || solved.values.size === 0) return undefined;
  const found = read(scene, built, solved.values);
  if (solved.status === 'optimal') return found;
  const bound = solveLp(lpText(model, true), seconds).objective;
  return { ...found, optimal: false, gap: Math.max(0, (bound - found.value) / Math.max(1, bound)) };
}

/**
 * The assignment of machines and parts to wishes with the highest total value, within the budget. A pinned pair is taken
 * before anything is weighed, so far as it and the other pins can be met together. Undefined where the demands cannot be
 * met, or where the solver had no answer in its time (`seconds`).
 */
export function solveScene(
  scene: Scene,
  solveLp: SolveLp,
  seconds = 20,
  demands: Demands = {},
): Solution | undefined {
  const built = buildModel(scene);
  const pinned = pinnedWishes(scene, built);
  const met = [...new Set([...(demands.met ?? []), ...pinned])];
  const kept = solveWith(scene, built, solveLp, seconds, { ...demands, met });
  return kept ?? (pinned.length > 0 ? solveWith(scene, built, solveLp, seconds, demands) : undefined);
}

/** Wishes pinned to a machine that could take them. */
const pinnedWishes = (scene: Scene, built: AssignModel): string[] =>
  scene.wishes.flatMap((w, i) =>
    w.pinned !== null && built.options.some((o) => o.wish === i) ? [w.id] : [],
  );

/** Runners-up: other assignments of machines to wishes whose value lies within `share` of the best; best first. */
export function alternatives(
  scene: Scene,
  best: Solution,
  solveLp: SolveLp,
  most = 3,
  share = 0.04,
): Solution[] {
  const out: Solution[] = [];
  while (out.length < most) {
    const without = [best, ...out].map((s) => s.assignments);
    const next = solveScene(scene, solveLp, 10, { without });
    if (!next || next.assignments.length === 0 || next.value < best.value * (1 - share)) break;
    out.push(next);
  }
  return out;
}
