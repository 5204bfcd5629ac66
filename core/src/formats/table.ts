import Papa from 'papaparse';
import { LIMITS } from '../plan';
import {
  KG_PER_LB,
  KM_PER_MILE,
  L_PER_GALLON,
  MM_PER_INCH,
  parseNumber,
  roundTo,
  tapeLength,
  type UnitSystem,
} from '../units';
import { csv } from './csv';

/** What is wrong with a pasted or opened table: its row (the header is 1), the column by name, and the fault. */
export interface CellFault {
  readonly row: number;
  readonly column: string;
  readonly fault: string;
}
export type TableRead<T> =
  | { readonly ok: true; readonly rows: readonly T[] }
  | { readonly ok: false; readonly faults: readonly CellFault[] };

/** A value as it stands in a cell, read: a number (lengths in mm), text, true or false; undefined for an empty one. */
export type CellValue = string | number | boolean | undefined;

export interface TableColumn<T> {
  readonly name: string;
  /** other names under which it is known */
  readonly also?: readonly string[];
  readonly kind: 'text' | 'number' | 'yes-no' | Quantity;
  readonly choices?: readonly string[];
  readonly needed?: boolean;
  readonly get: (row: T) => CellValue;
}

export interface Table<T> {
  readonly name: string;
  readonly columns: readonly TableColumn<T>[];
  /** makes a row of its cells, or says what is wrong with which column */
  readonly make: (cells: Readonly<Record<string, CellValue>>, row: number) => T | Omit<CellFault, 'row'>;
}

/** What is measured, kept in mm, kg, \u00b0C, l and km: its unit in either system, how many of those an inch unit is, and from where it counts. */
const QUANTITIES = {
  length: { metric: 'mm', inch: 'in', per: MM_PER_INCH, zero: 0 },
  mass: { metric: 'kg', inch: 'lb', per: KG_PER_LB, zero: 0 },
  temperature: { metric: 'C', inch: 'F', per: 1 / 1.8, zero: 32 },
  volume: { metric: 'l', inch: 'gal', per: L_PER_GALLON, zero: 0 },
  distance: { metric: 'km', inch: 'mi', per: KM_PER_MILE, zero: 0 },
} as const;
export type Quantity = keyof typeof QUANTITIES;
const quantityOf = (kind: TableColumn<unknown>['kind']) =>
  kind in QUANTITIES ? QUANTITIES[kind as Quantity] : undefined;

/** A value of a column as the reader has it, and as it is kept. */
const shownIn = (c: Pick<TableColumn<unknown>, 'kind'>, v: number, system: UnitSystem): number => {
  const q = quantityOf(c.kind);
  return q && system === 'inch' ? v / q.per + q.zero : v;
};
const keptFrom = (c: Pick<TableColumn<unknown>, 'kind'>, v: number, system: UnitSystem): number => {
  const q = quantityOf(c.kind);
  return q && system === 'inch' ? (v - q.zero) * q.per : v;
};

/** Measured cells carry the unit in their header, so that a file says what it means: `x mm`, `x in`, `mass lb`. */
export const heading = (c: Pick<TableColumn<unknown>, 'kind' | 'name'>, system: UnitSystem): string => {
  const q = quantityOf(c.kind);
  return q ? `${c.name} ${q[system]}` : c.name;
};
/** A measured value of a cell to what a tape or scale tells, in the reader's units. */
export const cellNumber = (c: Pick<TableColumn<unknown>, 'kind'>, v: number, system: UnitSystem): number =>
  roundTo(shownIn(c, v, system), system === 'inch' && c.kind === 'length' ? 4 : 3);

/** A cell as a screen shows it: lengths as a tape has them, without their unit, which stands in the head of the column. */
export function cellText<T>(c: TableColumn<T>, row: T, system: UnitSystem): string {
  const v = c.get(row);
  if (v === undefined) return '';
  if (typeof v === 'boolean') return v ? 'yes' : 'no';
  if (typeof v !== 'number' || !quantityOf(c.kind)) return String(v);
  if (c.kind === 'length') return tapeLength(v, system).replace(/ (in|mm)$/, '');
  return String(roundTo(cellNumber(c, v, system), 1));
}

/** A table as CSV text, lengths in the given system. */
export function tableCsv<T>(table: Table<T>, rows: readonly T[], system: UnitSystem): string {
  const cell = (c: TableColumn<T>, row: T): string | number => {
    const v = c.get(row);
    if (v === undefined) return '';
    if (typeof v === 'boolean') return v ? 'yes' : 'no';
    return typeof v === 'number' && quantityOf(c.kind) ? cellNumber(c, v, system) : v;
  };
  return csv(
    table.columns.map(c => heading(c, system)),
    rows.map(r => table.columns.map(c => cell(c, r))),
  );
}

const fold = (s: string): string => s.trim().toLowerCase().replace(/[_-]+/g, ' ').replace(/\s+/g, ' ');
const HEAD =
  /^(.*?)(?:[\s(]*\b(mm|millimet(?:re|er)s?|in|inch(?:es)?|"|kg|lbs?|\u00b0?c|\u00b0?f|l|lit(?:re|er)s?|gal(?:lons?)?|km|mi(?:les?)?)\)?)?$/;
/** Units of the inch side, as a header has them. */
const INCH_UNIT = /^(in|"|lb|\u00b0?f|gal|mi(?:les?)?$)/;
/** What a spreadsheet's guard against formulas put before a text is taken off again (`csv`). */
const unguarded = (text: string): string => (/^'+[=+@]/.test(text) ? text.slice(1) : text);
/** Characters of one cell: an outline of many points is the longest. */
const MOST_LETTERS = 20_000;
const YES = new Set(['yes', 'y', 'true', '1', 'x']);
const NO = new Set(['no', 'n', 'false', '0', '', '-']);

interface Found<T> {
  readonly column: TableColumn<T>;
  readonly system: UnitSystem;
}

/** Which column each header cell names; a unit in the header wins over the reader's own. */
function readHeader<T>(
  table: Table<T>,
  header: readonly string[],
  system: UnitSystem,
  faults: CellFault[],
): readonly (Found<T> | undefined)[] {
  const found = header.map((text): Found<T> | undefined => {
    const whole = fold(text);
    if (whole === '') return undefined;
    const named = (n: string): TableColumn<T> | undefined =>
      table.columns.find(c => fold(c.name) === n || c.also?.some(a => fold(a) === n));
    const m = HEAD.exec(whole);
    const column = named(whole) ?? named(m?.[1]?.trim() ?? '');
    if (!column) {
      faults.push({
        row: 1,
        column: text.trim(),
        fault: `is not a column of ${table.name}: ${table.columns.map(c => c.name).join(', ')}`,
      });
      return undefined;
    }
    const unit = named(whole) ? undefined : m?.[2];
    const own = unit === undefined ? system : INCH_UNIT.test(unit) ? 'inch' : 'metric';
    return { column, system: own };
  });
  for (const c of table.columns)
    if (c.needed && !found.some(f => f?.column === c))
      faults.push({ row: 1, column: c.name, fault: 'is missing from the header row' });
  return found;
}

/** A cell as it is typed by somebody who reads lengths in `system`. */
export const readCell = <T>(
  column: TableColumn<T>,
  text: string,
  system: UnitSystem,
): { value: CellValue } | { fault: string } => cellOf({ column, system }, text);

function cellOf<T>({ column, system }: Found<T>, text: string): { value: CellValue } | { fault: string } {
  const t = unguarded(text.trim());
  if (t === '' && column.kind !== 'yes-no')
    return column.needed ? { fault: 'is empty' } : { value: undefined };
  switch (column.kind) {
    case 'text':
      if (t.length > MOST_LETTERS)
        return { fault: `has ${t.length} characters; ${MOST_LETTERS} is the most` };
      return column.choices && !column.choices.includes(t)
        ? { fault: `is "${t}", but must be one of ${column.choices.join(', ')}` }
        : { value: t };
    case 'yes-no':
      if (YES.has(fold(t))) return { value: true };
      return NO.has(fold(t)) ? { value: false } : { fault: `is "${t}", but must be yes or no` };
    default: {
      const n = parseNumber(t);
      if (!n.ok) return { fault: n.fault };
      const value = keptFrom(column, n.value, system);
      return Number.isFinite(value) && Math.abs(value) <= LIMITS.number
        ? { value }
        : { fault: `is "${t.slice(0, 30)}", beyond ${LIMITS.number} either way` };
    }
  }
}

/** Characters of a table's text, and cells of one row. */
const MOST_TEXT = 4_000_000;
const MOST_CELLS = 100;
/** Faults told at once. */
const MOST_FAULTS = 50;

/** What is wrong with a text before it is taken apart. */
function tooLarge(text: string): CellFault | undefined {
  if (text.length > MOST_TEXT)
    return { row: 1, column: '', fault: `the text has ${text.length} characters; ${MOST_TEXT} is the most` };
  let rows = 1;
  for (let i = text.indexOf('\n'); i >= 0; i = text.indexOf('\n', i + 1)) rows++;
  // a quoted cell may hold line breaks: some room for those
  return rows > 4 * LIMITS.entries
    ? { row: rows, column: '', fault: `there are more rows than the ${LIMITS.entries} that a list holds` }
    : undefined;
}

/**
 * Reads a table from CSV text or from a spreadsheet's paste (tabs), with a header row. All or nothing: any fault, and
 * no row comes back.
 */
export function readTable<T>(table: Table<T>, text: string, system: UnitSystem): TableRead<T> {
  const over = tooLarge(text);
  if (over) return { ok: false, faults: [over] };
  const parsed = Papa.parse<string[]>(text.trim().replace(/^\uFEFF/, ''), { skipEmptyLines: 'greedy' });
  const torn = parsed.errors.find(e => e.type === 'Quotes');
  if (torn)
    return {
      ok: false,
      faults: [
        { row: (torn.row ?? 0) + 1, column: '', fault: 'a quote is never closed: the file may be torn' },
      ],
    };
  const [header, ...body] = parsed.data;
  if (!header || body.length === 0)
    return { ok: false, faults: [{ row: 1, column: '', fault: 'there are no rows under the header' }] };
  if (body.length > LIMITS.entries)
    return {
      ok: false,
      faults: [
        {
          row: LIMITS.entries + 2,
          column: '',
          fault: `is beyond the ${LIMITS.entries} rows that a list holds`,
        },
      ],
    };
  if (header.length > MOST_CELLS)
    return {
      ok: false,
      faults: [{ row: 1, column: '', fault: `has ${header.length} cells; ${MOST_CELLS} is the most` }],
    };
  const faults: CellFault[] = [];
  const found = readHeader(table, header, system, faults);
  if (faults.length > 0) return { ok: false, faults };
  const rows = body.flatMap((line, i): T[] => {
    const row = i + 2;
    const cells: Record<string, CellValue> = {};
    const before = faults.length;
    if (line.length > header.length)
      faults.push({ row, column: '', fault: `has ${line.length} cells under ${header.length} headers` });
    found.forEach((f, k) => {
      if (!f) return;
      const read = cellOf(f, line[k] ?? '');
      if ('fault' in read) faults.push({ row, column: f.column.name, fault: read.fault });
      else cells[f.column.name] = read.value;
    });
    if (faults.length > before) return [];
    const made = table.make(cells, row);
    if (typeof made === 'object' && made !== null && 'fault' in made) {
      faults.push({ row, ...(made as Omit<CellFault, 'row'>) });
      return [];
    }
    return [made as T];
  });
  return faults.length > 0 ? { ok: false, faults: faults.slice(0, MOST_FAULTS) } : { ok: true, rows };
}

export const describeCell = (f: CellFault): string =>
  [`row ${f.row}`, f.column, f.fault].filter(Boolean).join(' ');
