import { addDays, format } from 'date-fns';
/** A reminder for a day. */
export interface IcsReminder {
  readonly uid: string;
  /** the day, ms since 1970, in the reader's own time zone */
  readonly at: number;
  readonly what: string;
  readonly why: string;
}

/** Text as a property's value (RFC 5545, 3.3.11). */
const value = (s: string): string =>
  s
    .replaceAll('\\', '\\\\')
    .replaceAll(';', '\\;')
    .replaceAll(',', '\\,')
    .replace(/\r\n|[\r\n\u2028\u2029]/g, '\\n')
    .replace(/\p{Cc}/gu, ' ');

/** Lines of at most 75 octets, each further one begun with a blank (RFC 5545, 3.1). No character is torn. */
function folded(line: string): string {
  const encoder = new TextEncoder();
  let out = '';
  let used = 0;
  for (const c of line) {
    const octets = encoder.encode(c).length;
    if (used + octets > 75) {
      out += '\r\n ';
      used = 1;
    }
    out += c;
    used += octets;
  }
  return `${out}\r\n`;
}

/**
 * Reminders as an iCalendar file (RFC 5545): whole days, each with an alarm at nine in the morning. `stamp` is when it was written, ms.
 */
export function remindersIcs(name: string, reminders: readonly IcsReminder[], stamp: number): string {
  const day = (ms: number | Date): string => format(ms, 'yyyyMMdd');
  const utc = new Date(stamp).toISOString().replace(/[-:]|\.\d+/g, '');
  return [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//Plate Fold//Log//EN',
    'CALSCALE:GREGORIAN',
    `X-WR-CALNAME:${value(name)}`,
    ...reminders.flatMap(r => [
      'BEGIN:VEVENT',
      `UID:${value(r.uid)}`,
      `DTSTAMP:${utc}`,
      `DTSTART;VALUE=DATE:${day(r.at)}`,
      `DTEND;VALUE=DATE:${day(addDays(r.at, 1))}`,
      `SUMMARY:${value(r.what)}`,
      `DESCRIPTION:${value(r.why)}`,
      'TRANSP:TRANSPARENT',
      'BEGIN:VALARM',
      'ACTION:DISPLAY',
      `DESCRIPTION:${value(r.what)}`,
      'TRIGGER;RELATED=START:PT9H',
      'END:VALARM',
      'END:VEVENT',
    ]),
    'END:VCALENDAR',
  ]
    .map(folded)
    .join('');
}
