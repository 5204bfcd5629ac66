import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Vec3 } from '../geometry';
import { barElements, nodesOnLine, sectionOf } from './bar';
import { linearSolver } from './linear';
import { displacementAt, lineLoad, patchLoad, pointLoad, pressureLoad, triangleAt } from './load';
import type { ShellModel } from './model';
import { meshShell, type ShellMesh } from './shell-mesh';

const square = (size: number, z = 0): readonly Vec3[] => [
  [0, 0, z],
  [size, 0, z],
  [size, size, z],
  [0, size, z],
];
const plate = (holes: readonly (readonly Vec3[])[] = [], size = 200): ShellMesh => {
  const made = meshShell({
    flats: [{ name: 'floor', polygon: square(size), holes }],
    rings: [],
    points: [],
    lines: [],
    spacing: () => 20,
  });
  if ('fault' in made) throw new Error(made.fault);
  return made;
};
const sums = (load: Float64Array): number[] =>
  [0, 1, 2].map(k => load.reduce((s, v, i) => s + (i % 6 === k ? v : 0), 0));
const momentAbout = (mesh: ShellMesh, load: Float64Array): number[] => {
  const m = [0, 0];
  for (let n = 0; n < mesh.coordinates.length / 3; n++) {
    m[0]! += mesh.coordinates[3 * n]! * load[6 * n + 2]!;
    m[1]! += mesh.coordinates[3 * n + 1]! * load[6 * n + 2]!;
  }
  return m;
};

describe('flats that are joined', () => {
  it('share their nodes along common edges, also where one is shorter', () => {
    const made = meshShell({
      flats: [
        { name: 'floor', polygon: square(200), holes: [] },
        {
          name: 'wall',
          polygon: [
            [200, 40, 0],
            [200, 160, 0],
            [200, 160, 60],
            [200, 40, 60],
          ],
          holes: [],
        },
      ],
      rings: [],
      points: [],
      lines: [],
      spacing: () => 15,
    });
    if ('fault' in made) throw new Error(made.fault);
    const flats = new Map<number, Set<number>>();
    made.triangles.forEach((n, i) => {
      const set = flats.get(n) ?? new Set();
      set.add(made.flatOf[Math.floor(i / 3)]!);
      flats.set(n, set);
    });
    const common = [...flats].filter(([, s]) => s.size === 2).map(([n]) => n);
    expect(common.length).toBeGreaterThan(6);
    for (const n of common) {
      expect(made.coordinates[3 * n]).toBeCloseTo(200, 6);
      expect(made.coordinates[3 * n + 2]).toBeCloseTo(0, 6);
    }
    expect(common.map(n => made.coordinates[3 * n + 1]!).sort((a, b) => a - b)[0]).toBeCloseTo(40, 6);
  });
});

describe('loads', () => {
  it('sum to the force and stand where they are put, over a whole rectangle, its rim or a hole', () => {
    const mesh = plate([square(60).map(([x, y, z]): Vec3 => [x + 120, y + 120, z])]);
    fc.assert(
      fc.property(
        fc.double({ min: 30, max: 110, noNaN: true }),
        fc.double({ min: 30, max: 110, noNaN: true }),
        (x, y) => {
          const load = new Float64Array(2 * mesh.coordinates.length);
          const share = patchLoad(load, mesh, [x, y, 0], [40, 30], [3, -2, 500]);
          sums(load).forEach((v, k) => expect(v).toBeCloseTo([3, -2, 500][k]!, 8));
          expect(share).toBeLessThanOrEqual(1 + 1e-9);
          if (x < 100 || y < 105) {
            if (share > 1 - 1e-9) {
              const [mx, my] = momentAbout(mesh, load);
              expect(mx! / 500).toBeCloseTo(x, 6);
              expect(my! / 500).toBeCloseTo(y, 6);
            }
          }
        },
      ),
    );
    const off = new Float64Array(2 * mesh.coordinates.length);
    expect(patchLoad(off, mesh, [0, 100, 0], [40, 40], [0, 0, 1])).toBeCloseTo(0.5, 9);
  });
  it('of pressure, lines and points sum to what they say', () => {
    const mesh = plate();
    const load = new Float64Array(2 * mesh.coordinates.length);
    pressureLoad(load, mesh, 0.02, [0, 0, 1]);
    expect(sums(load)[2]).toBeCloseTo(0.02 * 200 * 200, 6);
    load.fill(0);
    lineLoad(load, mesh, [0, 0, 0], [200, 0, 0], [0, 0, 70]);
    expect(sums(load)[2]).toBeCloseTo(70, 9);
    expect(momentAbout(mesh, load)[0]! / 70).toBeCloseTo(100, 6);
    load.fill(0);
    pointLoad(load, mesh, [33, 71, 0], [0, 0, 9]);
    expect(momentAbout(mesh, load).map(v => v / 9)).toEqual([expect.closeTo(33, 6), expect.closeTo(71, 6)]);
    const { weights } = triangleAt(mesh, [33, 71, 0]);
    expect(weights.reduce((s, w) => s + w, 0)).toBeCloseTo(1, 9);
  });
});

describe('a bar', () => {
  // second moments by the textbook; torsion of a square 0.1406 a⁴ (Roark), of a thin tube by Bredt
  it('has the section of the textbook, solid or hollow', () => {
    expect(sectionOf({ width: 20, depth: 40 })).toMatchObject({
      A: 800,
      I: (20 * 40 ** 3) / 12,
      Iside: (40 * 20 ** 3) / 12,
    });
    expect(sectionOf({ width: 20, depth: 20 }).J / 20 ** 4).toBeCloseTo(0.1408, 3);
    const tube = sectionOf({ width: 40, depth: 60, wall: 3 });
    expect(tube.A).toBe(40 * 60 - 34 * 54);
    expect(tube.J).toBeCloseTo((2 * 3 * 37 ** 2 * 57 ** 2) / 94, 6);
    expect(sectionOf({ width: 20, depth: 30, wall: 15 }).A).toBe(600);
  });
  it('bends as a cantilever does: P L³ / 3 E I and its shear', () => {
    const nodes = 6;
    const coordinates = Float64Array.from({ length: 3 * nodes }, (_, i) =>
      i % 3 === 0 ? (Math.floor(i / 3) * 1000) / (nodes - 1) : 0,
    );
    const steel = { E: 200_000, nu: 0.3 };
    const place = (n: number): Vec3 => [coordinates[3 * n]!, 0, 0];
    const on = nodesOnLine(coordinates, [0, 0, 0], [1000, 0, 0]);
    expect(on).toEqual([0, 1, 2, 3, 4, 5]);
    // no sheet, and arms of no length: a bar of depth 50 on a sheet of −50 stands on its own axis
    const extra = barElements(on, place, { width: 25, depth: 50, side: [0, 0, -1], elastic: steel }, -50);
    const held = new Uint8Array(6 * nodes);
    held.fill(1, 0, 6);
    const load = new Float64Array(6 * nodes);
    load[6 * (nodes - 1) + 2] = 300;
    const model: ShellModel = {
      mesh: { coordinates, triangles: new Int32Array(0), flatOf: new Int32Array(0) },
      thickness: 1,
      elastic: steel,
      held,
      extra,
      load,
    };
    const solver = linearSolver(model);
    if ('mechanism' in solver) throw new Error('loose');
    const u = solver.solve(load);
    const I = (25 * 50 ** 3) / 12;
    const want = (300 * 1000 ** 3) / (3 * steel.E * I) + (300 * 1000 * 2.6) / ((5 / 6) * 25 * 50 * steel.E);
    expect(u[6 * (nodes - 1) + 2]! / want).toBeCloseTo(1, 9);
  });
});

describe('a plate that is not held', () => {
  it('is told by the node and the way it moves', () => {
    const mesh = plate();
    const count = mesh.coordinates.length / 3;
    const solver = linearSolver({
      mesh,
      thickness: 4,
      elastic: { E: 70_000, nu: 0.33 },
      held: new Uint8Array(6 * count),
      extra: [],
      load: new Float64Array(6 * count),
    });
    expect('mechanism' in solver && solver.freedom).toBeGreaterThanOrEqual(0);
  });
  it('deflects evenly where it is read between nodes', () => {
    const mesh = plate();
    const u = new Float64Array(2 * mesh.coordinates.length);
    for (let n = 0; n < mesh.coordinates.length / 3; n++)
      u[6 * n + 2] = 0.01 * mesh.coordinates[3 * n]! + 0.02 * mesh.coordinates[3 * n + 1]!;
    expect(displacementAt(mesh, u, [37, 111, 0])[2]).toBeCloseTo(0.37 + 2.22, 9);
  });
});
