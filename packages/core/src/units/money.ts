import currency from 'currency.js';
import { formatNumber } from './number';

/**
 * Money as the bench writes it: two decimals, thousands apart by a narrow space, its sign or code behind; "1 234.50 CR".
 * `sign` is empty where amounts stand alone. Sums of hundredths are exact (currency.js reckons in whole hundredths).
 */
export const formatMoney = (amount: number, sign: string): string =>
  `${formatNumber(amount, 2)}${sign === '' ? '' : `\u00a0${sign}`}`;

/** A sum of amounts, exact to the hundredth. */
export const sumMoney = (amounts: readonly number[]): number =>
  amounts.reduce((sum, a) => sum.add(a), currency(0)).value;
