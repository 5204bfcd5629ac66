import { roughPlate } from '../cover';
import { boxOf, type Vec2 } from '../geometry';
import type { Opening, Panel } from '../plan';
import type { PresentRig } from '../rig';
import type { DrawnPlates } from './dxf-in';

/**
 * Flat plates of a drawing's outlines, as they lie to one another in it: the drawing's lower left corner comes to the middle of the front
 * axle; each hangs as high as what is above it lets it, at `z` mm where nothing is. Round holes become holes, all others reliefs.
 */
export function platesOfDrawing(
  { plates }: DrawnPlates,
  rig: PresentRig,
  z: number,
): readonly Omit<Panel, 'id' | 'mark'>[] {
  const { min } = boxOf(plates.flatMap(p => p.outline));
  const shift = ([x, y]: Vec2): Vec2 => [x - min[0], y - min[1]];
  return plates.map((p, i) => {
    const rough = roughPlate(rig, p.outline.map(shift), `from a drawing ${i + 1}`, z);
    const [x, y] = rough.base.origin;
    const own = (q: Vec2): Vec2 => [shift(q)[0] - x, shift(q)[1] - y];
    return {
      ...rough,
      openings: p.holes.map((h, k): Opening => {
        const id = `hole-${k + 1}`;
        return 'circle' in h
          ? { id, kind: 'stones', at: own(h.at), shape: { circle: h.circle } }
          : { id, kind: 'relief', at: [0, 0], shape: { polygon: h.polygon.map(own) } };
      }),
    };
  });
}
