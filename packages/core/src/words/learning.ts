import { CLAIMED, type Calibration } from '../learning/calibration';
import type { Foretold } from '../learning/timed';
import { formatDuration, formatSpan } from '../units/duration';
import { formatPercent } from '../units/number';
import { plural } from './text';

/** How long a step should take, and on what that rests. */
export function foretoldWords({ ground, median, half, range, runs }: Foretold): string {
  switch (ground) {
    case 'usual':
      return `usually ${formatSpan(range)}`;
    case 'your pace':
      return `${formatSpan(range)} at your pace`;
    case 'runs like it':
      return `about ${formatDuration(median)}, half the time ${formatSpan(half)} (${plural(runs, 'run')} of yours in it)`;
  }
}

/** How often ranges held, as a finding. */
export function calibrationHeadline({ runs, inside }: Calibration): string {
  return `${inside} of ${plural(runs, 'step')} took what was foretold`;
}

/** What that says of the ranges. */
export function calibrationWords({ share, between, off, under, over, runs }: Calibration): string {
  if (share === null || between === null)
    return 'No step was timed yet: work one in run mode, and its time is kept.';
  const says = `${formatPercent(share)} of ${plural(runs, 'step')} lay in their range; ${formatPercent(CLAIMED)} are claimed, and the true share is between ${formatPercent(between.low)} and ${formatPercent(between.high)}`;
  const how =
    off === null
      ? 'nothing speaks against the claim'
      : `the ranges are ${off}, and are made ${off === 'too narrow' ? 'wider' : 'narrower'} with every step`;
  return `${says}: ${how}. ${under} took less, ${over} took more.`;
}
