let day: string | undefined;

/**
 * Sets the day (ISO 8601, local) on which boxes are judged: core reads no clock, and every screen of a page is of one day.
 * Without one, nothing that depends on a date is said.
 */
export function judgeOn(today: string | undefined): void {
  day = today;
}

/** The day on which boxes are judged; undefined where none was set. */
export const judgedOn = (): string | undefined => day;
