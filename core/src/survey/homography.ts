import { Matrix, SingularValueDecomposition } from 'ml-matrix';
import { cross3, dot3, sub3, unit3, type Vec2, type Vec3 } from '../geometry';
import type { Camera, Turn } from './camera';

/** Three rows of three. */
export type Homography = readonly [Vec3, Vec3, Vec3];

/** A shift and scale that brings points about the origin, at the square root of two from it on average. */
function normalised(points: readonly Vec2[]): { readonly to: Matrix; readonly points: readonly Vec2[] } {
  const n = points.length;
  const [mx, my] = [0, 1].map(k => points.reduce((s, p) => s + (p[k] as number), 0) / n) as [number, number];
  const far = points.reduce((s, [x, y]) => s + Math.hypot(x - mx, y - my), 0) / n;
  const k = far > 0 ? Math.SQRT2 / far : 1;
  return {
    to: new Matrix([
      [k, 0, -k * mx],
      [0, k, -k * my],
      [0, 0, 1],
    ]),
    points: points.map(([x, y]): Vec2 => [k * (x - mx), k * (y - my)]),
  };
}

/**
 * The homography that takes places of a plane to pixels, from four pairs or more, by the normalised direct linear transformation.
 * Undefined where too many of them lie in one line. Source: Hartley and Zisserman, Multiple View Geometry, algorithm 4.2.
 */
export function homographyOf(plane: readonly Vec2[], px: readonly Vec2[]): Homography | undefined {
  if (plane.length < 4) return undefined;
  const [from, to] = [normalised(plane), normalised(px)];
  const rows = from.points.flatMap(([x, y], i) => {
    const [u, v] = to.points[i] as Vec2;
    return [
      [0, 0, 0, -x, -y, -1, v * x, v * y, v],
      [x, y, 1, 0, 0, 0, -u * x, -u * y, -u],
    ];
  });
  // four pairs make eight rows: a ninth of noughts leaves the last right vector whole
  const svd = new SingularValueDecomposition(
    new Matrix([...rows, ...(rows.length < 9 ? [Array(9).fill(0)] : [])]),
    {
      autoTranspose: false,
    },
  );
  const s = svd.diagonal;
  if ((s[7] as number) < 1e-7 * (s[0] as number)) return undefined;
  const h = svd.rightSingularVectors.getColumn(8);
  const inner = new Matrix([h.slice(0, 3), h.slice(3, 6), h.slice(6, 9)]);
  const whole = new SingularValueDecomposition(to.to).inverse().mmul(inner).mmul(from.to).to2DArray();
  return whole as unknown as Homography;
}

/**
 * The focal length that a homography asks for, px, with square pixels and the principal point at the origin of its pixels: its two first
 * columns are then images of directions that stand square to one another and are equally long. Undefined where the picture looks square at
 * the plane, which tells nothing of it. Source: Zhang's two constraints; Hartley and Zisserman, 8.8.
 */
export function focalOf(h: Homography): number | undefined {
  const [h1, h2] = [0, 1].map(k => h.map(row => row[k] as number)) as [number[], number[]];
  const [a1, b1, c1] = h1 as [number, number, number];
  const [a2, b2, c2] = h2 as [number, number, number];
  // (a1 a2 + b1 b2) / f² + c1 c2 = 0, and the same of the lengths: least squares for 1 / f²
  const lines = [
    [a1 * a2 + b1 * b2, -c1 * c2],
    [a1 * a1 + b1 * b1 - a2 * a2 - b2 * b2, c2 * c2 - c1 * c1],
  ] as const;
  const top = lines.reduce((s, [p, q]) => s + p * q, 0);
  const below = lines.reduce((s, [p]) => s + p * p, 0);
  const inverse = top / below;
  return inverse > 0 && Number.isFinite(inverse) ? 1 / Math.sqrt(inverse) : undefined;
}

/** A plane with places on it: an origin and two directions square to one another. */
export interface Plane {
  readonly origin: Vec3;
  readonly u: Vec3;
  readonly v: Vec3;
}

/** The plane nearest to some places, and how far they lie off it beside how far they spread on it. Undefined where they lie in one line. */
export function planeThrough(
  places: readonly Vec3[],
): { readonly plane: Plane; readonly flat: number } | undefined {
  const n = places.length;
  const origin = [0, 1, 2].map(k => places.reduce((s, p) => s + (p[k] as number), 0) / n) as unknown as Vec3;
  const svd = new SingularValueDecomposition(new Matrix(places.map(p => [...sub3(p, origin)])), {
    autoTranspose: true,
  });
  const [first = 0, second = 0, third = 0] = svd.diagonal;
  if (n < 3 || second < 0.02 * first) return undefined;
  const column = (k: number): Vec3 => svd.rightSingularVectors.getColumn(k) as unknown as Vec3;
  return { plane: { origin, u: column(0), v: column(1) }, flat: third / second };
}

/** Cameras that a homography of a plane may stand for, with a focal length; the plane lies before each. */
export function camerasOf(h: Homography, focalPx: number, { origin, u, v }: Plane): readonly Camera[] {
  const column = (k: number): Vec3 => [
    (h[0][k] as number) / focalPx,
    (h[1][k] as number) / focalPx,
    h[2][k] as number,
  ];
  const [c1, c2, c3] = [column(0), column(1), column(2)];
  const scale = 2 / (Math.hypot(...c1) + Math.hypot(...c2));
  return [scale, -scale].flatMap((s): Camera[] => {
    const t = c3.map(x => x * s) as unknown as Vec3;
    if (t[2] <= 0) return [];
    // nearest turn: the two columns made square to one another evenly
    const [p, q] = [
      unit3(c1.map(x => x * s) as unknown as Vec3),
      unit3(c2.map(x => x * s) as unknown as Vec3),
    ];
    const n = unit3(cross3(p, q));
    const sum = unit3(p.map((x, i) => x + (q[i] as number)) as unknown as Vec3);
    const aside = cross3(sum, n);
    const r1 = sum.map((x, i) => (x + (aside[i] as number)) * Math.SQRT1_2) as unknown as Vec3;
    const r2 = cross3(n, r1);
    // columns r1, r2, n are the plane's u, v and u x v as the camera has them
    const w = cross3(u, v);
    const turn = [0, 1, 2].map(i =>
      [0, 1, 2].map(
        k =>
          (r1[i] as number) * (u[k] as number) +
          (r2[i] as number) * (v[k] as number) +
          (n[i] as number) * (w[k] as number),
      ),
    ) as unknown as Turn;
    const at = [0, 1, 2].map(
      k =>
        (origin[k] as number) - dot3([turn[0][k] as number, turn[1][k] as number, turn[2][k] as number], t),
    ) as unknown as Vec3;
    return [{ at, turn, focalPx, k1: 0 }];
  });
}
