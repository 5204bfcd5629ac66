import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rectangle, toRadians, toSpace, type Vec2 } from '../geometry';
import { buildOf, type Flange, type Panel, type SheetChoice, sheetOf } from '../plan';
import {
  type BrakeOrder,
  brakeOrder,
  enclosedVolume,
  type FoldedPanel,
  fold,
  foldedSolid,
  inBlank,
  onBend,
  pose,
  SHOPS,
  type TOOLS,
} from './index';

const steel: SheetChoice = { material: 'steel-hr36', thickness: 4, finish: 'raw' };
const panel = (flanges: readonly Flange[], size: readonly [number, number] = [600, 400]): Panel => ({
  id: 'p',
  mark: 'A',
  name: 'tray',
  base: { origin: [100, 20, 300], pitch: 6, roll: -4, outline: rectangle(0, 0, ...size) },
  flanges,
  openings: [],
  guards: [],
});
const tree: fc.Arbitrary<readonly Flange[]> = fc
  .uniqueArray(fc.integer({ min: 0, max: 3 }), { maxLength: 4 })
  .chain(edges =>
    fc.tuple(
      ...edges.map(edge =>
        fc
          .record({
            length: fc.integer({ min: 50, max: 110 }),
            angle: fc.integer({ min: -120, max: 120 }),
            insideRadius: fc.integer({ min: 4, max: 9 }),
            inset: fc.tuple(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 0, max: 60 })),
            mitre: fc.boolean(),
            lip: fc.integer({ min: -85, max: 85 }),
          })
          .map(
            ({ lip, ...f }): Flange => ({
              id: `f${edge}`,
              edge,
              ...f,
              flanges: [{ id: `lip${edge}`, edge: 'far', length: 50, angle: lip, insideRadius: 5 }],
            }),
          ),
      ),
    ),
  );
const near = (a: readonly number[], b: readonly number[], digits = 7): void =>
  a.forEach((x, i) => expect(x).toBeCloseTo(b[i] as number, digits));

describe('a pose', () => {
  it('finished puts every flat where its mold lines and angles say, found the other way round', () => {
    fc.assert(
      fc.property(tree, flanges => {
        const f = fold(panel(flanges), steel);
        const { frames } = pose(f);
        for (const d of f.blank.developed)
          for (const q of d.facet.outline) {
            const at = frames.get(d.facet.id)!;
            near(toSpace(at, inBlank(d, q)), toSpace(d.facet.frame, q));
          }
      }),
    );
  });

  it('flat lies wholly in the base plane', () => {
    fc.assert(
      fc.property(tree, flanges => {
        const f = fold(panel(flanges), steel);
        const flat = pose(f, () => 0);
        const base = flat.frames.get('base')!;
        for (const d of f.blank.developed)
          for (const q of d.facet.outline)
            near(toSpace(flat.frames.get(d.facet.id)!, inBlank(d, q)), toSpace(base, inBlank(d, q)));
      }),
    );
  });

  it('keeps the neutral fiber’s length at every share, and joins each flat to its bend without a step', () => {
    fc.assert(
      fc.property(tree, fc.double({ min: 0.05, max: 1, noNaN: true }), (flanges, share) => {
        const f = fold(panel(flanges), steel);
        const p = pose(f, () => share);
        for (const b of p.bends) {
          const bend = f.bends.find(x => x.id === b.id)!;
          if (bend.angle === 0) continue;
          const arc = Math.abs(toRadians(b.angle)) * (b.insideRadius + bend.kFactor * 4);
          expect(arc).toBeCloseTo(bend.allowanceMm, 9);
          const end: Vec2 = [b.from[0] + b.u[0] * b.allowanceMm, b.from[1] + b.u[1] * b.allowanceMm];
          near(onBend(b, b.allowanceMm, 0, 0, 4), toSpace(p.frames.get(b.id)!, end));
          near(onBend(b, b.allowanceMm, 0, 4, 4), toSpace(p.frames.get(b.id)!, end, 4));
        }
      }),
    );
  });

  it('encloses about the same volume half folded as flat', () => {
    fc.assert(
      fc.property(tree, flanges => {
        const f = fold(panel(flanges), steel);
        const [half, flat] = [0.5, 0].map(s =>
          enclosedVolume(
            foldedSolid(
              f,
              pose(f, () => s),
            ),
          ),
        );
        expect(Math.abs(half! / flat! - 1)).toBeLessThan(0.01);
      }),
      { numRuns: 30 },
    );
  });
});

const works = SHOPS[1]!;
const channel = (width: number, height: number): Panel =>
  panel(
    [
      { id: 'left', edge: 0, length: height, angle: 90, insideRadius: 6 },
      { id: 'right', edge: 2, length: height, angle: 90, insideRadius: 6 },
    ],
    [300, width],
  );

describe('the order of bends on the brake', () => {
  it('exists for every demo plate that is folded, every bend once', () => {
    for (const name of ['bramble', 'heron', 'pebble']) {
      const { plan } = demo(name);
      for (const p of plan.panels) {
        const f = fold(p, sheetOf(buildOf(plan), p));
        const { order, blocked } = brakeOrder(f, works);
        expect(blocked, `${name} ${p.mark}`).toEqual([]);
        expect([...order].sort()).toEqual(f.bends.map(b => b.id).sort());
      }
    }
  });

  it('lets a wide channel through and stops at a deep narrow one, whose first wall meets the punch', () => {
    expect(brakeOrder(fold(channel(300, 60), steel), works).blocked).toEqual([]);
    const deep = brakeOrder(fold(channel(70, 100), steel), works);
    expect(deep.blocked).toHaveLength(1);
    expect(deep.blocked[0]).toMatchObject({ tool: expect.stringMatching(/punch|beam/) });
    // whichever wall is made first stands in the way of the other
    const { bend, by } = deep.blocked[0]!;
    expect([bend, by].sort()).toEqual(['left', 'right']);
    expect(deep.order).toHaveLength(2);
  });

  /** A regular tray of so many walls, all of one height, with lips turned in where wanted. */
  const tray = (walls: number, height: number, lip?: number): Panel => ({
    ...panel([]),
    base: {
      origin: [0, 0, 300],
      pitch: 0,
      roll: 0,
      outline: Array.from({ length: walls }, (_, i): Vec2 => {
        const a = (2 * Math.PI * i) / walls;
        return [500 * Math.cos(a), 500 * Math.sin(a)];
      }),
    },
    flanges: Array.from({ length: walls }, (_, i) => ({
      id: `f${i}`,
      edge: i,
      length: height,
      angle: 90,
      ...(lip === undefined
        ? {}
        : { flanges: [{ id: `l${i}`, edge: 'far' as const, length: lip, angle: 90 }] }),
    })),
  });

  it('is found for a tray of sixteen bends, and told what is in the way where there is none', () => {
    const low = brakeOrder(fold(tray(16, 60), steel), works);
    expect([low.blocked, low.gaveUp]).toEqual([[], undefined]);
    expect(new Set(low.order).size).toBe(16);
    for (const [walls, height, lip] of [
      [16, 400],
      [8, 120, 30],
    ] as const) {
      const { order, blocked } = brakeOrder(fold(tray(walls, height, lip), steel), works);
      expect(new Set(order).size).toBe(16);
      expect(blocked.length).toBeGreaterThan(0);
      // what is left are the last of the order
      for (const b of blocked) expect(order.slice(-blocked.length)).toContain(b.bend);
    }
  });

  it('is found by the owner’s own tools: a slimmer, taller punch makes what the usual one cannot', () => {
    const f = fold(channel(70, 60), steel);
    const by = (tools: typeof TOOLS): BrakeOrder => brakeOrder(f, { ...works, tools });
    expect(by({ punchHeight: 120, punchWidth: 70, dieHeight: 80, beam: 80 }).blocked).not.toEqual([]);
    expect(by({ punchHeight: 160, punchWidth: 8, dieHeight: 80, beam: 60 }).blocked).toEqual([]);
  });

  // punch height = box depth / 0.7 + half the beam's thickness (brake makers' rule for box bending, from memory)
  it('makes a box as deep as the rule for its punch allows, and no deeper', () => {
    const box = (height: number): FoldedPanel =>
      fold(
        panel(
          [0, 1, 2, 3].map(edge => ({
            id: `w${edge}`,
            edge,
            length: height,
            angle: 90,
            insideRadius: 6,
            mitre: true,
          })),
        ),
        steel,
      );
    expect(brakeOrder(box(54), works).blocked).toEqual([]);
    const tall = brakeOrder(box(66), works);
    expect(tall.blocked.length).toBeGreaterThan(0);
    expect(tall.blocked.every(b => b.tool === 'beam')).toBe(true);
  });

  it('stops a return that would close over the punch', () => {
    const hook = fold(
      panel([
        {
          id: 'riser',
          edge: 1,
          length: 60,
          angle: 90,
          insideRadius: 6,
          flanges: [{ id: 'lip', edge: 'far', length: 200, angle: 90, insideRadius: 6 }],
        },
      ]),
      steel,
    );
    const { blocked } = brakeOrder(hook, works);
    expect(blocked).toHaveLength(1);
    // the other way, an offset, goes
    const offset = fold(
      panel([
        {
          id: 'riser',
          edge: 1,
          length: 60,
          angle: 90,
          insideRadius: 6,
          flanges: [{ id: 'lip', edge: 'far', length: 200, angle: -90, insideRadius: 6 }],
        },
      ]),
      steel,
    );
    expect(brakeOrder(offset, works).blocked).toEqual([]);
  });
});
