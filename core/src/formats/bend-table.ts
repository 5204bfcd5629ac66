import type { FoldedPanel } from '../fold';
import { angleToBendTo, bendDeduction, dieFor } from '../fold';
import type { Shop } from '../plan';
import { MM_PER_INCH, roundTo, type UnitSystem } from '../units';
import { csv } from './csv';

/** The bends of plates as CSV: what to set on a shop's brake, one row a bend. Lengths in the reader's units, angles in degrees. */
export function bendTableCsv(panels: readonly FoldedPanel[], { dies }: Shop, units: UnitSystem): string {
  const unit = units === 'inch' ? 'in' : 'mm';
  const length = (mm: number): number => (units === 'inch' ? roundTo(mm / MM_PER_INCH, 4) : roundTo(mm, 3));
  return csv(
    [
      'plate',
      'bend',
      'direction',
      'angle',
      'bend to',
      `inside radius ${unit}`,
      'K',
      `allowance ${unit}`,
      `deduction ${unit} (legs outside)`,
      `least radius ${unit}`,
      'can be made',
    ],
    panels.flatMap(p =>
      p.bends
        .filter(b => b.angle !== 0)
        .map(b => {
          const t = p.sheet.thickness;
          const to = angleToBendTo(Math.abs(b.angle), b.insideRadius, t, p.material, dieFor(t, dies));
          return [
            p.panel.mark,
            b.id,
            b.angle > 0 ? 'up' : 'down',
            roundTo(Math.abs(b.angle), 2),
            to === undefined ? '' : roundTo(to, 2),
            length(b.insideRadius),
            roundTo(b.kFactor, 4),
            length(b.allowanceMm),
            length(bendDeduction(Math.abs(b.angle), b.insideRadius, p.sheet.thickness, b.kFactor)),
            Number.isFinite(b.minRadiusMm) ? length(b.minRadiusMm) : '',
            b.ok ? 'yes' : 'no',
          ];
        }),
    ),
  );
}
