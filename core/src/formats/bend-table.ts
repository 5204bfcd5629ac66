import type { FoldedPanel } from '../fold';
import { angleToBendTo, bendDeduction } from '../fold';
import { roundTo } from '../units';
import { csv } from './csv';

/** The bends of plates as CSV: what to set on the brake, one row a bend. Lengths in mm, angles in degrees. */
export const bendTableCsv = (panels: readonly FoldedPanel[]): string =>
  csv(
    [
      'plate',
      'bend',
      'direction',
      'angle',
      'bend to',
      'inside radius mm',
      'K',
      'allowance mm',
      'deduction mm (legs outside)',
      'least radius mm',
      'can be made',
    ],
    panels.flatMap(p =>
      p.bends
        .filter(b => b.angle !== 0)
        .map(b => {
          const to = angleToBendTo(Math.abs(b.angle), b.insideRadius, p.sheet.thickness, p.material);
          return [
            p.panel.mark,
            b.id,
            b.angle > 0 ? 'up' : 'down',
            roundTo(Math.abs(b.angle), 2),
            to === undefined ? '' : roundTo(to, 2),
            roundTo(b.insideRadius, 3),
            roundTo(b.kFactor, 4),
            roundTo(b.allowanceMm, 3),
            roundTo(bendDeduction(Math.abs(b.angle), b.insideRadius, p.sheet.thickness, b.kFactor), 3),
            Number.isFinite(b.minRadiusMm) ? roundTo(b.minRadiusMm, 3) : '',
            b.ok ? 'yes' : 'no',
          ];
        }),
    ),
  );
