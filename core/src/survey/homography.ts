import { Matrix, SingularValueDecomposition } from 'ml-matrix';
import { cross3, dot3, sub3, unit3, type Vec2, type Vec3 } from '../geometry';
import type { Camera, Turn } from './camera';

/** Three rows of three. */
export type Homography = readonly [Vec3, Vec3, Vec3];

/** A shift and scale that brings points about the origin, at the square root of two from it on average. */
function normalized(points: readonly Vec2[]): { readonly to: Matrix; readonly points: readonly Vec2[] } {
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
 * The homography that takes places of a plane to pixels, from four pairs or more, by the normalized direct linear transformation.
 * Undefined where too many of them lie in one line. Source: Hartley and Zisserman, Multiple View Geometry, algorithm 4.2.
 */
export function homographyOf(plane: readonly Vec2[], px: readonly Vec2[]): Homography | undefined {
  if (plane.length < 4) return undefined;
  const [from, to] = [normalized(plane), normalized(px)];
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

/**
 * A camera from six marks or more at places that do not lie in one plane, by the direct linear transformation of its whole matrix: its turn
 * is the nearest to what the matrix holds once a focal length is taken out. Undefined where the places are too nearly in one plane.
 * Source: Hartley and Zisserman, Multiple View Geometry, 7.1 and 6.2.
 */
export function cameraOf(places: readonly Vec3[], px: readonly Vec2[]): Camera | undefined {
  const n = places.length;
  if (n < 6) return undefined;
  const middle = [0, 1, 2].map(k => places.reduce((s, p) => s + (p[k] as number), 0) / n) as unknown as Vec3;
  const far = places.reduce((s, p) => s + Math.hypot(...sub3(p, middle)), 0) / n;
  const flat = normalized(px);
  const rows = places.flatMap((p, i) => {
    const q = [...sub3(p, middle).map(x => x / far), 1];
    const [u, v] = flat.points[i] as Vec2;
    return [
      [0, 0, 0, 0, ...q.map(x => -x), ...q.map(x => v * x)],
      [...q, 0, 0, 0, 0, ...q.map(x => -u * x)],
    ];
  });
  const svd = new SingularValueDecomposition(new Matrix(rows), { autoTranspose: false });
  const s = svd.diagonal;
  if ((s[10] as number) < 1e-6 * (s[0] as number)) return undefined;
  const h = svd.rightSingularVectors.getColumn(11);
  const inner = new Matrix([h.slice(0, 4), h.slice(4, 8), h.slice(8, 12)]);
  const p = new SingularValueDecomposition(flat.to).inverse().mmul(inner);
  const m = p.subMatrix(0, 2, 0, 2);
  const [a1, a2, a3] = [0, 1, 2].map(k => m.getRow(k)) as unknown as [Vec3, Vec3, Vec3];
  const scale = 1 / Math.hypot(...a3);
  const size = (a: Vec3): number => Math.hypot(...cross3(a, a3)) * scale * scale;
  const focalPx = (size(a1) + size(a2)) / 2;
  if (!(focalPx > 0) || !Number.isFinite(focalPx)) return undefined;
  // the places lie before the camera
  const sign = p.get(2, 3) > 0 ? scale : -scale;
  const rough = new Matrix([
    a1.map(x => (x * sign) / focalPx),
    a2.map(x => (x * sign) / focalPx),
    a3.map(x => x * sign),
  ]);
  const near = new SingularValueDecomposition(rough);
  const turn = near.leftSingularVectors.mmul(near.rightSingularVectors.transpose());
  const center = new SingularValueDecomposition(m).solve(Matrix.columnVector(p.getColumn(3))).to1DArray();
  return {
    at: middle.map((x, k) => x - far * (center[k] as number)) as unknown as Vec3,
    turn: turn.to2DArray() as unknown as Turn,
    focalPx,
    k1: 0,
  };
}

/** Tilts that a photo may be taken at, degrees. */
const TILTS = [0, 25, 45, 65] as const;

/**
 * Cameras that see places about as they were marked, as if from far away: from both sides of their plane and tilted every way, each turned
 * and set off as its marks want it; the nearest first. Where places stand out of their plane this begins better than a homography.
 */
export function camerasAbout(
  places: readonly Vec3[],
  px: readonly Vec2[],
  focalPx: number,
  { origin, u, v }: Plane,
): readonly Camera[] {
  const n = places.length;
  const w = cross3(u, v);
  const [mx, my] = [0, 1].map(k => px.reduce((s, p) => s + (p[k] as number), 0) / n) as [number, number];
  const from = places.map(p => sub3(p, origin));
  const all: { readonly camera: Camera; readonly off: number }[] = [];
  for (const side of [1, -1])
    for (const tilt of TILTS)
      for (let k = 0; k < (tilt === 0 ? 1 : 8); k++) {
        const [s, c] = [Math.sin((tilt * Math.PI) / 180), Math.cos((tilt * Math.PI) / 180)];
        const way = (k * Math.PI) / 4;
        const ahead = unit3(
          [0, 1, 2].map(
            i =>
              side * c * (w[i] as number) +
              s * (Math.cos(way) * (u[i] as number) + Math.sin(way) * (v[i] as number)),
          ) as unknown as Vec3,
        );
        const right = unit3(cross3(ahead, Math.abs(dot3(ahead, u)) < 0.9 ? u : v));
        const down = cross3(ahead, right);
        const flat = from.map((d): Vec2 => [dot3(right, d), dot3(down, d)]);
        // turned and enlarged onto the marks: one complex number, least squares
        const [re, im, size] = flat.reduce(
          ([p, q, r], [a, b], i) => {
            const [x, y] = [(px[i] as Vec2)[0] - mx, (px[i] as Vec2)[1] - my];
            return [p + a * x + b * y, q + a * y - b * x, r + a * a + b * b];
          },
          [0, 0, 0],
        ) as [number, number, number];
        const [co, si] = [re / size, im / size];
        const scale = Math.hypot(co, si);
        if (!(scale > 0)) continue;
        const off = flat.reduce((sum, [a, b], i) => {
          const [x, y] = [(px[i] as Vec2)[0] - mx, (px[i] as Vec2)[1] - my];
          return sum + (co * a - si * b - x) ** 2 + (si * a + co * b - y) ** 2;
        }, 0);
        const [cos, sin] = [co / scale, si / scale];
        const turn: Turn = [
          right.map((x, i) => cos * x - sin * (down[i] as number)) as unknown as Vec3,
          right.map((x, i) => sin * x + cos * (down[i] as number)) as unknown as Vec3,
          ahead,
        ];
        const far = focalPx / scale;
        const t: Vec3 = [(mx / focalPx) * far, (my / focalPx) * far, far];
        const at = [0, 1, 2].map(
          i =>
            (origin[i] as number) -
            turn.reduce((sum, row, j) => sum + (row[i] as number) * (t[j] as number), 0),
        ) as unknown as Vec3;
        all.push({ camera: { at, turn, focalPx, k1: 0 }, off });
      }
  return all.sort((a, b) => a.off - b.off).map(x => x.camera);
}
