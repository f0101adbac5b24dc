/** Durations are kept in seconds; minutes appear only when shown. */

/** A range of seconds; low equals high where nothing is uncertain. */
export interface Span {
  low: number;
  high: number;
}

/** A span of seconds; one number where both ends are the same. */
export const span = (low: number, high = low): Span => ({ low, high });
/** The spans together: all at their shortest to all at their longest, in seconds. */
export const addSpans = (spans: readonly Span[]): Span =>
  spans.reduce((sum, one) => ({ low: sum.low + one.low, high: sum.high + one.high }), span(0));

/** The middle of a span, in seconds. */
export const middleOf = ({ low, high }: Span): number => (low + high) / 2;

/** Seconds as a person says them: 8 → "8 s", 95 → "2 min", 5400 → "1 h 30 min". */
export function formatDuration(seconds: number): string {
  if (seconds < 1) return 'under 1 s';
  if (seconds < 59.5) return `${Math.round(seconds)} s`;
  const minutes = Math.round(seconds / 60);
  if (minutes < 90) return `${minutes} min`;
  const rest = minutes % 60;
  return `${Math.floor(minutes / 60)} h${rest === 0 ? '' : ` ${rest} min`}`;
}

/** A range in minutes: "5–8 min", or one figure where both ends round to the same. */
export function formatSpan(range: Span): string {
  if (range.high === 0) return '0 min';
  if (range.high < 59.5) {
    const low = Math.round(range.low);
    const high = Math.round(range.high);
    return low === high ? `${high} s` : `${low}–${high} s`;
  }
  const low = Math.round(range.low / 60);
  const high = Math.round(range.high / 60);
  // Hours only where both ends have them, or the far end is far: "25–120 min" reads better than "0.4–2.0 h".
  if (range.high < 7200 || (range.low < 3600 && range.high < 14_400))
    return low === high ? `${high} min` : `${low}–${high} min`;
  const from = range.low < 3600 ? `${low} min` : (range.low / 3600).toFixed(1);
  return `${from}–${(range.high / 3600).toFixed(1)} h`;
}

/** Bytes per second with the unit in full: "18.0 MB/s". */
export function formatRate(bytesPerSecond: number): string {
  const mega = bytesPerSecond / 1e6;
  return mega >= 100 ? `${mega.toFixed(0)} MB/s` : `${mega.toFixed(1)} MB/s`;
}
