import { machinesOf, type Bench } from '../schema/bench';
import type { Purpose } from '../schema/profile';
import type { Wish } from '../schema/wish';
import { breakEven, runningCost, type BreakEven, type RunningCost } from './cost';
import { Reader } from './rooms';
import { flips, flipWords, type Score } from './score';
import { crossingOf } from './sheet';
import { machineView } from './view';
import { isMachine } from '../schema/shelf';

/**
 * What would turn the order between this machine and the one it competes with for a wish (the best other), in words.
 * Undefined where it cannot answer the wish or stands alone.
 */
export function flipReport(bench: Bench, machineId: string, wish: Wish): string | undefined {
  const order = machinesOf(bench)
    .flatMap((machine) => {
      const cell = crossingOf(bench, machine, wish);
      const takes = cell && (cell.judged.verdict === 'fits' || cell.judged.verdict === 'fits after a change');
      return takes ? [{ machine, score: cell.score }] : [];
    })
    .sort((a, b) => b.score.total - a.score.total);
  const mine = order.find((o) => o.machine.id === machineId);
  const other = order.find((o) => o.machine.id !== machineId);
  if (!mine || !other) return undefined;
  const [first, second] = mine.score.total >= other.score.total ? [mine, other] : [other, mine];
  const { name } = second.machine;
  const points = (s: Score): string => s.total.toFixed(0);
  const lead = `${first.machine.name} scores ${points(first.score)}, ${name} ${points(second.score)}.`;
  const turn = flipWords(name, flips(first.score, second.score, bench.settings.weights));
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
