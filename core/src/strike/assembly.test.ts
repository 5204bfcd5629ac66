// A plate with what it hangs on, against CalculiX: how the cases were solved stands in solved-cases/README.md.
import { readFileSync } from 'node:fs';
import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bracketAdded } from '../bracket';
import { assemble } from '../derive';
import type { FoldedPanel } from '../fold';
import { cross3, dot3, length3, sub3, type Vec2, type Vec3 } from '../geometry';
import { type Joint, jointFor, type PlanDocument } from '../plan';
import type { Mount } from '../rig';
import { CORNERS, fourZ, hole, plateUnder, SHEET, twoL, wing } from '../testing/hung-plates';
import { type Condensed, condense, toVehicle } from './condensed';
import { hangersOf, movesOf } from './hung';
import { strikePlate, wishOf } from './index';
import { reactionOf } from './joint-reaction';
import { middleFlats } from './middle-flats';
import { solveLarge } from './newton';
import { heldBy, meshPlate, modelFor, plateFlatsOf, up } from './plate-model';
import { planeOf } from './shell-mesh';
import { DOF_PER_NODE } from './sparse';

interface Solved {
  readonly id: string;
  readonly force: number;
  readonly at: Vec2;
  readonly brackets: readonly { readonly flats: readonly (readonly Vec3[])[] }[];
  readonly free: { readonly mostUp: number };
  readonly touching?: { readonly mostUp: number; readonly seats: Readonly<Record<string, Vec3>> };
  readonly rests?: Readonly<Record<string, Vec3>>;
}
const { cases } = JSON.parse(
  readFileSync(new URL('./solved-cases/assemblies.json', import.meta.url), 'utf8'),
) as { cases: readonly Solved[] };

const BARE = demo('bramble');
const TOP = 300 + SHEET.thickness;
function onBar(): PlanDocument {
  const doc = plateUnder(
    BARE,
    CORNERS.map(([x, y], i) => hole(`m${i}`, [215 * x, 120 * y, TOP], [0, 0, -1])),
    500,
    300,
  );
  const [first] = doc.rig.mounts;
  const free = (id: string, y: number): Joint => {
    const { mount: _, ...joint } = jointFor(id, first as Mount, ['plate-a']);
    return { ...joint, at: [0, y, TOP] };
  };
  return {
    ...doc,
    plan: {
      ...doc.plan,
      crossbars: [
        {
          id: 'bar',
          name: 'bar',
          from: [0, -140, TOP + 10],
          to: [0, 140, TOP + 10],
          section: { width: 40, height: 20, wall: 'solid' },
          material: 'steel-hr36',
          mounts: [],
        },
      ],
      joints: [
        ...doc.rig.mounts.map((m, i) => jointFor(`j${i}`, m, ['plate-a'])),
        free('b0', -80),
        free('b1', 80),
      ],
    },
  };
}
const PLANS: Readonly<Record<string, () => PlanDocument>> = {
  'two L': () => twoL(BARE),
  'four Z': () => fourZ(BARE),
  bar: onBar,
  wing: () => wing(BARE),
};
const by = (id: string): Solved => cases.find(c => c.id === id) as Solved;
const plateOf = (panels: readonly FoldedPanel[]): FoldedPanel =>
  panels.find(p => p.panel.id === 'plate-a') as FoldedPanel;

/** The plate solved for large deflections under a small force, where they are small ones; with and without what touches. */
function solved(id: string, share: number, touching: boolean) {
  const { at, force } = by(id);
  const of = assemble((PLANS[id] as () => PlanDocument)());
  const plate = plateOf(of.panels);
  const wish = { ...wishOf(of, plate, force * share, { at }), hold: 'held' as const };
  const flats = plateFlatsOf(plate);
  const hangers = hangersOf(wish);
  if (!hangers.ok) throw new Error(hangers.fault);
  const held = heldBy(flats, 'plate-a', wish.joints, hangers.value);
  const mesh = meshPlate(flats, held, 0.6, [at[0], at[1], 300], wish.backing);
  if (!mesh.ok) throw new Error(mesh.fault);
  const whole = modelFor(wish, mesh.value, held);
  const model = touching ? whole : { ...whole, contacts: [] };
  up(model.load, model.mesh, [at[0], at[1], 300], wish.force);
  const a = solveLarge(model, { plastic: false, tolerance: 1e-5 });
  if ('mechanism' in a) throw new Error('it is not held');
  const nodes = mesh.value.mesh.coordinates.length / 3;
  let mostUp = 0;
  for (let n = 0; n < nodes; n++) mostUp = Math.max(mostUp, a.u[DOF_PER_NODE * n + 2] as number);
  const seats = hangers.value.flatMap(h => h.seats(movesOf(model.hung, h, a.u)));
  const reactions = held.map((h, i) =>
    reactionOf(
      wish,
      { model, flats, inner: a.inner, u: a.u, reached: 1 },
      h,
      mesh.value.discs[i] as number[],
    ),
  );
  return { mostUp: mostUp / share, seats, reactions, share };
}
const off = (a: number, b: number): number => Math.abs(a / b - 1);

describe('a plate on brackets and bars, solved as one', () => {
  it.each(['two L', 'four Z'])('%s: bends as its second-order shells do, and hands on as much', id => {
    const ours = middleFlats;
    const of = assemble((PLANS[id] as () => PlanDocument)());
    // what CalculiX was given is what is struck here
    const own = of.panels.filter(p => p.panel.role === 'bracket').map(p => ours(p).map(f => f.polygon));
    for (const b of by(id).brackets) {
      const there = own.some(flats =>
        flats.every((f, i) => f.every((q, k) => length3(sub3(q, b.flats[i]?.[k] ?? [1e9, 0, 0])) < 1e-3)),
      );
      expect(there, JSON.stringify(b.flats)).toBe(true);
    }
    const free = solved(id, 0.1, false);
    expect(off(free.mostUp, by(id).free.mostUp)).toBeLessThan(0.015);
    const touching = solved(id, 0.3, true);
    const { mostUp, seats } = by(id).touching as NonNullable<Solved['touching']>;
    expect(off(touching.mostUp, mostUp)).toBeLessThan(0.03);
    // what its feet press on bears: it gives less than one that only hangs
    expect(touching.mostUp).toBeLessThan(solved(id, 0.3, false).mostUp);
    for (const s of touching.seats) {
      const there = seats[s.joint.id] as Vec3;
      const mine = s.force.map(v => v / touching.share) as unknown as Vec3;
      expect(length3(sub3(mine, there)), `${s.joint.id}: ${mine} for ${there}`).toBeLessThan(
        0.05 * by(id).force,
      );
    }
  });

  it('a solid crossbar: bends as second-order shells on second-order bricks do', () => {
    const { free, touching, rests, force } = by('bar');
    expect(off(solved('bar', 0.1, false).mostUp, free.mostUp)).toBeLessThan(0.035);
    expect(off(solved('bar', 1, true).mostUp, touching?.mostUp ?? 0)).toBeLessThan(0.03);
    // stretching pulls at its corners as the square of the load: looked at where it is nothing
    const ours = solved('bar', 0.02, false);
    for (const r of ours.reactions) {
      const there = rests?.[r.joint];
      if (!there) continue;
      expect(Math.abs(r.shearN / ours.share - Math.hypot(there[0], there[1])), r.joint).toBeLessThan(
        0.05 * force,
      );
      expect(Math.abs(r.tensionN / ours.share - Math.max(0, there[2])), r.joint).toBeLessThan(0.05 * force);
    }
  });

  it('a wing on its shield: bends as second-order shells do, and hands on as much', () => {
    const free = solved('wing', 0.02, false);
    expect(off(free.mostUp, by('wing').free.mostUp)).toBeLessThan(0.035);
    const touching = solved('wing', 0.02, true);
    const { mostUp, seats } = by('wing').touching as NonNullable<Solved['touching']>;
    expect(off(touching.mostUp, mostUp)).toBeLessThan(0.03);
    // over the shield's edge it is the shorter lever
    expect(touching.mostUp).toBeLessThan(0.99 * free.mostUp);
    expect(touching.seats).toHaveLength(4);
    for (const s of touching.seats) {
      const mine = s.force.map(v => v / touching.share) as unknown as Vec3;
      expect(length3(sub3(mine, seats[s.joint.id] as Vec3)), `${s.joint.id}: ${mine}`).toBeLessThan(
        0.05 * by('wing').force,
      );
    }
  });

  it('a shield is not held by the wing that hangs on it, and a wing whose shield nothing holds is not held', () => {
    const of = assemble(wing(BARE));
    const shield = of.panels.find(p => p.panel.id === 'plate-b') as FoldedPanel;
    expect(wishOf(of, shield, 1000).brackets).toBeUndefined();
    const doc = wing(BARE);
    const loose = assemble({
      ...doc,
      plan: { ...doc.plan, joints: doc.plan.joints.filter(j => j.mount === undefined) },
    });
    const a = strikePlate(wishOf(loose, plateOf(loose.panels), 1000));
    expect(a.ok ? '' : a.fault).toMatch(/no bolt holds it/);
  });

  it('gives less the thicker its brackets, and hardly more than one that is held where they are solid', () => {
    const struck = (thickness: number): number => {
      const of = assemble(fourZ(BARE, thickness));
      const a = strikePlate({
        ...wishOf(of, plateOf(of.panels), 3000, { at: [60, 20] }),
        size: 1.2,
        noDent: true,
      });
      if (!a.ok) throw new Error(a.fault);
      return a.value.deflectionMm;
    };
    const [thin, usual, thick] = [struck(3.175), struck(4.7625), struck(6.35)];
    expect(thin).toBeGreaterThan(1.2 * usual);
    expect(usual).toBeGreaterThan(1.03 * thick);
    const of = assemble(fourZ(BARE, 6.35));
    const { brackets: _, ...fast } = wishOf(of, plateOf(of.panels), 3000, { at: [60, 20] });
    const held = strikePlate({ ...fast, hold: 'held', size: 1.2, noDent: true });
    if (!held.ok) throw new Error(held.fault);
    expect(thick).toBeGreaterThan(held.value.deflectionMm);
  });

  it('tells what it asks of every bracket, and of the bolts at both of its ends', () => {
    const of = assemble(fourZ(BARE));
    const a = strikePlate({
      ...wishOf(of, plateOf(of.panels), 3000, { at: [60, 20] }),
      size: 1.2,
      noDent: true,
    });
    if (!a.ok) throw new Error(a.fault);
    expect(a.value.brackets).toHaveLength(4);
    for (const b of a.value.brackets) {
      expect(b.yieldMPa).toBe(250);
      expect(b.vonMisesMPa).toBeGreaterThan(50);
      expect(b.riseMm).toBeGreaterThan(0);
      expect(b.riseMm).toBeLessThan(a.value.deflectionMm);
    }
    // the nearest gives most
    const most = [...a.value.brackets].sort((x, y) => y.riseMm - x.riseMm)[0];
    expect(of.joints.find(j => j.joint.panels[0] === most?.panel)?.mount?.id).toBe('m4');
    expect(a.value.reactionsN.map(r => r.joint).sort()).toEqual(of.joints.map(j => j.id).sort());
  });

  it('is not held by brackets that nothing holds', () => {
    const doc = twoL(BARE);
    const loose: PlanDocument = {
      ...doc,
      plan: { ...doc.plan, joints: doc.plan.joints.filter(j => j.mount === undefined) },
    };
    const of = assemble(loose);
    const a = strikePlate(wishOf(of, plateOf(of.panels), 1000));
    expect(a.ok ? '' : a.fault).toMatch(/no bolt holds it/);
  });
});

describe('a condensed bracket', () => {
  const anyPair = fc.record({
    x: fc.integer({ min: 230, max: 330 }),
    z: fc.integer({ min: 350, max: 420 }),
    t: fc.constantFrom(3.175, 4.7625, 6.35),
  });
  const made = ({ x, z, t }: { x: number; z: number; t: number }, held = true): Condensed | undefined => {
    const doc = plateUnder(BARE, [hole('m1', [x, 0, z], [0, 0, -1])], 300, 200);
    const r = bracketAdded(doc, {
      mount: 'm1',
      panel: 'plate-a',
      at: [110, 0],
      sheet: { ...SHEET, thickness: t },
    });
    if (!r.ok) return undefined;
    const of = assemble(r.value.document);
    const bracket = of.panels.find(p => p.panel.role === 'bracket') as FoldedPanel;
    const joints = of.joints.filter(j => j.joint.panels.includes(bracket.panel.id));
    const c = condense(bracket, held ? joints : joints.filter(j => !toVehicle(j)), 'plate-a');
    if (!c.ok) throw new Error(c.fault);
    return c.value;
  };
  const times = ({ k }: Condensed, q: Float64Array): Float64Array =>
    q.map((_, i) => q.reduce((s, v, j) => s + (k[q.length * i + j] as number) * v, 0));

  it('is symmetric, gives under every load, and is in balance with its bolt to the vehicle', () => {
    let tried = 0;
    fc.assert(
      fc.property(
        anyPair,
        fc.array(fc.integer({ min: -9, max: 9 }), { minLength: 14, maxLength: 14 }),
        (p, moves) => {
          const c = made(p);
          if (!c || moves.every(v => v === 0)) return;
          tried++;
          const size = DOF_PER_NODE * c.joints.length + c.feet.length;
          const most = Math.max(...c.k.map(Math.abs));
          for (let i = 0; i < size; i++)
            for (let j = 0; j < i; j++)
              expect(Math.abs((c.k[size * i + j] as number) - (c.k[size * j + i] as number))).toBeLessThan(
                1e-7 * most,
              );
          const q = Float64Array.from(
            { length: size },
            (_, i) => (moves[i] ?? 0) * (i < 3 || i > 5 ? 0.01 : 0.001),
          );
          const f = times(c, q);
          const work = f.reduce((s, v, i) => s + v * (q[i] as number), 0);
          expect(work).toBeGreaterThanOrEqual(-1e-9 * most);
          const [seat] = c.seats(q);
          const n = c.feet[0]?.normal ?? [0, 0, 1];
          const feet = c.feet.reduce((s, _, i) => s + (f[6 + i] as number), 0);
          const sum = [0, 1, 2].map(
            k => (f[k] as number) + feet * (n[k] as number) + (seat?.force[k] as number),
          );
          expect(Math.hypot(...sum)).toBeLessThan(1e-6 * (1 + Math.hypot(...f)));
        },
      ),
      { numRuns: 25 },
    );
    expect(tried).toBeGreaterThan(8);
  });

  it('that nothing holds moves with the plate and pushes back with nothing', () => {
    const c = made({ x: 260, z: 380, t: 4.7625 }, false) as Condensed;
    const at = c.joints[0]?.at as Vec3;
    for (const turn of [
      [0, 0, 0],
      [0.01, 0, 0],
      [0, 0.01, 0],
      [0, 0, 0.01],
    ] as const) {
      const q = new Float64Array(6 + c.feet.length);
      q.set([1, 2, 3, ...turn]);
      c.feet.forEach((f, i) => {
        const d = cross3([...turn], sub3(f.at, at)).map((v, k) => v + k + 1) as unknown as Vec3;
        q[6 + i] = dot3(d, f.normal);
      });
      const most = Math.max(...c.k.map(Math.abs));
      expect(Math.max(...times(c, q).map(Math.abs))).toBeLessThan(1e-6 * most);
    }
  });

  it('has its flats in the middle of its sheet, and they meet in its folds', () => {
    fc.assert(
      fc.property(anyPair, p => {
        const c = made(p);
        if (!c) return;
        const t = c.panel.sheet.thickness;
        const flats = middleFlats(c.panel);
        for (const f of flats) {
          const facet = c.panel.facets.find(x => x.id === f.name)!;
          for (const q of f.polygon)
            expect(dot3(sub3(q, facet.frame.origin), facet.frame.n)).toBeCloseTo(t / 2, 6);
          const parent = flats.find(x => x.name === facet.parent);
          if (!parent) continue;
          const plane = planeOf(parent.polygon);
          const on = f.polygon.filter(q => Math.abs(dot3(sub3(q, plane.origin), plane.n)) < 1e-6);
          expect(on).toHaveLength(2);
        }
      }),
      { numRuns: 25 },
    );
  });
});
