import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boxOf, signedArea, type Vec2 } from '../geometry';
import { presentRig } from '../rig';
import { type DrawnPlates, platesOfDrawing } from './index';

const rig = presentRig(demo('bramble').rig);
const rect = (x: number, y: number, w: number, h: number): Vec2[] => [
  [x, y],
  [x + w, y],
  [x + w, y + h],
  [x, y + h],
];
const drawing = (...plates: DrawnPlates['plates']): DrawnPlates =>
  ({ plates, left: [] }) as unknown as DrawnPlates;
/** The outline of a made plate where it lies under the vehicle, mm. */
const placed = (p: ReturnType<typeof platesOfDrawing>[number]): Vec2[] =>
  p.base.outline.map(([x, y]): Vec2 => [x + p.base.origin[0], y + p.base.origin[1]]);

describe('plates of a drawing', () => {
  it('lie to one another as in it, wherever its own zero is', () => {
    fc.assert(
      fc.property(
        fc.tuple(fc.integer({ min: -5000, max: 5000 }), fc.integer({ min: -5000, max: 5000 })),
        fc.integer({ min: 10, max: 900 }),
        ([x, y], gap) => {
          const two = platesOfDrawing(
            drawing(
              { outline: rect(x, y, 300, 200), holes: [] },
              { outline: rect(x + 300 + gap, y + 40, 250, 100), holes: [] },
            ),
            rig,
            251,
          );
          const [a, b] = two.map(p => boxOf(placed(p)));
          expect(a!.min).toEqual([0, 0]);
          expect(a!.max).toEqual([300, 200]);
          expect(b!.min).toEqual([300 + gap, 40]);
        },
      ),
    );
  });

  it('keep their size and their holes: round ones round, others as they are cut', () => {
    const [plate] = platesOfDrawing(
      drawing({
        outline: rect(100, 50, 400, 300),
        holes: [{ circle: 60, at: [200, 150] }, { polygon: rect(300, 200, 80, 40) }],
      } as never),
      rig,
      251,
    );
    expect(Math.abs(signedArea(plate!.base.outline))).toBeCloseTo(400 * 300, 6);
    expect(plate!.openings).toHaveLength(2);
    const [round, cut] = plate!.openings;
    expect(round).toMatchObject({ kind: 'stones', shape: { circle: 60 } });
    const [ox, oy] = plate!.base.origin;
    expect([round!.at[0] + ox, round!.at[1] + oy]).toEqual([100, 100]);
    const polygon = (cut!.shape as { polygon: Vec2[] }).polygon;
    expect(boxOf(polygon.map(([px, py]): Vec2 => [px + ox, py + oy]))).toMatchObject({
      min: [200, 150],
      max: [280, 190],
    });
    expect(cut!.kind).toBe('relief');
  });
});
