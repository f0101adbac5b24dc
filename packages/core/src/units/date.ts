import { format, isValid, parseISO } from 'date-fns';

/** The year is said where it is not this one. */
const withYear = (date: Date, now: Date): boolean => date.getFullYear() !== now.getFullYear();

/**
 * A moment by the clock of the place it is read in: “5 Mar 18:42”, with the year where it is not this one. `iso` is a time as
 * the bench keeps it (ISO 8601, UTC); what is none is given back as it is.
 */
export function formatMoment(iso: string, now: Date = new Date()): string {
  const date = parseISO(iso);
  if (!isValid(date)) return iso;
  return format(date, withYear(date, now) ? 'd MMM yyyy HH:mm' : 'd MMM HH:mm');
}

/** The day alone: “5 Mar”, with the year where it is not this one. */
export function formatDay(iso: string, now: Date = new Date()): string {
  const date = parseISO(iso);
  if (!isValid(date)) return iso;
  return format(date, withYear(date, now) ? 'd MMM yyyy' : 'd MMM');
}

/** The same moment to the second, with weekday, year and the clock it is told by: “Thu 5 Mar 2026, 18:42:07 GMT+1”. */
export function formatExactMoment(iso: string): string {
  const date = parseISO(iso);
  return isValid(date) ? format(date, 'EEE d MMM yyyy, HH:mm:ss O') : iso;
}
