import { demo } from '@plate-fold/demo';
// The moment under a bolt's head becomes pull in the bolt: AISC Steel Construction Manual part 9, prying; Roark's Formulas table 8.1.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type ResolvedJoint, resolveJoints } from '../bolt';
import { fold } from '../fold';
import { contains, rectangle, type Vec2, wayOut } from '../geometry';
import type { Panel } from '../plan';
import { presentRig } from '../rig';
import { strikePlate } from './index';
import { pryingPull } from './joint-reaction';

describe('a sheet pried over an edge', () => {
  it('is in balance: what is pulled off, the edge and the bolt, in force and in moment', () => {
    const [T, M, edge, d] = [10_000, 100_000, 20, 10];
    const B = pryingPull(T, M, edge, d);
    expect(B).toBe(12_000);
    const Q = B - T;
    expect(Q * edge + (B * d) / 2).toBeCloseTo(M, 9);
  });
  it('pressed on, pulls at the bolt only where the pressure would have to lie beyond the edge', () => {
    // 20 kN pressed on, with a moment: 15 mm off the bolt the pressure alone carries it
    expect(pryingPull(-20_000, 300_000, 20, 8)).toBe(0);
    expect(pryingPull(-20_000, 400_000, 20, 8)).toBe(0);
    // 229 N·m under an M8, 12 mm from the edge of its rail
    expect(pryingPull(-5_000, 229_000, 12, 8)).toBeCloseTo((229_000 - 60_000) / 16, 6);
  });
  it('never pulls less than the sheet does, and more the nearer the edge', () => {
    const any = { min: 0, max: 40_000, noNaN: true };
    fc.assert(
      fc.property(
        fc.double({ ...any, min: -40_000 }),
        fc.double({ ...any, max: 400_000 }),
        fc.double({ min: 1, max: 60, noNaN: true }),
        (T, M, edge) => {
          const B = pryingPull(T, M, edge, 10);
          expect(B).toBeGreaterThanOrEqual(Math.max(0, T));
          // where the moment is more than the head alone can carry
          if (M > T * 5) expect(pryingPull(T, M, edge / 2, 10)).toBeGreaterThanOrEqual(B - 1e-9);
        },
      ),
    );
  });
  it('the way out of an outline ends on it', () => {
    const L: readonly Vec2[] = [
      [0, 0],
      [100, 0],
      [100, 40],
      [40, 40],
      [40, 100],
      [0, 100],
    ];
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 39, noNaN: true }),
        fc.double({ min: 1, max: 39, noNaN: true }),
        fc.double({ min: 0, max: 2 * Math.PI, noNaN: true }),
        (x, y, a) => {
          const way: Vec2 = [Math.cos(a), Math.sin(a)];
          const t = wayOut(L, [x, y], way)!;
          const at = (k: number): Vec2 => [x + k * way[0], y + k * way[1]];
          expect(contains(L, at(t - 1e-6))).toBe(true);
          expect(contains(L, at(t + 1e-6))).toBe(false);
        },
      ),
    );
    expect(wayOut(L, [200, 200], [1, 0])).toBeUndefined();
  });
});

describe('a strip bolted at both ends to a rail across it', () => {
  const LONG = 700;
  const IN = 50;
  const EDGE = 24;
  const heron = demo('heron');
  const rig = presentRig(heron.rig);
  const panel: Panel = {
    ...heron.plan.panels[0]!,
    id: 'strip',
    mark: 'S',
    base: { origin: [1000, -50, 300], pitch: 0, roll: 0, outline: rectangle(0, 0, LONG, 100) },
    flanges: [],
    openings: [],
  };
  const folded = fold(panel, { material: 'steel-hr36', thickness: 5, finish: 'raw' });
  const [model] = resolveJoints(heron.plan.joints, rig, [folded]);
  const bolts: readonly ResolvedJoint[] = [IN, LONG - IN].flatMap((x, end) =>
    [25, 75].map((y, i): ResolvedJoint => {
      const at = [1000 + x, -50 + y, 305] as const;
      const [from, to] = end === 0 ? [x - 40, x + EDGE] : [x - EDGE, x + 40];
      return {
        ...model!,
        id: `${end}${i}`,
        at,
        joint: { ...model!.joint, panels: ['strip'], spacer: 0 },
        layers: [{ kind: 'washer', name: 'washer', thickness: 3, diameter: 37 }],
        member: {
          id: `rail-${end}`,
          kind: 'crossmember',
          footprint: rectangle(1000 + from, -100, 1000 + to, 100),
          zBottom: 305,
          zTop: 350,
          wall: 3,
        },
      };
    }),
  );
  const answer = strikePlate({
    folded,
    joints: bolts,
    components: [],
    force: 60,
    at: [1000 + LONG / 2, 0],
    size: 0.6,
    noDent: true,
  });
  if (!answer.ok) throw new Error(answer.fault);
  const v = answer.value;
  it('carries the end moment of a beam between the washers (Roark table 8.1, 1d and 2d)', () => {
    const r = 18.5;
    const span = LONG - 2 * IN - 2 * r;
    const patch = 80;
    const end = (v.forceN * (3 * span * span - patch * patch)) / (24 * span);
    // about the bolts rather than the edges of their washers, and shared by two
    const each = (end + (v.forceN / 2) * r) / 2 / 1000;
    expect(v.theory).toBe('small deflections, elastic');
    for (const x of v.reactionsN) expect(Math.abs(x.momentNm / each - 1)).toBeLessThan(0.05);
  });
  it('pulls its bolts by that moment over the rail\u2019s edge, though the sheet itself is pressed on', () => {
    const d = model!.thread.d;
    for (const x of v.reactionsN) {
      expect(x.tensionN).toBe(0);
      // a sheet that bends across as well is pried over the edge somewhat aslant: further off than straight ahead
      const pull = (edge: number): number => (x.momentNm * 1000 - (v.forceN / 4) * edge) / (edge + d / 2);
      expect(x.boltN).toBeLessThan(1.02 * pull(EDGE));
      expect(x.boltN).toBeGreaterThan(pull(EDGE / Math.cos(Math.PI / 6)));
      expect(x.boltN).toBeGreaterThan(v.forceN);
    }
  });
});
