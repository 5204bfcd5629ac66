import Papa from 'papaparse';
import { oneLine } from './names';

/** What a spreadsheet would take for a formula, guarded already or not. */
const FORMULA = /^'*[=+@]/;

/**
 * Text of a CSV file (RFC 4180): a header row, fields quoted where they hold commas, quotes or line breaks. A text that a spreadsheet would
 * take for a formula gets one leading apostrophe, which reading it again takes off (`readTable`).
 */
export function csv(header: readonly string[], rows: readonly (readonly (string | number)[])[]): string {
  // a break within a field is kept, in quotes; one kind of break for all
  const field = (v: string | number): string => {
    if (typeof v === 'number') return String(v);
    const text = v
      .split(/\r\n|[\r\n\u2028\u2029]/)
      .map(oneLine)
      .join('\n');
    return FORMULA.test(text.trimStart()) ? `'${text}` : text;
  };
  return `${Papa.unparse(
    [header, ...rows].map(r => r.map(field)),
    { newline: '\r\n' },
  )}\r\n`;
}
