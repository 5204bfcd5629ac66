import { type ShellCase, type ShellModel, shellModel } from '../strike';

/** A square of steel that stays elastic, clamped on its four edges: sides, thickness and elements in mm. @throws Error where it cannot be meshed */
export function clampedSquare(
  side: number,
  thickness: number,
  elementSize: number,
  loads: ShellCase['loads'],
): ShellModel {
  const made = shellModel(
    {
      material: { E: 200_000, nu: 0.3, yield: 1e6 },
      thickness,
      facets: [
        {
          name: 'sheet',
          polygon: [
            [0, 0, 0],
            [side, 0, 0],
            [side, side, 0],
            [0, side, 0],
          ],
        },
      ],
      supports: [{ kind: 'clamped', id: 'edges', edges: 'outline' }],
      loads,
      analysis: 'large',
      elementSize,
    },
    [],
  );
  if (!made.ok) throw new Error(made.fault);
  return made.value.model;
}
