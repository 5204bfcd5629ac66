import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type ResolvedJoint, resolveJoints } from '../bolt';
import { type FoldedPanel, fold } from '../fold';
import { rectangle } from '../geometry';
import { buildOf, type PlanDocument, readDocument, sheetOf } from '../plan';
import { presentRig } from '../rig';
import {
  type JointSpring,
  jointForce,
  jointStiffness,
  plateFlats,
  type StrikeAnswer,
  stateOf,
  strikeForce,
  strikePlate,
} from './index';
import { leastAngles, meshFlat } from './mesh-flat';

const load = (
  name: string,
): { doc: PlanDocument; panels: readonly FoldedPanel[]; joints: readonly ResolvedJoint[] } => {
  const r = readDocument(
    readFileSync(new URL(`../../../demo/${name}.platefold.json`, import.meta.url), 'utf8'),
  );
  if (!r.ok) throw new Error(r.faults[0]?.fault);
  const { plan } = r.document;
  const panels = plan.panels.map(p => fold(p, sheetOf(buildOf(plan), p)));
  return { doc: r.document, panels, joints: resolveJoints(r.document, presentRig(r.document.rig), panels) };
};
const bramble = load('bramble');
const struck = (over: Partial<Parameters<typeof strikePlate>[0]> = {}): StrikeAnswer => {
  const made = strikePlate({
    folded: bramble.panels[3]!,
    joints: bramble.joints,
    components: presentRig(bramble.doc.rig).components,
    force: strikeForce(bramble.doc.rig, 'set-down'),
    ...over,
  });
  if (!made.ok) throw new Error(made.fault);
  return made.value;
};

describe('a mesh', () => {
  it('keeps 99 % of its angles above 25°, its edges whole, and its area to the last digit', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 150, max: 500 }),
        fc.integer({ min: 150, max: 500 }),
        fc.integer({ min: 40, max: 100 }),
        (w, h, hole) => {
          const cut = (p: readonly (readonly [number, number])[], at: number) =>
            p.flatMap((a, i) => {
              const b = p[(i + 1) % p.length]!;
              const n = Math.max(1, Math.round(Math.hypot(b[0] - a[0], b[1] - a[1]) / at));
              return Array.from(
                { length: n },
                (_, k) => [a[0] + ((b[0] - a[0]) * k) / n, a[1] + ((b[1] - a[1]) * k) / n] as const,
              );
            });
          const size = 16;
          const inner = rectangle(w / 2 - hole / 2, h / 2 - hole / 2, w / 2 + hole / 2, h / 2 + hole / 2);
          const mesh = meshFlat({
            outline: cut(rectangle(0, 0, w, h), size),
            holes: [cut(inner, size)],
            points: [],
            chains: [],
            spacing: () => size,
          });
          if ('fault' in mesh) throw new Error(mesh.fault);
          const angles = leastAngles(mesh);
          expect(angles.filter(a => a < 25).length / angles.length).toBeLessThanOrEqual(0.01);
          const area = mesh.triangles.reduce((s, t) => {
            const [a, b, c] = [mesh.nodes[t[0]]!, mesh.nodes[t[1]]!, mesh.nodes[t[2]]!];
            return s + ((b[0] - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (b[1] - a[1])) / 2;
          }, 0);
          expect(area).toBeCloseTo(w * h - hole * hole, 5);
        },
      ),
      { numRuns: 25 },
    );
  });
});

describe('a joint in the plane of its sheet', () => {
  const spring: JointSpring = { id: 'j', nodes: [0, 1, 2], friction: 4000, play: 0.5, bearing: 90_000 };
  const at = (dx: number, dy: number): Float64Array => {
    const out = new Float64Array(18);
    jointForce(spring, (_, axis) => (axis === 0 ? dx : dy), out);
    return out;
  };
  it('holds up to its friction, slips through its play, then bears', () => {
    expect([0.02, 0.3, 0.7].map(r => stateOf(spring, r))).toEqual(['held', 'slipped', 'bearing']);
    const pull = (r: number): number => [0, 6, 12].reduce((s, i) => s + at(r, 0)[i]!, 0);
    expect(pull(0.05)).toBeCloseTo(4000, 6);
    expect(pull(0.5)).toBeLessThan(4000 * 1.2);
    expect(pull(0.75) - pull(0.65)).toBeCloseTo(9000, 3);
  });
  it('has the tangent that its force has', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1, max: 1, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        (x, y) => {
          const r = Math.hypot(x, y);
          // away from the law's corners
          if ([0, 0.05, 0.55].some(c => Math.abs(r - c) < 2e-3)) return;
          const k = jointStiffness(spring, (_, axis) => (axis === 0 ? x : y));
          const step = 1e-6;
          for (const axis of [0, 1]) {
            const by = (s: number) => {
              const out = new Float64Array(18);
              jointForce(spring, (n, a) => (a === 0 ? x : y) + (n === 1 && a === axis ? s : 0), out);
              return out;
            };
            const [up, down] = [by(step), by(-step)];
            for (let i = 0; i < 18; i++)
              expect(k[18 * i + 6 + axis]!).toBeCloseTo((up[i]! - down[i]!) / (2 * step), -1);
          }
        },
      ),
    );
  });
});

describe('a struck plate', () => {
  it('stands in its flats, joined along its mould lines', () => {
    const flats = plateFlats(bramble.panels[0]!);
    expect(flats.map(f => f.name)).toEqual(bramble.panels[0]!.facets.map(f => f.id));
    expect(flats[0]!.holes.length).toBeGreaterThan(0);
  });
  it('does not depend on its mesh: twice as fine a one gives the same within 4 %', () => {
    const at = [1891, -170] as const;
    const [coarse, fine] = [16, 28].map(fineness => struck({ at, fineness }));
    expect(coarse!.deflectionMm / fine!.deflectionMm).toBeGreaterThan(0.96);
    expect(coarse!.deflectionMm / fine!.deflectionMm).toBeLessThan(1.04);
    expect(fine!.ringHz / coarse!.ringHz).toBeCloseTo(1, 1.5);
  }, 60_000);
  it('gives more under more, leaves a dent only beyond yield, and says by which theory', () => {
    const at = [2200, -290] as const;
    const answers = [300, 3000, 9000].map(force => struck({ at, force }));
    const [a, b, c] = answers as [StrikeAnswer, StrikeAnswer, StrikeAnswer];
    expect(a.theory).toBe('small deflections, elastic');
    expect(a.dentMm).toBe(0);
    expect(b.deflectionMm).toBeGreaterThan(a.deflectionMm);
    expect(c.deflectionMm).toBeGreaterThan(b.deflectionMm);
    expect(c.theory).toContain('elastic-plastic');
    expect(c.dentMm).toBeGreaterThan(0);
    // what is left under it shrinks by what it gives more
    expect(b.gapMm).toBeGreaterThan(c.gapMm!);
  }, 60_000);
  it('its worst place leaves no more gap than its middle', () => {
    const worst = struck();
    expect(worst.gapMm!).toBeLessThanOrEqual(struck({ at: [2200, -290] }).gapMm! + 0.5);
  }, 60_000);
  it('names what cannot be struck: no bolts, no sheet there', () => {
    const wish = { folded: bramble.panels[3]!, components: [], force: 1000 };
    expect(strikePlate({ ...wish, joints: [] })).toEqual({ ok: false, fault: 'no bolt holds it' });
    expect(strikePlate({ ...wish, joints: bramble.joints, at: [0, 0] })).toMatchObject({
      ok: false,
      fault: expect.stringContaining('no sheet'),
    });
  });
  it('is struck with half the heavier axle, and twice that off a ledge', () => {
    expect(strikeForce(bramble.doc.rig, 'set-down')).toBeCloseTo(560 * 9.80665, 9);
    expect(strikeForce(bramble.doc.rig, 'ledge-drop')).toBeCloseTo(1120 * 9.80665, 9);
  });
});
