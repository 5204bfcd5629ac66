import type { ShoppingLine, ToolLine } from '../bolt';
import { csv } from './csv';

/** The bag list as CSV: part, count. */
export const bagListCsv = (lines: readonly ShoppingLine[]): string =>
  csv(
    ['part', 'count'],
    lines.map(l => [l.part, l.count]),
  );

/** The tool roll as CSV: tool, joints it is for. */
export const toolRollCsv = (lines: readonly ToolLine[]): string =>
  csv(
    ['tool', 'joints'],
    lines.map(l => [l.tool, l.for.join(' ')]),
  );
