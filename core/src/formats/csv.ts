import { oneLine } from './names';

/**
 * Text of a CSV file (RFC 4180): a header row, fields quoted where they hold commas, quotes or line breaks. A field
 * that a spreadsheet would take for a formula gets a leading apostrophe.
 */
export function csv(header: readonly string[], rows: readonly (readonly (string | number)[])[]): string {
  const field = (v: string | number): string => {
    // a break within a field is kept, in quotes; one kind of break for all
    const plain =
      typeof v === 'number'
        ? String(v)
        : v
            .split(/\r\n|[\r\n\u2028\u2029]/)
            .map(oneLine)
            .join('\n');
    const text = typeof v === 'string' && /^[=+@]/.test(plain.trimStart()) ? `'${plain}` : plain;
    return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
  };
  return [header, ...rows].map(r => `${r.map(field).join(',')}\r\n`).join('');
}
