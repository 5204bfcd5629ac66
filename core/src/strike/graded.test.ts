// Meshes of any piece that a plate has: graded, with openings, nodes that must be and sides that must be.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { add3, contains, cross3, length3, scale3, type Vec2 } from '../geometry';
import { type FlatMesh, leastAngles, meshFlat } from './mesh-flat';
import { insideOf } from './mesh-outline';
import { graded, type Spacing } from './spacing';

/** A closed line cut into links of the spacing along it. */
const cut = (p: readonly Vec2[], spacing: Spacing, closed = true): Vec2[] =>
  p.flatMap((a, i) => {
    const b = p[(i + 1) % p.length]!;
    if (!closed && i === p.length - 1) return [a];
    const n = Math.max(1, Math.round(Math.hypot(b[0] - a[0], b[1] - a[1]) / spacing(...a)));
    return Array.from(
      { length: n },
      (_, k): Vec2 => [a[0] + ((b[0] - a[0]) * k) / n, a[1] + ((b[1] - a[1]) * k) / n],
    );
  });
const rect = (x: number, y: number, w: number, h: number): Vec2[] => [
  [x, y],
  [x + w, y],
  [x + w, y + h],
  [x, y + h],
];
/** The areas of its triangles, mm²: negative where one is turned over. */
const areas = ({ nodes, triangles }: FlatMesh): readonly number[] =>
  triangles.map(t => {
    const [a, b, c] = t.map(i => nodes[i]!) as [Vec2, Vec2, Vec2];
    return ((b[0] - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (b[1] - a[1])) / 2;
  });
const near = (nodes: readonly Vec2[], [x, y]: Vec2): number =>
  nodes.findIndex(n => Math.hypot(n[0] - x, n[1] - y) < 1e-6);

/** A plate with an opening, a row of heads (nodes that must be) and a fold across it (sides that must be). */
const anyPiece = fc
  .record({
    w: fc.integer({ min: 240, max: 700 }),
    h: fc.integer({ min: 200, max: 500 }),
    hole: fc.integer({ min: 40, max: 90 }),
    fine: fc.integer({ min: 8, max: 14 }),
    coarse: fc.integer({ min: 16, max: 30 }),
    heads: fc.uniqueArray(fc.integer({ min: 1, max: 6 }), { minLength: 1, maxLength: 4 }),
  })
  .map(({ w, h, hole, fine, coarse, heads }) => {
    // fine round the opening, coarser with the way from it
    const spacing: Spacing = (x, y) =>
      Math.min(coarse, fine + 0.15 * Math.max(0, Math.hypot(x - w / 4, y - h / 2) - hole));
    const fold: Vec2[] = [
      [w * 0.7, 0],
      [w * 0.7, h],
    ];
    const points = heads.map((k): Vec2 => [w * 0.55, (k * h) / 7]);
    // the fold ends on the outline: its ends are nodes of it
    const outline = cut(
      [
        [0, 0],
        [w * 0.7, 0],
        [w, 0],
        [w, h],
        [w * 0.7, h],
        [0, h],
      ],
      spacing,
    );
    return {
      piece: {
        outline,
        holes: [cut(rect(w / 4 - hole / 2, h / 2 - hole / 2, hole, hole), spacing)],
        points,
        chains: [cut(fold, spacing, false)],
        spacing,
      },
      size: w * h - hole * hole,
      fine,
      coarse,
    };
  });

describe('a mesh of a plate', () => {
  const made = (piece: Parameters<typeof meshFlat>[0]): FlatMesh => {
    const mesh = meshFlat(piece);
    if ('fault' in mesh) throw new Error(`${mesh.fault} at ${mesh.at}`);
    return mesh;
  };
  it('covers it exactly, its opening left open, whatever its sizes', () => {
    fc.assert(
      fc.property(anyPiece, ({ piece, size }) => {
        const each = areas(made(piece));
        expect(Math.min(...each)).toBeGreaterThan(1e-6);
        expect(each.reduce((s, v) => s + v, 0)).toBeCloseTo(size, 4);
      }),
      { numRuns: 25 },
    );
  });
  it('has a node at every head, and every link of the fold as a side of triangles', () => {
    fc.assert(
      fc.property(anyPiece, ({ piece }) => {
        const { nodes, triangles } = made(piece);
        for (const p of piece.points) expect(near(nodes, p)).toBeGreaterThanOrEqual(0);
        const sides = new Set(
          triangles
            .flatMap(([a, b, c]) => [
              [a, b],
              [b, c],
              [c, a],
            ])
            .flatMap(([a, b]) => [`${a} ${b}`, `${b} ${a}`]),
        );
        const [chain] = piece.chains;
        chain!.slice(1).forEach((q, i) => {
          const [a, b] = [near(nodes, chain![i]!), near(nodes, q)];
          expect(sides.has(`${a} ${b}`), `${chain![i]} to ${q}`).toBe(true);
        });
      }),
      { numRuns: 25 },
    );
  });
  it('joins its triangles side to side: an inner side has two, an outer one', () => {
    fc.assert(
      fc.property(anyPiece, ({ piece }) => {
        const { triangles } = made(piece);
        const used = new Map<string, number>();
        for (const t of triangles)
          for (let k = 0; k < 3; k++) {
            const [a, b] = [t[k]!, t[(k + 1) % 3]!];
            const key = `${Math.min(a, b)} ${Math.max(a, b)}`;
            used.set(key, (used.get(key) ?? 0) + 1);
          }
        expect([...used.values()].filter(n => n > 2)).toEqual([]);
        const rim = [...used.values()].filter(n => n === 1).length;
        // outline and opening are the rim, link for link
        expect(rim).toBe(piece.outline.length + piece.holes[0]!.length);
      }),
      { numRuns: 25 },
    );
  });
  it('is fine where it was asked to be and coarse where it may, with few thin triangles', () => {
    fc.assert(
      fc.property(anyPiece, ({ piece, fine, coarse }) => {
        const mesh = made(piece);
        const longest = mesh.triangles.map(t => {
          const [a, b, c] = t.map(i => mesh.nodes[i]!) as [Vec2, Vec2, Vec2];
          const at: Vec2 = [(a[0] + b[0] + c[0]) / 3, (a[1] + b[1] + c[1]) / 3];
          const side = (p: Vec2, q: Vec2) => Math.hypot(p[0] - q[0], p[1] - q[1]);
          return Math.max(side(a, b), side(b, c), side(c, a)) / piece.spacing(...at);
        });
        const mean = longest.reduce((s, v) => s + v, 0) / longest.length;
        expect(mean).toBeGreaterThan(0.8);
        expect(mean).toBeLessThan(1.6);
        expect(fine).toBeLessThan(coarse);
        const angles = leastAngles(mesh);
        expect(angles.filter(a => a < 20).length / angles.length).toBeLessThanOrEqual(0.02);
      }),
      { numRuns: 25 },
    );
  });
  it('is the same every time', () => {
    fc.assert(
      fc.property(anyPiece, ({ piece }) => {
        expect(meshFlat(piece)).toEqual(meshFlat(piece));
      }),
      { numRuns: 5 },
    );
  });
});

describe('a spacing that fine places leave', () => {
  const unit = fc.double({ min: -1, max: 1, noNaN: true });
  const place = fc.tuple(unit, unit, unit).map(p => p.map(v => 300 * v) as [number, number, number]);
  const fine = fc.record({
    at: place,
    from: fc.double({ min: 0, max: 40, noNaN: true }),
    h: fc.double({ min: 1, max: 30, noNaN: true }),
    slowly: fc.option(fc.double({ min: 0, max: 60, noNaN: true }), { nil: undefined }),
  });
  it('is the same along the two axes of any flat as in space', () => {
    fc.assert(
      fc.property(
        fc.array(fine, { maxLength: 6 }),
        place,
        place,
        place,
        unit,
        unit,
        (all, origin, a, b, x, y) => {
          const n = cross3(a, b);
          fc.pre(length3(a) > 1 && length3(n) > 1);
          const u = scale3(a, 1 / length3(a));
          const v = scale3(cross3(n, a), 1 / (length3(n) * length3(a)));
          const spacing = graded(all, 25, 0.4, 0.2);
          const [s, t] = [400 * x, 400 * y];
          const there = add3(origin, add3(scale3(u, s), scale3(v, t)));
          expect(spacing.on?.({ origin, u, v })(s, t)).toBeCloseTo(spacing(there), 8);
        },
      ),
    );
  });
});

describe('what lies within rings', () => {
  it('is what a ray to the side crosses them an odd number of times from', () => {
    const point = fc.tuple(fc.integer({ min: 0, max: 40 }), fc.integer({ min: 0, max: 40 }));
    fc.assert(
      fc.property(
        fc.array(fc.array(point, { minLength: 3, maxLength: 12 }), { minLength: 1, maxLength: 3 }),
        fc.array(point, { minLength: 1, maxLength: 30 }),
        (rings, asked) => {
          const inside = insideOf(rings as Vec2[][]);
          for (const [x, y] of asked) {
            // between the corners' rows, where no ray runs through one
            const at: Vec2 = [x + 0.31, y + 0.5];
            const odd = rings.filter(r => contains(r as Vec2[], at)).length % 2 === 1;
            expect(inside(...at)).toBe(odd);
          }
        },
      ),
    );
  });
});
