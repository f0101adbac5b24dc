import { findMachine, type Bench } from '../model/bench';
import type { Purpose } from '../model/profile';
import type { Wish } from '../model/wish';
import { breakEven, runningCost, type BreakEven, type RunningCost } from './cost';
import { canTake } from './judge';
import { Reader } from './places';
import { flips, type Flip } from './score';
import { briefSheet, crossingOf, type BriefSheet } from './sheet';
import { factsOf } from '../model/known';
import { isMachine, type Machine } from '../model/shelf';

/** The machine that competes with this one for a wish: the best other score of the sheet's column. */
export function rivalOf(sheet: BriefSheet, machineId: string, column: number): string | undefined {
  const others = sheet.rows.flatMap((r) => {
    const score = r.cells[column]?.score;
    return r.machineId === machineId || score === null || score === undefined
      ? []
      : [{ id: r.machineId, score }];
  });
  return others.sort((a, b) => b.score - a.score)[0]?.id;
}

/** The same without a sheet at hand: the best other machine for the wish, undefined where there is none. */
export function plannedRival(bench: Bench, machineId: string, wish: Wish | undefined): string | undefined {
  if (!wish) return undefined;
  const one = { ...bench, wishes: [wish] };
  return rivalOf(briefSheet(one, 'wishes'), machineId, 0);
}

/** Two machines for one wish: the better one, the other, their points, and the weights that would turn their order. */
export interface FlipReport {
  first: { name: string; total: number };
  second: { name: string; total: number };
  flips: Flip[];
}

/** What would turn the order between two machines for a wish. Undefined where one of them cannot answer it. */
export function flipReport(
  bench: Bench,
  machineId: string,
  rivalId: string,
  wish: Wish,
): FlipReport | undefined {
  const scored = [machineId, rivalId].flatMap((id) => {
    const machine = findMachine(bench, id);
    const cell = machine && crossingOf(bench, machine, wish);
    return machine && cell && canTake(cell.judged.verdict) ? [{ name: machine.name, score: cell.score }] : [];
  });
  const [first, second] = scored.sort((a, b) => b.score.total - a.score.total);
  if (!first || !second) return undefined;
  return {
    first: { name: first.name, total: first.score.total },
    second: { name: second.name, total: second.score.total },
    flips: flips(first.score, second.score, bench.settings.weights),
  };
}

/** What a machine costs to run, and against which others that would pay. */
export interface Money {
  own: RunningCost | undefined;
  /** Against each other machine of the shelf and the price list whose watts are known. */
  against: { machineId: string; name: string; price: number; cost: RunningCost; even: BreakEven }[];
}

/** What a machine costs to run a year for a purpose; undefined where its idle watts are not known. `hours` are a day. */
export function ownCost(
  bench: Bench,
  machineId: string,
  purpose: Purpose,
  hours: number,
): RunningCost | undefined {
  const machine = findMachine(bench, machineId);
  return machine && runningCost(wattsOf(machine), purpose, hours, bench.settings.tariff);
}

/** The facts of a machine alone: what it draws does not turn on its drives or on parts. */
const wattsOf = (machine: Machine): Reader =>
  new Reader({ name: machine.name, ...factsOf(machine), drives: [], parts: [] }, 'trust');

/** Running cost of a machine for a purpose, and when each alternative would pay for itself. `hours` are a day. */
export function moneyReport(bench: Bench, machineId: string, purpose: Purpose, hours: number): Money {
  const own = ownCost(bench, machineId, purpose, hours);
  const against = bench.items.filter(isMachine).flatMap((m) => {
    const cost = m.id === machineId ? undefined : ownCost(bench, m.id, purpose, hours);
    if (!own || !cost) return [];
    const price = m.owned ? 0 : (m.price ?? 0);
    return [
      {
        machineId: m.id,
        name: m.name,
        price,
        cost,
        even: breakEven(own.perYear, cost.perYear, price),
      },
    ];
  });
  return { own, against };
}

/** Watts when idle and money a year over machines and the wishes they answer; what is not known is left out and counted. */
export function runningTotal(
  bench: Bench,
  pairs: readonly { machineId: string; wish: Wish }[],
): { idle: number; perYear: number; unknown: number } {
  let [idle, perYear, unknown] = [0, 0, 0];
  for (const { machineId, wish } of pairs) {
    const machine = findMachine(bench, machineId);
    const cost = ownCost(bench, machineId, wish.purpose, wish.hoursPerDay);
    if (!cost || !machine) unknown += 1;
    else {
      perYear += cost.perYear;
      idle += wattsOf(machine).number('power.idle') ?? 0;
    }
  }
  return { idle, perYear, unknown };
}
