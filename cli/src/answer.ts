import type { Facts } from '@plate-fold/core/derive';
import type { Heights } from '@plate-fold/core/scan';
import type { Figure, UnitSystem } from '@plate-fold/core/units';

export interface Answer {
  /** the object that `--json` prints, keys as in docs/plan-file.md */
  readonly json: unknown;
  readonly text: string;
  readonly code: 0 | 1;
}

/** What a verb answers: keys and figures of `json` are metric, every sentence is in the units asked for. */
export type Verb = (facts: Facts, units: UnitSystem, asked?: Asked) => Answer;
interface Asked {
  /** the plan as the phases before left it, where one phase is looked at */
  readonly before?: Facts;
  /** how often a fit is tried */
  readonly trials?: number;
  /** which holes together make a plan bolt up is looked for as well: seconds, up to half a minute */
  readonly together?: boolean;
  /** what a scan of the underside shows over the plates */
  readonly heights?: Heights;
}

/** A figure with its unit. */
export const said = (f: Figure): string => `${f.value} ${f.unit}`;

/** Lines as columns. */
export const rows = (lines: readonly (readonly string[])[]): string => {
  const widths = (lines[0] ?? []).map((_, c) => Math.max(...lines.map(l => (l[c] ?? '').length)));
  return lines
    .map(l =>
      l
        .map((cell, c) => cell.padEnd(widths[c] ?? 0))
        .join('  ')
        .trimEnd(),
    )
    .join('\n');
};
