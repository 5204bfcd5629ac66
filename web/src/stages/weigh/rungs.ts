import type { StruckRung } from '@plate-fold/core/compare';
import type { SheetChoice } from '@plate-fold/core/plan';
import type { KnownRung } from './use-ladder';

/** The rungs of a plate that have been struck. */
export const struckOf = (rungs: readonly KnownRung[]): readonly StruckRung[] =>
  rungs.flatMap(r => (r.answer?.ok ? [{ ...r, struck: r.answer.value }] : []));

/** A sheet as a rung or a plate has it. */
export type Sheet = Pick<SheetChoice, 'material' | 'thickness'>;
export const sameSheet = (a: Sheet, b: Sheet): boolean =>
  a.material === b.material && Math.abs(a.thickness - b.thickness) < 1e-3;
