import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Bent, moved, unbent } from './bent';
import { bentElement } from './corotate';
import type { ShellModel } from './model';
import { LAYERS, layerPoint, makeLayers, settle, staysElastic } from './plastic';
import { restOf } from './rest';

const steel = { E: 200_000, nu: 0.3 };
const triangle = (c: readonly number[]): ShellModel => ({
  mesh: { coordinates: Float64Array.from(c), triangles: Int32Array.of(0, 1, 2), flatOf: Int32Array.of(0) },
  thickness: 5,
  elastic: steel,
  yield: 250,
  held: new Uint8Array(18),
  extra: [],
  load: new Float64Array(18),
});
const shape = fc
  .record({
    x2: fc.double({ min: 10, max: 50, noNaN: true }),
    x3: fc.double({ min: -10, max: 40, noNaN: true }),
    y3: fc.double({ min: 10, max: 50, noNaN: true }),
    z3: fc.double({ min: -30, max: 30, noNaN: true }),
  })
  .map(({ x2, x3, y3, z3 }) => [0, 0, 0, x2, 0, 5, x3, y3, z3]);
const angle = fc.double({ min: -2.5, max: 2.5, noNaN: true });

/** Turns a structure as one rigid piece about an axis through the origin, and shifts it. */
function turned(model: ShellModel, [ax, ay, az]: readonly number[], shift: readonly number[]): Bent {
  const bent = unbent(model);
  const spin = new Float64Array(18);
  for (let n = 0; n < 3; n++) spin.set([ax!, ay!, az!], 6 * n + 3);
  moved(bent, spin, 1);
  const R = bent.turned.subarray(0, 9);
  for (let n = 0; n < 3; n++) {
    const p = [0, 1, 2].map(k => model.mesh.coordinates[3 * n + k]!);
    for (let r = 0; r < 3; r++)
      bent.at[3 * n + r] = R[3 * r]! * p[0]! + R[3 * r + 1]! * p[1]! + R[3 * r + 2]! * p[2]! + shift[r]!;
  }
  return bent;
}
const forceOf = (model: ShellModel, bent: Bent): Float64Array => {
  const out = new Float64Array(18);
  bentElement(model, restOf(model)[0]!, 0, bent, undefined, out, undefined);
  return out;
};

describe('a triangle on its way', () => {
  it('feels nothing of being turned and carried off as one piece, however far', () => {
    fc.assert(
      fc.property(shape, angle, angle, angle, (c, a, b, d) => {
        const model = triangle(c);
        const f = forceOf(model, turned(model, [a, b, d], [300, -80, 40]));
        // beside the force a hundredth of a millimeter of stretch would make
        for (const v of f) expect(Math.abs(v)).toBeLessThan(1e-3);
      }),
    );
  });
  it('pushes back alike wherever it was turned to: its forces turn with it', () => {
    fc.assert(
      fc.property(shape, angle, angle, (c, a, b) => {
        const model = triangle(c);
        const small = Float64Array.from({ length: 18 }, (_, i) => 0.004 * Math.sin(2 * i + 1));
        const still = unbent(model);
        moved(still, small, 1);
        const f0 = forceOf(model, still);
        const far = turned(model, [a, b, 0.4], [0, 0, 0]);
        const R = far.turned.slice(0, 9);
        const turn = (v: readonly number[]): number[] =>
          [0, 1, 2].map(r => R[3 * r]! * v[0]! + R[3 * r + 1]! * v[1]! + R[3 * r + 2]! * v[2]!);
        const smallTurned = new Float64Array(18);
        for (let i = 0; i < 6; i++) smallTurned.set(turn([...small.slice(3 * i, 3 * i + 3)]), 3 * i);
        moved(far, smallTurned, 1);
        const f1 = forceOf(model, far);
        const most = Math.max(...f0.map(Math.abs));
        for (let i = 0; i < 6; i++)
          turn([...f0.slice(3 * i, 3 * i + 3)]).forEach((v, k) =>
            expect(Math.abs(f1[3 * i + k]! - v)).toBeLessThan(2e-4 * most),
          );
      }),
    );
  });
  it('is in balance by itself: its forces and moments sum to nothing', () => {
    fc.assert(
      fc.property(shape, c => {
        const model = triangle(c);
        const bent = unbent(model);
        moved(
          bent,
          Float64Array.from({ length: 18 }, (_, i) => 0.02 * Math.cos(3 * i)),
          1,
        );
        const f = forceOf(model, bent);
        const most = Math.max(...f.map(Math.abs), 1);
        const [sum, moment] = [
          [0, 0, 0],
          [0, 0, 0],
        ];
        for (let n = 0; n < 3; n++) {
          const p = [0, 1, 2].map(k => bent.at[3 * n + k]!);
          const q = [0, 1, 2].map(k => f[6 * n + k]!);
          for (let k = 0; k < 3; k++) {
            sum[k]! += q[k]!;
            moment[k]! +=
              f[6 * n + 3 + k]! + p[(k + 1) % 3]! * q[(k + 2) % 3]! - p[(k + 2) % 3]! * q[(k + 1) % 3]!;
          }
        }
        for (const v of sum) expect(Math.abs(v)).toBeLessThan(1e-8 * most);
        for (const v of moment) expect(Math.abs(v)).toBeLessThan(1e-6 * most);
      }),
    );
  });
  it('has a tangent that predicts its force, bent and stretched as well as at rest', () => {
    fc.assert(
      fc.property(
        shape,
        fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 18, maxLength: 18 }),
        fc.constantFrom(0, 0.01),
        (c, by, far) => {
          const model = triangle(c);
          const rest = restOf(model)[0]!;
          const start = Float64Array.from(by, (v, i) => far * v * (i % 6 < 3 ? 2 : 1));
          const stands = (j: number, step: number): Float64Array => {
            const bent = unbent(model);
            moved(bent, start, 1);
            const more = new Float64Array(18);
            more[j] = step;
            moved(bent, more, 1);
            return forceOf(model, bent);
          };
          const bent = unbent(model);
          moved(bent, start, 1);
          const k = new Float64Array(324);
          bentElement(model, rest, 0, bent, undefined, new Float64Array(18), k);
          const h = 1e-5;
          const slope = Array.from({ length: 18 }, (_, j) => {
            const [p, m] = [stands(j, h), stands(j, -h)];
            return p.map((v, i) => (v - m[i]!) / (2 * h));
          });
          // forces in N beside moments in N·mm: each entry against its own pair
          for (let i = 0; i < 18; i++)
            for (let j = 0; j < 18; j++) {
              const pair = Math.sqrt(Math.abs(k[19 * i]! * k[19 * j]!));
              // what is not symmetric vanishes where the corners are in balance
              const fd = (slope[j]![i]! + slope[i]![j]!) / 2;
              expect(Math.abs(fd - k[18 * i + j]!)).toBeLessThan((far ? 0.03 : 1e-5) * pair);
            }
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('a yielding sheet', () => {
  const layers = () => makeLayers(steel, 250, 0, 1, 1);
  const at = (strain: readonly number[], l = layers(), wantModuli = false) => {
    const sums = new Float64Array(6);
    const moduli = new Float64Array(27);
    layerPoint(l, 0, Float64Array.from(strain), 5, sums, wantModuli ? moduli : undefined);
    return { sums, moduli, l };
  };
  it('is elastic below its yield, and full yield is yield times thickness', () => {
    const e = 0.5 * (250 / steel.E);
    // free to draw in across: uniaxial stress
    const elastic = at([e, -0.3 * e, 0, 0, 0, 0]);
    expect(elastic.sums[0]).toBeCloseTo(0.5 * 250 * 5, 6);
    expect(elastic.sums[1]).toBeCloseTo(0, 6);
    expect(staysElastic(layers(), Float64Array.of(e, -0.3 * e, 0, 0, 0, 0), 5)).toBe(true);
    // far beyond, across free: plastic flow draws in by half
    const far = 0.02;
    const drawn = at([far, -0.3 * (250 / steel.E) - 0.5 * (far - 250 / steel.E), 0, 0, 0, 0]);
    expect(drawn.sums[0]! / (250 * 5)).toBeCloseTo(1, 2);
  });
  it('bends to 3/2 of its first yield moment', () => {
    // plane strain across is kept off by shear-free uniaxial bending of both ways alike: biaxial, where von Mises is the stress itself
    const curvature = 0.05;
    const { sums } = at([0, 0, 0, curvature, curvature, 0]);
    const full = (250 * 5 ** 2) / 4;
    expect(sums[3]! / full).toBeCloseTo(1, 2);
    // Kirchhoff's first yield is two thirds of it
    const first = (250 * (1 - 0.3)) / steel.E / 2.5;
    expect(at([0, 0, 0, first, first, 0]).sums[3]! / full).toBeCloseTo(2 / 3, 6);
  });
  it('comes back elastically and keeps what has flowed', () => {
    const l = layers();
    at([0.004, -0.0015, 0, 0, 0, 0], l);
    settle(l);
    expect(l.touched[0]).toBe(1);
    const kept = l.strain0[0]!;
    expect(kept).toBeGreaterThan(0.002);
    const back = at([kept, l.strain0[1]!, l.strain0[2]!, 0, 0, 0], l);
    for (const v of back.sums) expect(Math.abs(v)).toBeLessThan(1e-6);
    expect(l.strain[0]).toBe(kept);
  });
  it('has consistent moduli: they are the slope of its resultants, elastic or not', () => {
    const s = fc.double({ min: -0.004, max: 0.004, noNaN: true });
    const k = fc.double({ min: -0.002, max: 0.002, noNaN: true });
    fc.assert(
      fc.property(fc.tuple(s, s, s, k, k, k), fc.constantFrom(0, 1500), (strain, hardening) => {
        const fresh = () => makeLayers(steel, 250, hardening, 1, 1);
        const { moduli } = at(strain, fresh(), true);
        const step = 1e-8;
        for (let c = 0; c < 6; c++) {
          const plus = strain.map((v, i) => v + (i === c ? step : 0));
          const minus = strain.map((v, i) => v - (i === c ? step : 0));
          const [p, m] = [at(plus, fresh()).sums, at(minus, fresh()).sums];
          for (let r = 0; r < 6; r++) {
            const block = r < 3 ? (c < 3 ? 0 : 9) : c < 3 ? 9 : 18;
            const want = moduli[block + 3 * (r % 3) + (c % 3)]!;
            const slope = (p[r]! - m[r]!) / (2 * step);
            // a layer just at its yield has two slopes
            expect(Math.abs(slope - want)).toBeLessThan(
              0.02 * steel.E * 5 * (r < 3 ? 1 : 2) * (c < 3 ? 1 : 2),
            );
          }
        }
      }),
      { numRuns: 60 },
    );
  });
  it('never stands beyond its yield on any layer', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -0.02, max: 0.02, noNaN: true }), { minLength: 3, maxLength: 3 }),
        e => {
          const l = layers();
          at([...e, 0, 0, 0], l);
          for (let k = 0; k < LAYERS; k++) {
            const [x, y, t] = [0, 1, 2].map(i => e[i]! - l.strain[3 * k + i]!) as [number, number, number];
            const d = steel.E / (1 - 0.09);
            const [sx, sy, st] = [d * (x + 0.3 * y), d * (y + 0.3 * x), (steel.E / 2.6) * t];
            expect(Math.sqrt(sx * sx - sx * sy + sy * sy + 3 * st * st)).toBeLessThan(250.01);
          }
        },
      ),
    );
  });
});
