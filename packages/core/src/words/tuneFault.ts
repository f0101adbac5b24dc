import type { TuneFault } from '../tune/forBox';
import { formatNumber } from '../units/number';
import { capital, plural } from './text';

/** A finding of stop 11, in a sentence. */
export function tuneFaultWords(f: TuneFault): string {
  switch (f.code) {
    case 'too hot':
      return `${capital(f.sensor)} comes to ${formatNumber(f.celsius, 0)} °C: a ${f.part} must not be above ${f.limit} °C (${f.source}).`;
    case 'warm for long':
      return `${capital(f.sensor)} comes to ${formatNumber(f.celsius, 0)} °C: above ${f.limit} °C for long a ${f.part} ages faster (${f.source}).`;
    case 'throttles':
      return `Its clock falls from ${formatNumber(f.from)} to ${formatNumber(f.to)} MHz while it is hottest, for ${Math.round(f.share * 100)} % of a run: it throttles.`;
    case 'in a row':
      return `${f.experiment}: all runs before came first, so whatever else changed in the evening is in the difference.`;
    case 'not settled':
      return `${f.experiment}: ${plural(f.runs, 'run')} had not settled and ${f.runs === 1 ? 'is' : 'are'} not counted.`;
    case 'undervolted':
      return `${f.setting} is changed: wrong results and restarts may show days later. Test for hours.`;
    case 'not decided':
      return `${f.experiment}: all runs are made, and nothing was kept.`;
    case 'works not said':
      return 'Whether it works, and for whom one would recommend it, was not said.';
  }
}
