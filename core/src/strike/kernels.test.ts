import fc from 'fast-check';
import { describe, expect, it, onTestFinished, vi } from 'vitest';
import { type Balance, balanceOf } from './balance';
import { factorize } from './factor';
import { factorizeOnce } from './factor-kernel';
import { factorizePlain } from './factor-plain';
import { giveBack, Kernel, takeKernel, useKernels } from './kernels';
import { incidenceOf, type ShellModel, stiffnessOf } from './model';
import type { ShellMesh } from './shell-mesh';
import { type Factor, type FreeMotion, nodesAsVertices, type Plan, planElimination } from './sparse';

/** Squares of 20 mm, n × m, bent along their middle by `fold` and shaken by `shake` mm, so that no two triangles are alike. */
function sheet(n: number, m: number, fold: number, shake: number): ShellMesh {
  const id = (i: number, j: number): number => j * (n + 1) + i;
  const coordinates: number[] = [];
  const triangles: number[] = [];
  const off = (k: number): number => shake * Math.sin(12.9898 * k + 4.1);
  for (let j = 0; j <= m; j++)
    for (let i = 0; i <= n; i++) {
      const past = Math.max(0, i - n / 2) * 20;
      const k = 3 * id(i, j);
      coordinates.push(
        Math.min(i, n / 2) * 20 + past * Math.cos(fold) + off(k),
        20 * j + off(k + 1),
        past * Math.sin(fold) + off(k + 2),
      );
    }
  for (let j = 0; j < m; j++)
    for (let i = 0; i < n; i++) {
      const [a, b, c, d] = [id(i, j), id(i + 1, j), id(i + 1, j + 1), id(i, j + 1)];
      triangles.push(a, b, c, a, c, d);
    }
  return {
    coordinates: Float64Array.from(coordinates),
    triangles: Int32Array.from(triangles),
    flatOf: Int32Array.from({ length: triangles.length / 3 }, (_, e) => e),
  };
}

/** A sheet held at its first row of nodes, with a spring and a contact, loaded at its last node. */
function held(mesh: ShellMesh, n: number, limit = 250): ShellModel {
  const count = mesh.coordinates.length / 3;
  const fixed = new Uint8Array(6 * count);
  for (let i = 0; i <= n; i++) fixed.fill(1, 6 * i, 6 * i + 6);
  const load = new Float64Array(6 * count);
  load[6 * (count - 1) + 2] = 800;
  return {
    mesh,
    thickness: 3,
    elastic: { E: 200_000, nu: 0.3 },
    yield: limit,
    held: fixed,
    extra: [
      { nodes: [count - 2], k: Float64Array.from({ length: 36 }, (_, i) => (i % 7 === 0 ? 50 + i : 0)) },
    ],
    contacts: [{ node: count - 3, gap: 0.5, stiffness: 4000 }],
    load,
  };
}

const kernel = (): Kernel => {
  const k = takeKernel();
  if (!k) throw new Error('no kernels here');
  return k;
};
const planOf = (model: ShellModel): Plan =>
  planElimination(nodesAsVertices(model.mesh.coordinates), incidenceOf(model), model.held);
const both = (model: ShellModel): readonly [Factor | FreeMotion, Factor | FreeMotion] => {
  const plan = planOf(model);
  const k = kernel();
  try {
    return [factorizePlain(plan, stiffnessOf(model)), factorizeOnce(k, plan, stiffnessOf(model))];
  } finally {
    giveBack(k);
  }
};
/** Largest difference, as a share of the largest number. */
const apart = (a: ArrayLike<number>, b: ArrayLike<number>): number => {
  let [off, most] = [0, 0];
  for (let i = 0; i < a.length; i++) {
    off = Math.max(off, Math.abs((a[i] as number) - (b[i] as number)));
    most = Math.max(most, Math.abs(a[i] as number));
  }
  return most === 0 ? off : off / most;
};
/** Where the structure is taken, step by step: the same for both. */
const moves = (model: ShellModel, size: number, round: number): Float64Array =>
  Float64Array.from({ length: model.load.length }, (_, i) =>
    model.held[i] ? 0 : size * (i % 6 < 3 ? 1 : 0.05) * Math.sin(1.7 * i + 5 * round),
  );
const plainBalance = (model: ShellModel): Balance => {
  useKernels(false);
  onTestFinished(() => useKernels(true));
  const b = balanceOf(model, { plastic: true, hardening: 800 });
  useKernels(true);
  return b;
};

const small = fc.record({
  n: fc.integer({ min: 1, max: 9 }),
  m: fc.integer({ min: 1, max: 9 }),
  fold: fc.double({ min: -1.4, max: 1.4, noNaN: true }),
  shake: fc.double({ min: 0, max: 2, noNaN: true }),
});

describe('the kernels', () => {
  it('are used here', () => {
    expect(takeKernel()).toBeDefined();
  });
  it('take a stiffness apart as the plain version does: solutions, work and the count of pivots below nought', () => {
    fc.assert(
      fc.property(small, ({ n, m, fold, shake }) => {
        const [plain, fast] = both(held(sheet(2 * n, m, fold, shake), 2 * n)) as [Factor, Factor];
        const load = Float64Array.from(
          { length: planOf(held(sheet(2 * n, m, fold, shake), 2 * n)).unknowns },
          (_, i) => Math.cos(i),
        );
        const [x, y] = [load.slice(), load.slice()];
        plain.solve(x);
        fast.solve(y);
        expect(apart(x, y)).toBeLessThan(1e-6);
        expect(fast.work(load.slice()) / plain.work(load.slice())).toBeCloseTo(1, 6);
        expect(fast.negative).toBe(plain.negative);
      }),
      { numRuns: 40 },
    );
  });
  it('do so where a front outgrows the cache: 30 × 44 squares', () => {
    const model = held(sheet(30, 44, 0.3, 1), 30);
    expect(planOf(model).front).toBeGreaterThan(200);
    const [plain, fast] = both(model) as [Factor, Factor];
    const x = Float64Array.from({ length: planOf(model).unknowns }, (_, i) => Math.sin(i));
    const y = x.slice();
    plain.solve(x);
    fast.solve(y);
    expect(apart(x, y)).toBeLessThan(1e-6);
  });
  it('find the same freedom without stiffness', () => {
    const whole = held(sheet(4, 3, 0.2, 0), 4);
    const count = whole.mesh.coordinates.length / 3;
    // one node more, on which nothing bears but an element without stiffness
    const loose: ShellModel = {
      ...whole,
      mesh: { ...whole.mesh, coordinates: Float64Array.of(...whole.mesh.coordinates, 30, 300, 0) },
      held: Uint8Array.of(...whole.held, 1, 1, 0, 1, 1, 1),
      extra: [{ nodes: [count], k: new Float64Array(36) }],
      load: new Float64Array(6 * count + 6),
    };
    const [plain, fast] = both(loose);
    expect(plain).toEqual({ free: 6 * count + 2 });
    expect(fast).toEqual(plain);
  });
  it('find the same forces, layers and solutions on a way that yields, turns and goes back', () => {
    let stiff = 0;
    fc.assert(
      fc.property(small, fc.double({ min: 0.02, max: 3, noNaN: true }), ({ n, m, fold, shake }, size) => {
        const model = held(sheet(2 * n, m, fold, shake), 2 * n);
        const plain = plainBalance(model);
        const fast = balanceOf(model, { plastic: true, hardening: 800 });
        try {
          plain.imbalance(0);
          fast.imbalance(0);
          let kept: readonly [ReturnType<Balance['keep']>, ReturnType<Balance['keep']>] | undefined;
          for (let round = 0; round < 6; round++) {
            const du = moves(model, round === 3 ? -size : size, round);
            plain.move(du);
            fast.move(du);
            expect(apart([plain.imbalance(0.4)], [fast.imbalance(0.4)])).toBeLessThan(1e-8);
            expect(apart(plain.inner, fast.inner)).toBeLessThan(1e-8);
            expect(apart(plain.layers!.strain, fast.layers!.strain)).toBeLessThan(1e-8);
            expect(apart(plain.layers!.measure, fast.layers!.measure)).toBeLessThan(1e-8);
            const [a, b] = [plain.tangent(), fast.tangent()];
            // shaken so, some stand on the edge of having no stiffness: on which side rounding decides
            if ('free' in a || 'free' in b) break;
            stiff++;
            const x = Float64Array.from({ length: plain.plan.unknowns }, (_, i) => Math.cos(2 * i));
            const y = x.slice();
            a.solve(x);
            b.solve(y);
            expect(apart(x, y)).toBeLessThan(1e-4);
            expect(apart([a.work(x.slice())], [b.work(x.slice())])).toBeLessThan(1e-4);
            if (round === 1) {
              plain.settle();
              fast.settle();
              kept = [plain.keep(), fast.keep()];
            }
            if (round === 4 && kept) {
              plain.goBack(kept[0]);
              fast.goBack(kept[1]);
            }
          }
        } finally {
          fast.done();
        }
      }),
      { numRuns: Number(process.env.SOAK_STRIKES ?? 15) },
    );
    expect(stiff).toBeGreaterThan(30);
  });
  it('leave what they have no room for to the plain version', () => {
    const model = held(sheet(6, 4, 0.4, 1), 6);
    const plan = planOf(model);
    const load = Float64Array.from({ length: plan.unknowns }, (_, i) => Math.cos(i));
    const solved = (): Float64Array => {
      const f = factorize(plan, stiffnessOf(model));
      if ('free' in f) throw new Error('loose');
      const x = load.slice();
      f.solve(x);
      return x;
    };
    const fast = solved();
    const full = vi.spyOn(Kernel.prototype, 'take').mockImplementation(() => {
      throw new RangeError('no room');
    });
    const plain = solved();
    const without = balanceOf(model, { plastic: true });
    expect(full).toHaveBeenCalled();
    full.mockRestore();
    expect(apart(fast, plain)).toBeLessThan(1e-6);
    const by = balanceOf(model, { plastic: true });
    for (const b of [without, by]) {
      b.imbalance(0);
      b.move(moves(model, 1, 0));
      b.imbalance(1);
    }
    expect(apart(without.inner, by.inner)).toBeLessThan(1e-8);
    by.done();
  });
  it('go on beside one another: two structures at a time do not disturb each other', () => {
    const model = held(sheet(6, 4, 0.4, 1), 6);
    const [a, b] = [balanceOf(model, { plastic: true }), balanceOf(model, { plastic: true })];
    a.imbalance(0);
    a.move(moves(model, 1, 0));
    a.imbalance(1);
    const before = a.inner.slice();
    b.imbalance(0);
    b.move(moves(model, 2, 1));
    b.imbalance(1);
    b.tangent();
    expect(a.inner).toEqual(before);
    a.imbalance(1);
    expect(a.inner).toEqual(before);
    a.done();
    b.done();
  });
});
