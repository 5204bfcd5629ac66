import { areaOf, boxOf, intersection, type Polygon, regionOf } from '../geometry';
import type { Panel } from '../plan';
import type { PresentRig } from '../rig';

/** Sheet beyond a part on every side, mm: common practice, no source. */
export const MARGIN = 25;
/** Room for the thickest sheet that is likely, mm. */
const ROOM = 6.35;

/**
 * A first plate for an outline drawn on the ground plane: level, as high as what hangs above lets it, guarding the
 * parts it lies under. Without anything above it hangs at `otherwise` mm.
 */
export function roughPlate(
  rig: PresentRig,
  outline: Polygon,
  name: string,
  otherwise: number,
): Omit<Panel, 'id' | 'mark'> {
  const region = regionOf(outline);
  const over = (footprint: Polygon): number => areaOf(intersection(regionOf(footprint), region));
  const above = [
    ...rig.components.filter(c => over(c.footprint) > 0).map(c => c.zBottom - c.keepOut - 1),
    ...rig.members.filter(m => over(m.footprint) > 0).map(m => m.zBottom),
  ];
  const z = Math.floor((above.length > 0 ? Math.min(...above) : otherwise + ROOM) - ROOM);
  const { min, max } = boxOf(outline);
  const x = min[0];
  const guards = rig.components
    .filter(c => c.protect && over(c.footprint) > 0.25 * areaOf(regionOf(c.footprint)))
    .map(c => c.id);
  return {
    name,
    base: { origin: [x, 0, z], pitch: 0, roll: 0, outline: outline.map(([a, b]) => [a - x, b] as const) },
    flanges: [],
    openings:
      max[0] - min[0] > 120 && max[1] - min[1] > 120
        ? [
            {
              id: 'stones-1',
              kind: 'stones',
              at: [(max[0] - min[0]) * 0.62, (min[1] + max[1]) / 2],
              shape: { circle: 22 },
            },
          ]
        : [],
    guards,
  };
}
