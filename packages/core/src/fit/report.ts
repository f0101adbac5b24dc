import type { Bench } from '../schema/bench';
import type { Purpose } from '../schema/profile';
import type { Wish } from '../schema/wish';
import { breakEven, runningCost, type BreakEven, type RunningCost } from './cost';
import { Reader } from './rooms';
import { flips, flipWords } from './score';
import type { Crossing, MatchRow, MatchSheet } from './sheet';
import { machineView } from './view';
import { isMachine } from '../schema/shelf';

const takes = (c: Crossing | undefined): c is Crossing =>
  c !== undefined && (c.judged.verdict === 'fits' || c.judged.verdict === 'fits after a change');

/** Machines that can answer a wish, best score first. */
export const ranked = (sheet: MatchSheet, column: number): { row: MatchRow; cell: Crossing }[] =>
  sheet.rows
    .flatMap((row) => {
      const cell = row.cells[column];
      return takes(cell) ? [{ row, cell }] : [];
    })
    .sort((a, b) => b.cell.score.total - a.cell.score.total);

/**
 * What would turn the order between this machine and the one it competes with (the best other), in words. Undefined
 * where it cannot answer the wish or stands alone.
 */
export function flipReport(
  bench: Bench,
  sheet: MatchSheet,
  machineId: string,
  column: number,
): string | undefined {
  const order = ranked(sheet, column);
  const mine = order.find((o) => o.row.machine.id === machineId);
  const other = order.find((o) => o.row.machine.id !== machineId);
  if (!mine || !other) return undefined;
  const [first, second] = mine.cell.score.total >= other.cell.score.total ? [mine, other] : [other, mine];
  const { weights } = bench.settings;
  const name = second.row.machine.name;
  const points = (c: Crossing): string => c.score.total.toFixed(0);
  const lead = `${first.row.machine.name} scores ${points(first.cell)}, ${name} ${points(second.cell)}.`;
  const turn = flipWords(name, flips(first.cell.score, second.cell.score, weights));
  return `${lead} ${turn ?? 'No single weight turns that.'}`;
}

export interface Money {
  own: RunningCost | undefined;
  /** Against each other machine of the shelf and the price list whose watts are known. */
  against: { machineId: string; name: string; price: number; cost: RunningCost; even: BreakEven }[];
}

/** Running cost of a machine for a purpose, and when each alternative would pay for itself. `hours` are a day. */
export function moneyReport(bench: Bench, machineId: string, purpose: Purpose, hours: number): Money {
  const { tariff } = bench.settings;
  const machines = bench.items.filter(isMachine);
  const costOf = (id: string): RunningCost | undefined => {
    const machine = machines.find((m) => m.id === id);
    return (
      machine && runningCost(new Reader(machineView(bench, machine, []), 'trust'), purpose, hours, tariff)
    );
  };
  const own = costOf(machineId);
  const against = machines
    .filter((m) => m.id !== machineId)
    .flatMap((m) => {
      const cost = costOf(m.id);
      if (!own || !cost) return [];
      const price = m.owned ? 0 : (m.price ?? 0);
      return [
        {
          machineId: m.id,
          name: m.name,
          price,
          cost,
          even: breakEven(own.perYear, cost.perYear, price, m.name),
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
    const machine = bench.items.filter(isMachine).find((m) => m.id === machineId);
    const reader = machine && new Reader(machineView(bench, machine, []), 'trust');
    const cost = reader && runningCost(reader, wish.purpose, wish.hoursPerDay, bench.settings.tariff);
    if (!cost) unknown += 1;
    else {
      perYear += cost.perYear;
      idle += reader.number('power.idle') ?? 0;
    }
  }
  return { idle, perYear, unknown };
}
