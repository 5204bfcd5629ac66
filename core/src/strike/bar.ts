import { add3, cross3, length3, scale3, sub3, type Vec3 } from '../geometry';
import type { Elastic } from './elastic';
import { toGlobal } from './element';
import type { ExtraElement } from './model';

/** A rectangular bar under (or over) a sheet, tied to it along its axis. Lengths in mm. */
export interface Bar {
  /** across the sheet */
  readonly width: number;
  /** away from the sheet */
  readonly depth: number;
  /** wall of a tube; solid unless told */
  readonly wall?: number;
  /** from the sheet's middle to the bar */
  readonly side: Vec3;
  readonly elastic: Elastic;
}

/** Torsion constant of a solid rectangle (Roark), sides in mm. */
function rectangleTorsion(p: number, q: number): number {
  const [a, b] = [Math.max(p, q), Math.min(p, q)];
  return a * b ** 3 * (1 / 3 - 0.21 * (b / a) * (1 - b ** 4 / (12 * a ** 4)));
}

/** Area, second moments and torsion constant of a bar's section. */
export function sectionOf({ width: w, depth: d, wall }: Pick<Bar, 'width' | 'depth' | 'wall'>) {
  if (wall === undefined || 2 * wall >= Math.min(w, d))
    return {
      A: w * d,
      I: (w * d ** 3) / 12,
      Iside: (d * w ** 3) / 12,
      J: rectangleTorsion(w, d),
      shear: 5 / 6,
    };
  const [wi, di] = [w - 2 * wall, d - 2 * wall];
  const [wm, dm] = [w - wall, d - wall];
  return {
    A: w * d - wi * di,
    I: (w * d ** 3 - wi * di ** 3) / 12,
    Iside: (d * w ** 3 - di * wi ** 3) / 12,
    // thin closed section (Bredt)
    J: (2 * wall * wm ** 2 * dm ** 2) / (wm + dm),
    shear: 0.44,
  };
}

/** A straight piece of bar between two nodes of the sheet: a Timoshenko beam on rigid arms. */
export function barElement(
  nodes: readonly [number, number],
  a: Vec3,
  b: Vec3,
  bar: Bar,
  sheetThickness: number,
): ExtraElement {
  const d = sub3(b, a);
  const l = length3(d);
  const x = scale3(d, 1 / l);
  const s = scale3(bar.side, 1 / (length3(bar.side) || 1));
  const across = cross3(s, x);
  const y = scale3(across, 1 / (length3(across) || 1));
  const z = cross3(x, y);
  const { A, I, Iside, J, shear } = sectionOf(bar);
  const { E, nu } = bar.elastic;
  const G = E / (2 * (1 + nu));
  const k = new Float64Array(144);
  const put = (i: number, j: number, v: number): void => {
    k[12 * i + j] = (k[12 * i + j] as number) + v;
    if (i !== j) k[12 * j + i] = (k[12 * j + i] as number) + v;
  };
  const axial = (E * A) / l;
  const twist = (G * J) / l;
  for (const [p, v] of [
    [0, axial],
    [3, twist],
  ] as const) {
    put(p, p, v);
    put(p + 6, p + 6, v);
    put(p, p + 6, -v);
  }
  // w with θy (bending away from the sheet) and v with θz (in the sheet's plane)
  for (const [w, r, EI, sign] of [
    [2, 4, E * I, -1],
    [1, 5, E * Iside, 1],
  ] as const) {
    const phi = (12 * EI) / (G * A * shear * l * l);
    const c = EI / ((1 + phi) * l ** 3);
    put(w, w, 12 * c);
    put(w + 6, w + 6, 12 * c);
    put(w, w + 6, -12 * c);
    put(w, r, sign * 6 * l * c);
    put(w, r + 6, sign * 6 * l * c);
    put(w + 6, r, -sign * 6 * l * c);
    put(w + 6, r + 6, -sign * 6 * l * c);
    put(r, r, (4 + phi) * l * l * c);
    put(r + 6, r + 6, (4 + phi) * l * l * c);
    put(r, r + 6, (2 - phi) * l * l * c);
  }
  toGlobal(k, 12, Float64Array.from([...x, ...y, ...z]));
  const arm = scale3(s, sheetThickness / 2 + bar.depth / 2);
  return { nodes, k: onArms(k, arm) };
}

/** The stiffness seen at nodes that carry theirs on rigid arms: u at the arm's end is u + θ × arm. */
function onArms(k: Float64Array, [rx, ry, rz]: Vec3): Float64Array {
  // columns of −spin(arm)
  const spin = [
    [0, rz, -ry],
    [-rz, 0, rx],
    [ry, -rx, 0],
  ];
  const t = new Float64Array(144);
  for (let n = 0; n < 2; n++)
    for (let i = 0; i < 3; i++) {
      t[12 * (6 * n + i) + 6 * n + i] = 1;
      t[12 * (6 * n + 3 + i) + 6 * n + 3 + i] = 1;
      for (let j = 0; j < 3; j++) t[12 * (6 * n + i) + 6 * n + 3 + j] = (spin[i] as number[])[j] as number;
    }
  const half = new Float64Array(144);
  const out = new Float64Array(144);
  for (let i = 0; i < 12; i++)
    for (let j = 0; j < 12; j++) {
      let s = 0;
      for (let m = 0; m < 12; m++) s += (k[12 * i + m] as number) * (t[12 * m + j] as number);
      half[12 * i + j] = s;
    }
  for (let i = 0; i < 12; i++)
    for (let j = 0; j < 12; j++) {
      let s = 0;
      for (let m = 0; m < 12; m++) s += (t[12 * m + i] as number) * (half[12 * m + j] as number);
      out[12 * i + j] = s;
    }
  return out;
}

/** Pieces of bar between nodes in order along its axis. */
export const barElements = (
  nodes: readonly number[],
  place: (n: number) => Vec3,
  bar: Bar,
  sheetThickness: number,
): readonly ExtraElement[] =>
  nodes.slice(1).map((n, i) => {
    const from = nodes[i] as number;
    return barElement([from, n], place(from), place(n), bar, sheetThickness);
  });

/** Nodes of a mesh on the straight line between two points, in order. */
export function nodesOnLine(coordinates: Float64Array, a: Vec3, b: Vec3): readonly number[] {
  const d = sub3(b, a);
  const l2 = d[0] ** 2 + d[1] ** 2 + d[2] ** 2;
  const on: { n: number; t: number }[] = [];
  for (let n = 0; n < coordinates.length / 3; n++) {
    const p: Vec3 = [
      coordinates[3 * n] as number,
      coordinates[3 * n + 1] as number,
      coordinates[3 * n + 2] as number,
    ];
    const r = sub3(p, a);
    const t = (r[0] * d[0] + r[1] * d[1] + r[2] * d[2]) / l2;
    if (t < -1e-6 || t > 1 + 1e-6) continue;
    if (length3(sub3(p, add3(a, scale3(d, t)))) < 1e-2) on.push({ n, t });
  }
  return on.sort((p, q) => p.t - q.t).map(x => x.n);
}
