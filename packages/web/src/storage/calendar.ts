import { download, fileName } from './download';

/** Offers one whole day for a calendar to take (iCalendar, RFC 5545), again every so many days where that is given. `day`: ISO 8601. */
export async function saveDay(title: string, day: string, everyDays?: number): Promise<void> {
  const [year = 0, month = 0, date = 0] = day.split('-').map(Number);
  // It is needed here alone, and seldom.
  const { createEvent } = await import('ics');
  const { value } = createEvent({
    title,
    start: [year, month, date],
    duration: { days: 1 },
    productId: 'zealous-box',
    // What comes once is told a month before; what comes again, on its day.
    ...(everyDays === undefined
      ? { alarms: [{ action: 'display', description: title, trigger: { days: 30, before: true } }] }
      : { recurrenceRule: `FREQ=DAILY;INTERVAL=${everyDays}` }),
  });
  if (value) download(fileName(title, 'ics'), value, 'text/calendar');
}
