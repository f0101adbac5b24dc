import type { TuneFault } from '../tune/forBox';
import { formatNumber, formatPercent } from '../units/number';
import { capital, plural } from './text';

/** A clock that falls while the part is hottest, for so much of a run or of a log; MHz. */
export const throttlesWords = (
  { from, to, share }: { from: number; to: number; share: number },
  of: 'a run' | 'the time',
): string =>
  `Its clock falls from ${formatNumber(from)} to ${formatNumber(to)} MHz while it is hottest, for ${formatPercent(share)} of ${of}: it throttles.`;

/** A finding of stop 11, in a sentence. */
export function tuneFaultWords(f: TuneFault): string {
  switch (f.code) {
    case 'too hot':
      return `${capital(f.sensor)} comes to ${formatNumber(f.celsius, 0)} °C: a ${f.part} must not be above ${f.limit} °C (${f.source}).`;
    case 'warm for long':
      return `${capital(f.sensor)} comes to ${formatNumber(f.celsius, 0)} °C: above ${f.limit} °C for long a ${f.part} ages faster (${f.source}).`;
    case 'throttles':
      return throttlesWords(f, 'a run');
    case 'in a row':
      return `${f.experiment}: all runs before came first, so whatever else changed in the evening is in the difference.`;
    case 'room not noted':
      return `${f.experiment}: ${f.runs} of ${plural(f.of, 'run')} ${f.runs === 1 ? 'has' : 'have'} no room temperature. Until every run has one, the room stays in the difference.`;
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
