import currency from 'currency.js';

/**
 * A number as the bench writes it, whatever the place: a point before decimals, thousands apart by a narrow space
 * (ISO 80000-1:2022 §7.2); “1 234.5”. `digits` decimals, rounded half away from zero (currency.js).
 */
export const formatNumber = (value: number, digits = 0): string =>
  currency(value, {
    precision: digits,
    symbol: '',
    separator: '\u202f',
    pattern: '#',
    negativePattern: '−#',
  }).format();

/** A share from 0 to 1 in whole per cent; “43 %”. */
export const formatPercent = (share: number): string => `${Math.round(share * 100)} %`;
