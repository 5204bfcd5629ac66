import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Elastic } from './elastic';
import {
  addStiffness,
  bendingB,
  doubleArea,
  type Flat,
  inPlane,
  membraneB,
  POINTS,
  toGlobal,
  triangleAxes,
} from './element';
import { factorize } from './factor';
import { nodesAsVertices, planElimination } from './sparse';

const steel = { E: 200_000, nu: 0.3 };
const triangle = fc
  .record({
    x2: fc.double({ min: 5, max: 60, noNaN: true }),
    x3: fc.double({ min: -20, max: 60, noNaN: true }),
    y3: fc.double({ min: 6, max: 60, noNaN: true }),
  })
  .map(({ x2, x3, y3 }) => [0, 0, x2, 0, x3, y3]);
const thickness = fc.double({ min: 1, max: 12, noNaN: true });
const times = (k: Float64Array, u: readonly number[]): number[] =>
  Array.from({ length: 18 }, (_, i) => u.reduce((s, v, j) => s + k[18 * i + j]! * v, 0));

/** Stiffness of one element from its corners. */
function elementStiffness(c: Flat, t: number, elastic: Elastic, out: Float64Array): void {
  const [B, Bb, Bs] = [27, 27, 18].map(n => new Float64Array(n * POINTS)) as [
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  membraneB(c, elastic.nu, B);
  bendingB(c, t, elastic.nu, Bb, Bs);
  out.fill(0);
  addStiffness({ B, Bb, Bs }, doubleArea(c) / 2, t, elastic, out);
}

describe('the shell element', () => {
  it('bears no rigid motion, is symmetric, and resists every other motion', () => {
    fc.assert(
      fc.property(triangle, thickness, (c, t) => {
        const k = new Float64Array(324);
        elementStiffness(c, t, steel, k);
        const most = Math.max(...k.map(Math.abs));
        for (let i = 0; i < 18; i++)
          for (let j = 0; j < 18; j++)
            expect(Math.abs(k[18 * i + j]! - k[18 * j + i]!)).toBeLessThan(1e-9 * most);
        const corner = [0, 1, 2].map(i => [c[2 * i]!, c[2 * i + 1]!] as const);
        const rigid = [
          corner.flatMap(() => [1, 0, 0, 0, 0, 0]),
          corner.flatMap(() => [0, 1, 0, 0, 0, 0]),
          corner.flatMap(() => [0, 0, 1, 0, 0, 0]),
          corner.flatMap(([, y]) => [0, 0, y, 1, 0, 0]),
          corner.flatMap(([x]) => [0, 0, -x, 0, 1, 0]),
          corner.flatMap(([x, y]) => [-y, x, 0, 0, 0, 1]),
        ];
        for (const u of rigid)
          for (const f of times(k, u)) expect(Math.abs(f)).toBeLessThan(1e-9 * most * 60);
        // twelve motions are left, and each stores energy: eighteen less six pivots of the held element are above nought
        const held = new Uint8Array(18);
        held.set([1, 1, 1, 1, 1, 1], 0);
        const coordinates = Float64Array.from(corner.flatMap(([x, y]) => [x, y, 0]));
        const plan = planElimination(
          nodesAsVertices(coordinates),
          { from: Int32Array.of(0, 3), nodes: Int32Array.of(0, 1, 2) },
          held,
        );
        const factor = factorize(plan, () => k);
        expect('negative' in factor && factor.negative).toBe(0);
      }),
      { numRuns: 60 },
    );
  });

  it('passes the patch test: constant stretch, curvature and no shear, exactly at every point', () => {
    const number = fc.double({ min: -2, max: 2, noNaN: true });
    fc.assert(
      fc.property(
        triangle,
        thickness,
        fc.tuple(number, number, number, number, number, number),
        (c, t, [a, b, d, p, q, r]) => {
          const B = new Float64Array(27 * POINTS);
          membraneB(c, 0.3, B);
          const inside = [0, 1, 2].flatMap(i => {
            const [x, y] = [c[2 * i]!, c[2 * i + 1]!];
            return [a * x + d * y, d * x + b * y, 0];
          });
          const Bb = new Float64Array(27 * POINTS);
          const Bs = new Float64Array(18 * POINTS);
          bendingB(c, t, 0.3, Bb, Bs);
          const bent = [0, 1, 2].flatMap(i => {
            const [x, y] = [c[2 * i]!, c[2 * i + 1]!];
            return [(p * x * x + r * y * y) / 2 + q * x * y, q * x + r * y, -(p * x + q * y)];
          });
          for (let k = 0; k < POINTS; k++)
            for (let row = 0; row < 3; row++) {
              const sum = (M: Float64Array, u: number[]) =>
                u.reduce((s, v, j) => s + M[27 * k + 9 * row + j]! * v, 0);
              expect(sum(B, inside)).toBeCloseTo([a, b, 2 * d][row]!, 8);
              expect(sum(Bb, bent)).toBeCloseTo([-p, -r, -2 * q][row]!, 8);
              if (row < 2)
                expect(bent.reduce((s, v, j) => s + Bs[18 * k + 9 * row + j]! * v, 0)).toBeCloseTo(0, 8);
            }
        },
      ),
    );
  });

  it('does not care how the vehicle is turned: energy is the same in any axes', () => {
    fc.assert(
      fc.property(
        triangle,
        fc.double({ min: 0.1, max: 3, noNaN: true }),
        fc.double({ min: 0.1, max: 3, noNaN: true }),
        (c, a, b) => {
          const u = Array.from({ length: 18 }, (_, i) => Math.sin(3 * i + 1));
          const energy = (turn: (p: number[]) => number[]): number => {
            const space = [0, 1, 2].flatMap(i => turn([c[2 * i]!, c[2 * i + 1]!, 0]));
            const axes = new Float64Array(9);
            const flat = new Float64Array(6);
            triangleAxes(space, axes);
            inPlane(space, axes, flat);
            const k = new Float64Array(324);
            elementStiffness(flat, 4, steel, k);
            toGlobal(k, 18, axes);
            const v = [0, 1, 2, 3, 4, 5].flatMap(i => turn(u.slice(3 * i, 3 * i + 3)));
            return times(k, v).reduce((s, f, i) => s + f * v[i]!, 0);
          };
          const still = energy(p => p);
          const turned = energy(([x, y, z]) => {
            const [x1, y1] = [x! * Math.cos(a) - y! * Math.sin(a), x! * Math.sin(a) + y! * Math.cos(a)];
            return [x1, y1 * Math.cos(b) - z! * Math.sin(b), y1 * Math.sin(b) + z! * Math.cos(b)];
          });
          expect(turned / still).toBeCloseTo(1, 9);
        },
      ),
    );
  });

  // Felippa 2003: the optimal membrane bends a rectangle of two triangles in its plane exactly, whatever its sides
  it.each([1, 2, 5, 10, 0.2])('is exact in in-plane bending at a side ratio of %d', ratio => {
    const [a, b] = [ratio * 10, 10];
    const nodes = [
      [0, 0],
      [a, 0],
      [a, b],
      [0, b],
    ] as const;
    let energy = 0;
    for (const t of [
      [0, 1, 2],
      [0, 2, 3],
    ]) {
      const k = new Float64Array(324);
      elementStiffness(
        t.flatMap(i => [...nodes[i]!]),
        1,
        steel,
        k,
      );
      const u = t.flatMap(i => {
        const [x, y] = [nodes[i]![0] - a / 2, nodes[i]![1] - b / 2];
        return [-x * y, (x * x + 0.3 * y * y) / 2, 0, 0, 0, x];
      });
      energy += times(k, u).reduce((s, f, i) => s + f * u[i]!, 0);
    }
    expect(energy / ((steel.E * b ** 3 * a) / 12)).toBeCloseTo(1, 9);
  });
});

describe('the sparse solution', () => {
  it('agrees with plain elimination of the whole matrix', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 6 }), fc.integer({ min: 2, max: 6 }), (nx, ny) => {
        const id = (i: number, j: number): number => j * (nx + 1) + i;
        const coordinates: number[] = [];
        for (let j = 0; j <= ny; j++)
          for (let i = 0; i <= nx; i++) coordinates.push(11 * i + j, 9 * j, (i * j) % 3);
        const tri: number[] = [];
        for (let j = 0; j < ny; j++)
          for (let i = 0; i < nx; i++)
            tri.push(id(i, j), id(i + 1, j), id(i + 1, j + 1), id(i, j), id(i + 1, j + 1), id(i, j + 1));
        const from = Int32Array.from({ length: tri.length / 3 + 1 }, (_, i) => 3 * i);
        const held = new Uint8Array(2 * coordinates.length);
        for (let j = 0; j <= ny; j++) held.fill(1, 6 * id(0, j), 6 * id(0, j) + 6);
        const element = (e: number): Float64Array => {
          const space = [0, 1, 2].flatMap(i =>
            coordinates.slice(3 * tri[3 * e + i]!, 3 * tri[3 * e + i]! + 3),
          );
          const [axes, flat, k] = [new Float64Array(9), new Float64Array(6), new Float64Array(324)];
          triangleAxes(space, axes);
          inPlane(space, axes, flat);
          elementStiffness(flat, 4, steel, k);
          toGlobal(k, 18, axes);
          return k;
        };
        const plan = planElimination(
          nodesAsVertices(Float64Array.from(coordinates)),
          { from, nodes: Int32Array.from(tri) },
          held,
        );
        const n = plan.unknowns;
        const A = Array.from({ length: n }, () => new Float64Array(n + 1));
        for (let e = 0; e < tri.length / 3; e++) {
          const k = element(e);
          const u = Array.from(
            { length: 18 },
            (_, i) => plan.unknownOf[6 * tri[3 * e + Math.floor(i / 6)]! + (i % 6)]!,
          );
          for (let i = 0; i < 18; i++)
            for (let j = 0; j < 18; j++) if (u[i]! >= 0 && u[j]! >= 0) A[u[i]!]![u[j]!]! += k[18 * i + j]!;
        }
        const x = Float64Array.from({ length: n }, (_, i) => Math.cos(i));
        for (let i = 0; i < n; i++) A[i]![n] = x[i]!;
        for (let i = 0; i < n; i++)
          for (let r = i + 1; r < n; r++) {
            const f = A[r]![i]! / A[i]![i]!;
            for (let c = i; c <= n; c++) A[r]![c]! -= f * A[i]![c]!;
          }
        const plain = new Float64Array(n);
        for (let i = n - 1; i >= 0; i--) {
          let s = A[i]![n]!;
          for (let j = i + 1; j < n; j++) s -= A[i]![j]! * plain[j]!;
          plain[i] = s / A[i]![i]!;
        }
        const factor = factorize(plan, element);
        if (!('solve' in factor)) throw new Error('not held');
        factor.solve(x);
        const most = Math.max(...plain.map(Math.abs));
        for (let i = 0; i < n; i++) expect(Math.abs(x[i]! - plain[i]!)).toBeLessThan(1e-8 * most);
      }),
      { numRuns: 12 },
    );
  });
});
