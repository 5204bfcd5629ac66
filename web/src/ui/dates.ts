import { format, isToday, parse } from 'date-fns';
import { enUS } from 'date-fns/locale/en-US';

const in_ = { locale: enUS };

/** Clock time of a moment, as short as the day allows: `2:05 PM`, `Nov 3, 2:05 PM`. */
export const when = (ms: number): string => format(ms, isToday(ms) ? 'p' : 'MMM d, p', in_);

/** The day of a moment: `Nov 3, 2026`. */
export const dayName = (ms: number): string => format(ms, 'MMM d, yyyy', in_);

/** A day as a date field has it: `2026-11-03`. */
export const dayValue = (ms: number): string => format(ms, 'yyyy-MM-dd');

/** Noon of the day that a date field has; not a number where it has none. */
export const noonOf = (day: string): number => parse(`${day} 12`, 'yyyy-MM-dd HH', 0).getTime();
