/** A reminder for a day. */
export interface IcsReminder {
  readonly uid: string;
  /** the day, ms since 1970, in the reader's own time zone */
  readonly at: number;
  readonly what: string;
  readonly why: string;
}

const two = (n: number): string => String(n).padStart(2, '0');
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
  const day = (ms: number): string => {
    const d = new Date(ms);
    return `${d.getFullYear()}${two(d.getMonth() + 1)}${two(d.getDate())}`;
  };
  const d = new Date(stamp);
  const utc = `${d.getUTCFullYear()}${two(d.getUTCMonth() + 1)}${two(d.getUTCDate())}T${two(d.getUTCHours())}${two(d.getUTCMinutes())}${two(d.getUTCSeconds())}Z`;
  const next = (ms: number): number => {
    const t = new Date(ms);
    return new Date(t.getFullYear(), t.getMonth(), t.getDate() + 1, 12).getTime();
  };
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
      `DTEND;VALUE=DATE:${day(next(r.at))}`,
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
