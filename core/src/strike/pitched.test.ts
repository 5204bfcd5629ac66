import { demo } from '@plate-fold/demo';
// A joint holds in the plane of its sheet, whichever way that lies.
import { describe, expect, it } from 'vitest';
import { assemble } from '../derive';
import { type Hold, strikeForce, strikePlate, wishOf } from './index';
import { type JointSpring, jointForce, jointStiffness } from './joint-spring';

/** Bramble's transfer case plate pitched by so much, struck; shear and tension of its joints, N. */
function struck(pitch: number, hold: Hold) {
  const doc = demo('bramble');
  const tilted = {
    ...doc,
    plan: {
      ...doc.plan,
      panels: doc.plan.panels.map(p => (p.id === 'plate-c' ? { ...p, base: { ...p.base, pitch } } : p)),
    },
  };
  const of = assemble(tilted);
  const p = of.panels.find(x => x.panel.id === 'plate-c')!;
  const wish = { ...wishOf(of, p, strikeForce(tilted.rig, 'set-down')), hold, noDent: true, size: 1.6 };
  const r = strikePlate(wish);
  if (!r.ok) throw new Error(r.fault);
  return r.value;
}

describe('a pitched plate', () => {
  it('is held by its joints as a level one is: shear does not jump where the sheet counts as pitched', () => {
    const [before, after] = [struck(0.805, 'joints'), struck(0.815, 'joints')];
    expect(after.reactionsN.length).toBe(before.reactionsN.length);
    before.reactionsN.forEach((b, i) => {
      const a = after.reactionsN[i]!;
      expect(Math.abs(a.shearN - b.shearN)).toBeLessThan(0.04 * Math.max(b.shearN, 1500));
      expect(Math.abs(a.tensionN - b.tensionN)).toBeLessThan(60);
    });
    expect(Math.abs(after.deflectionMm / before.deflectionMm - 1)).toBeLessThan(0.01);
  });
  it('slides where its joints are told not to hold it', () => {
    const free = struck(3, 'free');
    const held = struck(3, 'held');
    // 12.9 kN of shear where it was silently held before
    for (const r of free.reactionsN) expect(r.shearN).toBeLessThan(100);
    expect(Math.max(...held.reactionsN.map(r => r.shearN))).toBeGreaterThan(5000);
    expect(free.deflectionMm).toBeGreaterThan(held.deflectionMm);
  });
});

describe('the law of a joint in a plane of its own', () => {
  const level: JointSpring = { id: 'j', nodes: [0, 1], friction: 800, play: 0.5, bearing: 40_000 };
  const a = Math.PI / 7;
  const tilted: JointSpring = {
    ...level,
    axes: [
      [Math.cos(a), 0, Math.sin(a)],
      [0, 1, 0],
    ],
  };
  const moves = [
    [0.12, -0.05, 0],
    [0.2, 0.03, 0],
  ] as const;
  it('is the level one turned', () => {
    const out = [new Float64Array(12), new Float64Array(12)] as const;
    jointForce(level, (n, c) => moves[n]![c], out[0]);
    // the same moves, in the tilted plane
    const turned = moves.map(([x, y]) => [x * Math.cos(a), y, x * Math.sin(a)] as const);
    jointForce(tilted, (n, c) => turned[n]![c], out[1]);
    for (const n of [0, 1]) {
      const [x, y] = [out[0][6 * n]!, out[0][6 * n + 1]!];
      expect(out[1][6 * n]!).toBeCloseTo(x * Math.cos(a), 6);
      expect(out[1][6 * n + 1]!).toBeCloseTo(y, 6);
      expect(out[1][6 * n + 2]!).toBeCloseTo(x * Math.sin(a), 6);
    }
  });
  it('has the tangent of its force', () => {
    const at = (e: number, k: number) => (n: number, c: 0 | 1 | 2) =>
      [0.1, 0.04, 0.05][c]! * (n + 1) + (6 * n + c === k ? e : 0);
    const k = jointStiffness(tilted, at(0, -1));
    const h = 1e-6;
    for (const j of [0, 1, 2, 6, 7, 8]) {
      const [up, down] = [new Float64Array(12), new Float64Array(12)];
      jointForce(tilted, at(h, j), up);
      jointForce(tilted, at(-h, j), down);
      for (let i = 0; i < 12; i++) {
        const slope = (up[i]! - down[i]!) / (2 * h);
        expect(Math.abs(slope - k[12 * i + j]!)).toBeLessThan(1e-4 * Math.max(1000, Math.abs(slope)));
      }
    }
  });
});
