import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Vec3 } from '../geometry';
import { type Contact, contactForce, contactStiffness } from './contact';
import { energyError } from './energy-error';
import { factorize } from './factor';
import { linearSolver, solved } from './linear';
import { patchLoad } from './load';
import { incidenceOf, type ShellModel, stiffnessOf } from './model';
import { solveLarge } from './newton';
import { meshShell, type ShellMesh } from './shell-mesh';
import { nodesAsVertices, planElimination } from './sparse';
import { elasticStress } from './stress';

const steel = { E: 200_000, nu: 0.3 };

/** A grid of n × m squares laid on a surface, each cut in two, the cuts turned in turn. */
function grid(n: number, m: number, at: (u: number, v: number) => Vec3): ShellMesh {
  const id = (i: number, j: number): number => j * (n + 1) + i;
  const coordinates: number[] = [];
  const triangles: number[] = [];
  for (let j = 0; j <= m; j++) for (let i = 0; i <= n; i++) coordinates.push(...at(i / n, j / m));
  for (let j = 0; j < m; j++)
    for (let i = 0; i < n; i++) {
      const [a, b, c, d] = [id(i, j), id(i + 1, j), id(i + 1, j + 1), id(i, j + 1)];
      if ((i + j) % 2) triangles.push(a, b, c, a, c, d);
      else triangles.push(a, b, d, b, c, d);
    }
  return {
    coordinates: Float64Array.from(coordinates),
    triangles: Int32Array.from(triangles),
    // every triangle of a curved surface is a flat of its own
    flatOf: Int32Array.from({ length: triangles.length / 3 }, (_, e) => e),
  };
}

describe('a solution with the plane and what is out of it apart', () => {
  it('is the one that takes all dofs together, flat, folded and tilted', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1.4, max: 1.4, noNaN: true }),
        fc.double({ min: -0.5, max: 0.5, noNaN: true }),
        fc.boolean(),
        (fold, tilt, sprung) => {
          const turn = ([x, y, z]: Vec3): Vec3 => [
            x,
            y * Math.cos(tilt) - z * Math.sin(tilt),
            y * Math.sin(tilt) + z * Math.cos(tilt),
          ];
          const up: Vec3 = [200 + 60 * Math.cos(fold), 0, 60 * Math.sin(fold)];
          const made = meshShell({
            flats: [
              {
                name: 'base',
                holes: [],
                polygon: (
                  [
                    [0, 0, 0],
                    [200, 0, 0],
                    [200, 120, 0],
                    [0, 120, 0],
                  ] as Vec3[]
                ).map(turn),
              },
              {
                name: 'edge',
                holes: [],
                polygon: ([[200, 0, 0], up, [up[0], 120, up[2]], [200, 120, 0]] as Vec3[]).map(turn),
              },
            ],
            rings: [],
            points: [],
            lines: [],
            spacing: () => 40,
          });
          if ('fault' in made) throw new Error(made.fault);
          const count = made.coordinates.length / 3;
          const held = new Uint8Array(6 * count);
          for (let n = 0; n < count; n++)
            if (made.coordinates[3 * n]! < 1e-6) held.fill(1, 6 * n, 6 * n + (n % 2 ? 6 : 3));
          const model: ShellModel = {
            mesh: made,
            thickness: 3,
            elastic: steel,
            held,
            extra: [],
            springs: sprung
              ? [{ id: 's', nodes: [count - 1, count - 2], friction: 900, play: 0.4, bearing: 1000 }]
              : [],
            contacts: sprung ? [{ node: count - 3, gap: 0, stiffness: 500 }] : [],
            load: Float64Array.from({ length: 6 * count }, (_, i) => Math.sin(i) * (i % 6 < 3 ? 1 : 9)),
          };
          const apart = linearSolver(model);
          if ('mechanism' in apart) throw new Error('loose');
          const u = apart.solve(model.load);
          const plan = planElimination(nodesAsVertices(made.coordinates), incidenceOf(model), held);
          const factor = factorize(plan, stiffnessOf(model));
          if ('free' in factor) throw new Error('loose');
          const want = solved(plan, factor, model.load);
          const most = Math.max(...want.map(Math.abs));
          for (let i = 0; i < u.length; i++) expect(Math.abs(u[i]! - want[i]!)).toBeLessThan(1e-7 * most);
          const work = u.reduce((s, v, i) => s + v * model.load[i]!, 0);
          expect(apart.work(model.load) / work).toBeCloseTo(1, 9);
        },
      ),
      { numRuns: 25 },
    );
  });
});

describe('the estimate of what the mesh is off by', () => {
  it('is of the order of the truth for a clamped plate, and falls with the square of the mesh', () => {
    // on a mesh as even as this, held at its edges, it is low: a third of the truth; on the demo plates it is high
    const at = (n: number) => {
      const mesh = { ...grid(n, n, (u, v) => [400 * u, 400 * v, 0]), flatOf: new Int32Array(2 * n * n) };
      const count = mesh.coordinates.length / 3;
      const held = new Uint8Array(6 * count);
      for (let i = 0; i < count; i++) {
        const [x, y] = [mesh.coordinates[3 * i]!, mesh.coordinates[3 * i + 1]!];
        if (Math.min(x, y) < 1e-6 || Math.max(x, y) > 400 - 1e-6) held.fill(1, 6 * i, 6 * i + 6);
      }
      const load = new Float64Array(6 * count);
      patchLoad(load, mesh, [200, 200, 0], [100, 100], [0, 0, 1000]);
      const model: ShellModel = { mesh, thickness: 4, elastic: steel, held, extra: [], load };
      const s = linearSolver(model);
      if ('mechanism' in s) throw new Error('loose');
      const u = s.solve(load);
      const work = s.work(load);
      return { work, error: energyError(model, elasticStress(model, u), work) };
    };
    const [coarse, middle, fine] = [at(8), at(16), at(48)];
    const truth = (m: { work: number }): number => Math.abs(m.work / fine.work - 1);
    for (const m of [coarse, middle]) {
      expect(m.error / truth(m)).toBeGreaterThan(0.25);
      expect(m.error / truth(m)).toBeLessThan(4);
    }
    expect(Math.log2(coarse.error / middle.error)).toBeGreaterThan(1.3);
  });
});

describe('a shallow roof', () => {
  /*
   * The hinged cylindrical roof of the handbooks of nonlinear shells (Sabir and Lock 1972; Sze, Liu and Lo 2004): radius 2540, half
   * angle 0.1, length 508, thickness 12.7 mm, E 3102.75 MPa, ν 0.3, a force in its middle. It bears 2.22 kN near 11 mm, then less down
   * to some 0.4 kN near 17 mm, then more again. Figures from memory of the published curves, read to 3 %.
   */
  const [R, half, length] = [2540, 0.1, 508];
  const roof = (n: number, force: number): ShellModel => {
    const mesh = grid(n, n, (u, v) => {
      const a = half * (2 * v - 1);
      return [length * u, R * Math.sin(a), R * (1 - Math.cos(a))];
    });
    const count = mesh.coordinates.length / 3;
    const held = new Uint8Array(6 * count);
    for (let i = 0; i <= n; i++)
      for (const node of [i, n * (n + 1) + i]) held.fill(1, 6 * node, 6 * node + 3);
    const load = new Float64Array(6 * count);
    // hung the other way up: pushed towards its ends' plane
    load[6 * ((n / 2) * (n + 1) + n / 2) + 2] = force;
    return {
      mesh,
      thickness: 12.7,
      elastic: { E: 3102.75, nu: 0.3 },
      held,
      extra: [],
      load,
    };
  };
  it('gives way at its published load and is followed to where it bears again', () => {
    const made = solveLarge(roof(12, 3000), { plastic: false, tolerance: 1e-4, longest: 2 });
    if ('mechanism' in made) throw new Error('loose');
    expect(made.reached).toBe(1);
    expect((made.gaveWayAt! * 3000) / 2220).toBeGreaterThan(0.97);
    expect((made.gaveWayAt! * 3000) / 2220).toBeLessThan(1.03);
    const middle = 6 * (6 * 13 + 6) + 2;
    // beyond the snap: 3 kN at about 29.5 mm
    expect(made.u[middle]!).toBeGreaterThan(28);
    expect(made.u[middle]!).toBeLessThan(31);
  }, 60_000);
  it('is given up where it was told to be: beyond 15 mm', () => {
    const made = solveLarge(roof(8, 3000), { plastic: false, tolerance: 1e-3, most: 15 });
    if ('mechanism' in made) throw new Error('loose');
    expect(made.reached).toBeLessThan(1);
    expect(made.gaveWayAt).toBeGreaterThan(made.reached);
  }, 60_000);
});

describe('a contact', () => {
  const rise = (a: number, b: number) => (n: number) => (n === 0 ? a : b);
  const c: Contact = { node: 0, other: 1, gap: 2, stiffness: 3000 };
  it('does nothing before its gap is closed, then pushes, never pulls, and as hard on either side', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -5, max: 8, noNaN: true }),
        fc.double({ min: -2, max: 2, noNaN: true }),
        (a, b) => {
          const out = new Float64Array(12);
          contactForce(c, rise(a, b), out);
          expect(out[2]).toBeGreaterThanOrEqual(0);
          expect(out[8]).toBeCloseTo(-out[2]!, 9);
          const past = a - b - 2;
          if (past < -0.5) expect(out[2]).toBeLessThan(2);
          if (past > 0.5) expect(out[2]! / (3000 * past)).toBeCloseTo(1, 2);
          const k = contactStiffness(c, rise(a, b));
          const on = new Float64Array(12);
          contactForce(c, rise(a + 1e-6, b), on);
          expect(Math.abs((on[2]! - out[2]!) / 1e-6 - k[2 * 12 + 2]!)).toBeLessThan(1);
        },
      ),
    );
  });
});
