import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  areaOf,
  intersection,
  type Polygon,
  rectangle,
  regionOf,
  signedArea,
  toSpace,
  type Vec2,
} from '../geometry';
import type { Flange, Panel, SheetChoice } from '../plan';
import {
  baseCorners,
  flatFrom,
  flatPattern,
  fold,
  foldCollisions,
  MITRE_GAP,
  patternArea,
  reliefArea,
} from './index';

const steel: SheetChoice = { material: 'steel-hr36', thickness: 4, finish: 'raw' };
const box = rectangle(0, 0, 500, 400);
const panel = (flanges: readonly Flange[], outline: Polygon = box): Panel => ({
  id: 'p',
  mark: 'A',
  name: 'tray',
  base: { origin: [0, 0, 300], pitch: 0, roll: 0, outline },
  flanges,
  openings: [],
  guards: [],
});
const wall = (edge: number, over: Partial<Flange> = {}): Flange => ({
  id: `w${edge}`,
  edge,
  length: 70,
  angle: 90,
  insideRadius: 6,
  ...over,
});
const four = (over: Partial<Flange>): readonly Flange[] => [0, 1, 2, 3].map(e => wall(e, over));

/** A four-cornered base whose corner at the origin turns by any angle. */
const skew = (turn: number): Polygon => {
  const a = ((180 - turn) * Math.PI) / 180;
  return [
    [0, 0],
    [600, 0],
    [600 + 300 * Math.cos(a), 300 * Math.sin(a) + 200],
    [400 * Math.cos(a), 400 * Math.sin(a)],
  ];
};

describe('walls that meet at a corner', () => {
  it('run into one another by the sheet’s thickness when both stand square, and not when mitred', () => {
    const square = foldCollisions(fold(panel([wall(0), wall(1)]), steel));
    expect(square.map(c => c.between)).toEqual([['w0', 'w1']]);
    expect(square[0]?.depthMm).toBeCloseTo(4, 6);
    expect(foldCollisions(fold(panel(four({ mitre: true })), steel))).toEqual([]);
    expect(foldCollisions(fold(panel([wall(0), wall(2)]), steel))).toEqual([]);
  });

  it('mitred keep to their own side of the plane through the corner’s bisector, and leave just the gap there', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 130 }),
        fc.integer({ min: -100, max: 120 }).filter(a => Math.abs(a) > 4),
        fc.integer({ min: 1, max: 8 }),
        fc.boolean(),
        (turn, angle, thickness, turned) => {
          const outline = turned ? [...skew(turn)].reverse() : skew(turn);
          const p = panel([], outline);
          const corner = baseCorners(p).find(c => Math.hypot(...c.at) < 1e-9)!;
          expect(corner.turn).toBeCloseTo(turn, 6);
          // edges beside the origin, as the outline is written
          const edges = turned ? [2, 3] : [3, 0];
          const flanges = edges.map(e =>
            wall(e, { angle, mitre: true, length: 60, insideRadius: thickness }),
          );
          const f = fold(panel(flanges, outline), { ...steel, thickness });
          const [d1, d2] = [corner.before, corner.after];
          const l = Math.hypot(d1[0] + d2[0], d1[1] + d2[1]);
          const b: Vec2 = [(d1[0] + d2[0]) / l, (d1[1] + d2[1]) / l];
          const own = (edge: number): number => {
            const id = `w${edge}`;
            const facet = f.facets.find(x => x.id === id)!;
            const setback = f.bends.find(x => x.id === id)!.setbackMm;
            // the four corners of the flat beyond its bend, on both faces
            const onSide = facet.hinge!.along[0] === d2[0] && facet.hinge!.along[1] === d2[1] ? 1 : -1;
            const least = Math.min(
              ...flatFrom(facet, setback).flatMap(q =>
                [0, thickness].map(w => {
                  const [x, y] = toSpace(facet.frame, q, w);
                  return onSide * (x * b[0] + y * b[1]);
                }),
              ),
            );
            return least;
          };
          const gap = MITRE_GAP * Math.cos((turn * Math.PI) / 360);
          for (const e of edges) expect(own(e)).toBeGreaterThan(gap - 1e-9);
          expect(Math.min(...edges.map(own))).toBeLessThan(gap + 1e-9);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('are not mitred where their angles differ or an inset parts them', () => {
    const differing = fold(panel([wall(0, { mitre: true }), wall(1, { angle: 60 })]), steel);
    expect(differing.facets[1]?.outline[1]).toEqual([70, 0]);
    const apart = fold(panel([wall(0, { mitre: true, inset: [0, 20] }), wall(1)]), steel);
    expect(apart.facets[1]?.outline[2]).toEqual([70, 480]);
  });

  it('lean outward to close the corner: a 45° hopper’s mitred sides meet, square ones gape', () => {
    const mitred = fold(panel(four({ angle: 45, mitre: true })), steel);
    const side = mitred.facets.find(f => f.id === 'w0')!;
    // 70 mm up a 45° wall the hip stands 70·cos 45° beyond the square side, less what the thickness and the gap take
    const over = 70 * Math.SQRT1_2 - 4 * Math.SQRT1_2 - MITRE_GAP;
    expect(side.outline[1]?.[1]).toBeCloseTo(-over, 9);
    expect(mitred.blank.areaMm2).toBeGreaterThan(fold(panel(four({ angle: 45 })), steel).blank.areaMm2);
  });
});

describe('reliefs', () => {
  it('are slots one thickness wide and R + t deep beside a bend that ends within its edge', () => {
    const f = fold(panel([wall(0, { inset: [80, 60] })]), steel);
    expect(f.blank.reliefs.map(r => [r.kind, r.bends])).toEqual([
      ['bend', ['w0']],
      ['bend', ['w0']],
    ]);
    // each: width × depth and half a round foot (a 24-gon)
    const foot = (24 * 2 ** 2 * Math.sin((2 * Math.PI) / 24)) / 4;
    expect(reliefArea(f)).toBeCloseTo(2 * (4 * (6 + 4) + foot), 1);
    expect(patternArea(flatPattern(f))).toBeCloseTo(f.blank.areaMm2 - reliefArea(f), 1);
    // a bend as wide as its edge needs none, a square end beside nothing
    expect(fold(panel([wall(0)]), steel).blank.reliefs).toEqual([]);
  });

  it('part two bends at a corner: no sheet is left that both would bend', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -110, max: 110 }).filter(a => Math.abs(a) > 5),
        fc.integer({ min: -110, max: 110 }).filter(a => Math.abs(a) > 5),
        (a, b) => {
          const f = fold(panel([wall(0, { angle: a }), wall(1, { angle: b })]), steel);
          expect(f.blank.reliefs.map(r => r.kind)).toEqual(['corner']);
          const strips = f.blank.pieces.filter(p => p.kind === 'bend').map(p => regionOf(p.outline));
          const both = intersection(strips[0]!, strips[1]!);
          expect(areaOf(both)).toBeGreaterThan(0);
          expect(areaOf(intersection(flatPattern(f).outline, both))).toBeLessThan(1e-2);
          expect(flatPattern(f).outline.filter(o => signedArea(o) > 0)).toHaveLength(1);
        },
      ),
    );
  });

  it('stand at an inward corner and where an edge goes straight on', () => {
    const notch: Polygon = [
      [0, 0],
      [500, 0],
      [500, 200],
      [250, 200],
      [250, 400],
      [0, 400],
    ];
    // edge 2 runs from (500, 200) to the inward corner (250, 200)
    expect(fold(panel([wall(2)], notch), steel).blank.reliefs).toHaveLength(1);
    const split: Polygon = [
      [0, 0],
      [250, 0],
      [500, 0],
      [500, 400],
      [0, 400],
    ];
    expect(fold(panel([wall(0)], split), steel).blank.reliefs).toHaveLength(1);
  });
});

describe('a flange tree that rolls up', () => {
  it('is found where it meets the base, and one that stays clear is not', () => {
    const roll = (last: number): Flange =>
      wall(0, {
        length: 90,
        flanges: [
          {
            id: 'top',
            edge: 'far',
            length: 80,
            angle: 90,
            insideRadius: 6,
            flanges: [{ id: 'down', edge: 'far', length: last, angle: 90, insideRadius: 6 }],
          },
        ],
      });
    const deep = foldCollisions(fold(panel([roll(120)]), steel));
    expect(deep.map(c => c.between)).toEqual([['base', 'down']]);
    // the last leg reaches the base's upper face at 90 − 4 mm
    expect(foldCollisions(fold(panel([roll(84)]), steel))).toEqual([]);
  });
});
