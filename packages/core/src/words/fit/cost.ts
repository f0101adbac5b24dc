import { formatNumber, formatPercent } from '../../units/number';
import type { Settings } from '../../model/settings';
import type { BreakEven, RunningCost } from '../../system/cost';
import { formatMoney } from '../../units/money';

/** What a year's running cost is made of. */
export const costWords = (c: RunningCost, { currency }: Pick<Settings, 'currency'>): string =>
  `${c.idle} W idle and ${c.load} W at work for ${formatPercent(c.share)} of ${c.hoursPerDay} h a day: ${formatNumber(c.kwhPerYear)} kWh a year at ${formatMoney(c.tariff, currency)} each`;

/** When a machine that runs cheaper has paid for itself. */
export function breakEvenWords(name: string, e: BreakEven, { currency }: Pick<Settings, 'currency'>): string {
  const money = (n: number): string => formatMoney(n, currency);
  const each = `${name} runs for ${money(e.other)} a year against ${money(e.own)}`;
  if (e.years === null) return `${each}: it never pays for itself.`;
  if (e.years === 0) return `${each} and costs nothing: it is ahead from the first day.`;
  return `${each} and costs ${money(e.price)}: ahead after ${formatNumber(e.years, 1)} years.`;
}
