import { differenceInCalendarDays } from 'date-fns';
import type { GuestPlan } from '../model/guests';

/** What two readings of a volume foretell. */
export interface Forecast {
  bytes: number;
  used: number;
  /** Bytes a day between the first and the last reading; below zero: it empties. */
  perDay: number | null;
  /** Days from the last reading until it is full; null: never at this rate, or one reading tells nothing. */
  days: number | null;
  share: number;
}

/** A volume as its readings have it: a straight line through the first and the last. Undefined where nobody looked. */
export function forecastOf(plan: GuestPlan): Forecast | undefined {
  const { volume } = plan;
  const sorted = [...(volume?.readings ?? [])].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
  const last = sorted.at(-1);
  const first = sorted[0];
  if (!volume || !last || !first) return undefined;
  const between = differenceInCalendarDays(new Date(last.at), new Date(first.at));
  const perDay = between > 0 ? (last.usedBytes - first.usedBytes) / between : null;
  return {
    bytes: volume.bytes,
    used: last.usedBytes,
    perDay,
    days: perDay !== null && perDay > 0 ? Math.max(0, (volume.bytes - last.usedBytes) / perDay) : null,
    share: volume.bytes === 0 ? 1 : last.usedBytes / volume.bytes,
  };
}
