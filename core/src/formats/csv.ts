/**
 * Text of a CSV file (RFC 4180): a header row, fields quoted where they hold commas, quotes or line breaks. A field
 * that a spreadsheet would take for a formula gets a leading apostrophe.
 */
export function csv(header: readonly string[], rows: readonly (readonly (string | number)[])[]): string {
  const field = (v: string | number): string => {
    const text = typeof v === 'number' ? String(v) : /^[=+@\t\r]/.test(v) ? `'${v}` : v;
    return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
  };
  return [header, ...rows].map(r => `${r.map(field).join(',')}\r\n`).join('');
}
