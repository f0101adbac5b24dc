import type { Bench } from '../model/bench';
import { formatMoney } from '../units/money';

/** Money with the bench's currency where one is set. */
export const amount = (bench: Pick<Bench, 'settings'>, n: number): string =>
  formatMoney(n, bench.settings.currency);
