import { type BuyLine, type ShoppingLine, type ToolLine, toolName } from '../bolt';
import type { UnitSystem } from '../units';
import { csv } from './csv';

/** The bag list as CSV: part, count. */
export const hardwareListCsv = (lines: readonly ShoppingLine[]): string =>
  csv(
    ['part', 'count'],
    lines.map(l => [l.part, l.count]),
  );

/** The bag list against the shelf as CSV: part, count, on the shelf, missing, packs to buy, parts in a pack. */
export const buyListCsv = (lines: readonly BuyLine[]): string =>
  csv(
    ['part', 'count', 'what I have', 'missing', 'packs to buy', 'in a pack'],
    lines.map(l => [l.part, l.count, l.have, l.missing, l.packs, l.pack]),
  );

/** The tools as CSV: tool, joints it is for. */
export const toolListCsv = (lines: readonly ToolLine[], units: UnitSystem): string =>
  csv(
    ['tool', 'joints'],
    lines.map(l => [toolName(l.tool, units), l.for.join(' ')]),
  );
