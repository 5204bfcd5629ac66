import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type ResolvedJoint, resolveJoints, seatsOf } from '../bolt';
import { type FoldedPanel, fold } from '../fold';
import { rectangle } from '../geometry';
import { buildOf, isBracket, type PlanDocument, sheetOf } from '../plan';
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
  wishOf,
} from './index';
import { leastAngles, meshFlat } from './mesh-flat';

const load = (
  name: string,
): { doc: PlanDocument; panels: readonly FoldedPanel[]; joints: readonly ResolvedJoint[] } => {
  const document = demo(name);
  const { plan } = document;
  const panels = plan.panels.map(p => fold(p, sheetOf(buildOf(plan), p)));
  return {
    doc: document,
    panels,
    joints: resolveJoints(document.plan.joints, presentRig(document.rig), panels),
  };
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
    // seven tenths of the friction at the move that counts as slipping, all of it soon after, then the shank's slope
    expect(pull(0.03) / 4000).toBeCloseTo(Math.SQRT1_2, 1);
    expect(pull(0.25) / 4000).toBeGreaterThan(0.97);
    expect(pull(0.4) / 4000).toBeLessThan(1.3);
    expect((pull(0.85) - pull(0.75)) / 9000).toBeCloseTo(1, 1);
  });
  it('has the tangent that its force has', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1, max: 1, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        (x, y) => {
          const r = Math.hypot(x, y);
          if (r < 2e-3) return;
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
  it('stands in its flats, joined along its mold lines', () => {
    const flats = plateFlats(bramble.panels[0]!);
    expect(flats.map(f => f.name)).toEqual(bramble.panels[0]!.facets.map(f => f.id));
    expect(flats[0]!.holes.length).toBeGreaterThan(0);
  });
  it('does not depend on its mesh: twice as fine a one gives the same within 2 %', () => {
    const at = [1891, -170] as const;
    const [chosen, fine] = [struck({ at, noDent: true }), struck({ at, size: 0.45, noDent: true })];
    expect(fine.nodes).toBeGreaterThan(1.5 * chosen.nodes);
    expect(chosen.deflectionMm / fine.deflectionMm).toBeGreaterThan(0.98);
    expect(chosen.deflectionMm / fine.deflectionMm).toBeLessThan(1.02);
    expect(chosen.meshError).toBeLessThan(0.036);
    expect(fine.meshError).toBeLessThan(chosen.meshError);
    expect(fine.ringHz / chosen.ringHz).toBeCloseTo(1, 1.5);
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
  it('has the same worst place on any mesh, and struck there is struck as if it had been looked for', () => {
    for (const folded of bramble.panels.slice(1, 4)) {
      const how = { folded, noDent: true };
      const look = struck({ ...how, size: 1.6 });
      const whole = struck({ ...how, size: 1 });
      expect(look.at).toEqual(whole.at);
      const there = struck({ ...how, size: 1, at: [look.at[0], look.at[1]] });
      expect(there.deflectionMm).toBe(whole.deflectionMm);
    }
  }, 60_000);
  it('its worst place leaves no more gap than its middle', () => {
    const worst = struck();
    expect(worst.gapMm!).toBeLessThanOrEqual(struck({ at: [2200, -290] }).gapMm! + 0.5);
  }, 60_000);
  it('lies between its bounds: stiffer fully held in its plane, softer not held there', () => {
    const at = [2200, -290] as const;
    const [held, joints, free] = (['held', 'joints', 'free'] as const).map(hold =>
      struck({ at, hold, size: 1 }),
    );
    expect(joints!.deflectionMm).toBeGreaterThan(held!.deflectionMm);
    expect(free!.deflectionMm).toBeGreaterThan(joints!.deflectionMm);
    // held fast, a plate pulls on its bolts in the plane far harder than real joints do
    const pull = (a: StrikeAnswer): number => Math.max(...a.reactionsN.map(r => r.shearN));
    expect(pull(held!)).toBeGreaterThan(pull(joints!));
    expect(pull(free!)).toBeLessThan(200);
  }, 60_000);
  it('bears its force on its joints and what it leans on', () => {
    const v = struck({ size: 1 });
    // pulled off, or pressed on: what pulls is more than half of what struck it
    expect(v.reactionsN.reduce((s, r) => s + r.tensionN, 0)).toBeGreaterThan(0);
    expect(v.leansOn).toEqual([]);
  }, 60_000);
  it('gives less under a crossbar that it comes up against, and less still under members', () => {
    const heron = load('heron');
    const folded = heron.panels[2]!;
    const rig = presentRig(heron.doc.rig);
    const wish = {
      folded,
      joints: heron.joints,
      components: rig.components,
      force: 9000,
      at: [1239, 0] as const,
      size: 1,
    };
    const answer = (over: object): StrikeAnswer => {
      const r = strikePlate({ ...wish, ...over });
      if (!r.ok) throw new Error(r.fault);
      return r.value;
    };
    const bare = answer({});
    const z = bare.at[2] + folded.sheet.thickness;
    const bar = {
      id: 'b',
      name: 'bar',
      from: [1239, -420, z + 4 + 19],
      to: [1239, 420, z + 4 + 19],
      section: { width: 38.1, height: 38.1, wall: 3.175 },
      material: 'steel-hr36',
      mounts: [],
    };
    const backed = answer({ backing: { crossbars: [bar], members: [] } });
    expect(bare.deflectionMm).toBeGreaterThan(6);
    expect(backed.leansOn).toEqual(['b']);
    expect(backed.deflectionMm).toBeLessThan(0.85 * bare.deflectionMm);
    // the bar stands 4 mm off: nothing happens before that
    expect(backed.deflectionMm).toBeGreaterThan(4);
    const far = { ...bar, from: [1239, -420, z + 70], to: [1239, 420, z + 70] };
    expect(
      answer({ backing: { crossbars: [far], members: [] } }).deflectionMm / bare.deflectionMm,
    ).toBeCloseTo(1, 2);
    const block = {
      id: 'm',
      kind: 'crossmember',
      footprint: rectangle(1180, -300, 1300, 300),
      zBottom: z + 1,
      zTop: z + 80,
      wall: 3,
    };
    const stopped = answer({ backing: { crossbars: [], members: [block] } });
    expect(stopped.leansOn).toEqual(['m']);
    expect(stopped.deflectionMm).toBeLessThan(backed.deflectionMm);
  }, 90_000);
  // every build in a soak, the chosen one each time
  it('every demo plate answers', () => {
    for (const name of ['bramble', 'heron', 'pebble', 'wren']) {
      const { doc } = load(name);
      const rig = presentRig(doc.rig);
      const seen = new Set<string>();
      for (const build of doc.plan.builds) {
        if (!process.env.SOAK_STRIKES && build.id !== doc.plan.activeBuild) continue;
        const panels = doc.plan.panels.map(p => fold(p, sheetOf(build, p)));
        const joints = resolveJoints(doc.plan.joints, rig, panels);
        for (const folded of panels.filter(p => !isBracket(p.panel))) {
          const key = JSON.stringify([folded.panel.id, folded.sheet]);
          if (seen.has(key)) continue;
          seen.add(key);
          const wish = wishOf(
            { rig, joints, seats: seatsOf(joints, rig, panels), document: doc, panels },
            folded,
            strikeForce(doc.rig, 'set-down'),
          );
          const r = strikePlate({ ...wish, size: 1.6 });
          if (!r.ok) throw new Error(`${name} ${build.id} ${folded.panel.mark}: ${r.fault}`);
          const v = r.value;
          expect(v.deflectionMm).toBeGreaterThan(0);
          expect(v.ringHz).toBeGreaterThan(5);
          // borne, or said to have given way before
          if (v.reached < 1) expect(v.deflectionMm).toBeGreaterThan(60);
          else expect(v.dentMm).toBeDefined();
        }
      }
    }
  }, 300_000);
  it('names what cannot be struck: no bolts, no sheet there', () => {
    const wish = { folded: bramble.panels[3]!, components: [], force: 1000 };
    expect(strikePlate({ ...wish, joints: [] })).toEqual({ ok: false, fault: 'no bolt holds it' });
    expect(strikePlate({ ...wish, joints: bramble.joints, at: [0, 0] })).toMatchObject({
      ok: false,
      fault: expect.stringContaining('no sheet'),
    });
  });
  it('is struck with half the heavier axle, which is what falls and what slides as well', () => {
    expect(strikeForce(bramble.doc.rig, 'set-down')).toBeCloseTo(560 * 9.80665, 9);
    expect(strikeForce(bramble.doc.rig, 'drop')).toBeCloseTo(560 * 9.80665, 9);
    expect(strikeForce(bramble.doc.rig, 'slide')).toBeCloseTo(560 * 9.80665, 9);
    const { axles, wheelbase } = bramble.doc.rig;
    // a jack carries one wheel of the axle it stands nearer to
    expect(strikeForce(bramble.doc.rig, 'jack', 100)).toBeCloseTo((axles.front.massKg / 2) * 9.80665, 9);
    expect(strikeForce(bramble.doc.rig, 'jack', wheelbase - 100)).toBeCloseTo(
      (axles.rear.massKg / 2) * 9.80665,
      9,
    );
  });
});
