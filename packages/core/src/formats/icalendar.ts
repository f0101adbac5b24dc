import { UnwritableError } from './writer/template';

/** A stretch of the evening as a calendar has it. */
export interface CalendarEvent {
  id: string;
  title: string;
  words: string;
  /** Moments (ISO 8601, UTC). */
  from: string;
  to: string;
  /** Hands are wanted; else it goes on alone, and the time is free. */
  busy: boolean;
}

/** A day on which something comes, once or again and again, as a calendar has it. */
export interface CalendarDay {
  id: string;
  title: string;
  words: string;
  /** The first such day (ISO 8601). */
  day: string;
  /** Days to the next; null where it comes once. */
  everyDays: number | null;
  /** Days before it at which it is spoken of; null where on the day. */
  noticeDays: number | null;
}

/** 20260305T183000Z (RFC 5545 §3.3.5, form 2). Throws UnwritableError for what is no moment. */
function moment(iso: string): string {
  if (!/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d+)?Z$/.test(iso)) throw new UnwritableError('iCalendar', iso);
  return iso.replace(/\.\d+/, '').replace(/[-:]/g, '');
}
/** 20260305 (RFC 5545 §3.3.4). Throws UnwritableError for what is no day. */
function dayOf(iso: string): string {
  if (!/^\d{4}-\d\d-\d\d$/.test(iso)) throw new UnwritableError('iCalendar', iso);
  return iso.replace(/-/g, '');
}
/** Backslash, semicolon, comma and line ends are written so that they end nothing (RFC 5545 §3.3.11). */
const text = (t: string): string =>
  t
    .replace(/[\\;,]/g, (c) => `\\${c}`)
    .replace(/\r\n|\r|\n/g, '\\n')
    .replace(/[\p{Cc}]/gu, ' ');

/** A line is folded so that none is longer than 75 octets, and no character is cut (RFC 5545 §3.1). */
function folded(line: string): string {
  const out: string[] = [];
  let part = '';
  let bytes = 0;
  for (const c of line) {
    const size = new TextEncoder().encode(c).length;
    if (bytes + size > 75) {
      out.push(part);
      part = ' ';
      bytes = 1;
    }
    part += c;
    bytes += size;
  }
  return [...out, part].join('\r\n');
}

const stretch = (e: CalendarEvent, made: string): string[] => [
  'BEGIN:VEVENT',
  `UID:${text(e.id)}`,
  `DTSTAMP:${moment(made)}`,
  `DTSTART:${moment(e.from)}`,
  `DTEND:${moment(e.to)}`,
  `SUMMARY:${text(e.title)}`,
  ...(e.words === '' ? [] : [`DESCRIPTION:${text(e.words)}`]),
  `TRANSP:${e.busy ? 'OPAQUE' : 'TRANSPARENT'}`,
  'END:VEVENT',
];

/** A whole day (RFC 5545 §3.3.4), its return as a rule (§3.3.10), what speaks of it as an alarm (§3.6.6). */
const wholeDay = (d: CalendarDay, made: string): string[] => [
  'BEGIN:VEVENT',
  `UID:${text(d.id)}`,
  `DTSTAMP:${moment(made)}`,
  `DTSTART;VALUE=DATE:${dayOf(d.day)}`,
  ...(d.everyDays === null ? [] : [`RRULE:FREQ=DAILY;INTERVAL=${d.everyDays}`]),
  `SUMMARY:${text(d.title)}`,
  ...(d.words === '' ? [] : [`DESCRIPTION:${text(d.words)}`]),
  'TRANSP:TRANSPARENT',
  ...(d.noticeDays === null
    ? []
    : [
        'BEGIN:VALARM',
        'ACTION:DISPLAY',
        `DESCRIPTION:${text(d.title)}`,
        `TRIGGER:-P${d.noticeDays}D`,
        'END:VALARM',
      ]),
  'END:VEVENT',
];

/** Events and days as a calendar file (iCalendar, RFC 5545). `made` is when it was written. */
export function writeCalendar(events: readonly (CalendarEvent | CalendarDay)[], made: string): string {
  const lines = [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//Zealous Box//EN',
    ...events.flatMap((e) => ('day' in e ? wholeDay(e, made) : stretch(e, made))),
    'END:VCALENDAR',
  ];
  return lines.map(folded).join('\r\n') + '\r\n';
}
