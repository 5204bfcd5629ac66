import { type Figure, fixed, lengthFigure, type UnitSystem } from '@plate-fold/core/units';
import type { ColoredSurface } from '../../picture/space/contents';
import type { Struck } from '../../state/strikes/use-strikes';
import { rampColor } from './ramp';

/** What the belly is colored by. */
export const SHOWN = ['deflection', 'gap', 'stress'] as const;
export type Shown = (typeof SHOWN)[number];

export const SHOWN_NAMES: Readonly<Record<Shown, string>> = {
  deflection: 'deflection',
  gap: 'clearance',
  stress: 'stress',
};

/** A gap this wide or more is shown as plenty, mm. */
const PLENTY = 60;

/** Ends and middle of the colors, pale to dark. */
export function legendOf(shown: Shown, most: number, units: UnitSystem): readonly Figure[] {
  if (shown === 'stress') return [0, 50, 100].map(v => ({ value: fixed(v, 0), unit: '%' }));
  const ends = shown === 'deflection' ? [0, most / 2, most] : [PLENTY, PLENTY / 2, 0];
  return ends.map(v => lengthFigure(v, units));
}

/** Share of the colors at every node: 0 pale, 1 dark, below 0 where a part is touched. */
function shareAt(struck: Struck, shown: Shown, most: number, n: number): number {
  if (!struck.answer?.ok) return 0;
  const { moves, gaps, stress } = struck.answer.value.picture;
  if (shown === 'deflection') return Math.max(0, moves[3 * n + 2] as number) / most;
  if (shown === 'stress') return stress[n] as number;
  const gap = gaps[n] as number;
  if (Number.isNaN(gap)) return 0;
  return gap < 0 ? -1 : 1 - Math.min(1, gap / PLENTY);
}

/** The belly as it stands under the rock, every node colored. */
export function surfacesOf(
  struck: readonly Struck[],
  shown: Shown,
  most: number,
  exaggerated: number,
  theme: 'light' | 'dark',
): readonly ColoredSurface[] {
  return struck.flatMap((s): readonly ColoredSurface[] => {
    if (!s.answer?.ok) return [];
    const { coordinates, moves, triangles } = s.answer.value.picture;
    const at = coordinates.map((v, i) => v + exaggerated * (moves[i] as number));
    const colors = new Float32Array(coordinates.length);
    for (let n = 0; n < coordinates.length / 3; n++)
      colors.set(rampColor(shareAt(s, shown, most, n), theme), 3 * n);
    return [{ id: s.folded.panel.id, coordinates: at, triangles, colors }];
  });
}

/** The most any plate gives, mm: the dark end of the colors, never less than 5 mm. */
export const mostGiven = (struck: readonly Struck[]): number =>
  Math.max(5, ...struck.map(s => (s.answer?.ok ? s.answer.value.deflectionMm : 0)));
