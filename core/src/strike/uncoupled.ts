import { contactAtRest } from './contact';
import type { Incidence } from './dissect';
import { BENDING, MEMBRANE, triangleAxes } from './element';
import { type JointSpring, jointStiffness } from './joint-spring';
import { nodesOf, type ShellModel, triangleCount } from './model';
import { type Rest, restOf } from './rest';
import { cornersOf } from './shell-mesh';
import { DOF_PER_NODE, type Vertices } from './sparse';

/*
 * Within a flat, small moves in its plane and out of it have nothing to do with one another. Seen from the flat's own axes the
 * stiffness falls into two pieces that meet only where flats do, and each is a quarter of the work to take apart.
 */

/** Degrees of freedom of a node in its flat's plane, and out of it. */
const IN_PLANE = [0, 1, 5] as const;
const OUT = [2, 3, 4] as const;
const ALL = [0, 1, 2, 3, 4, 5] as const;

/** A structure of small deflections with in-plane and out-of-plane degrees of freedom apart wherever they are. */
export interface Uncoupled {
  readonly vertices: Vertices;
  readonly incidence: Incidence;
  readonly element: (e: number) => Float64Array;
  /** turns a vector over all degrees of freedom from fixed axes to those of the nodes' flats, in place, or back */
  readonly turn: (v: Float64Array, back: boolean) => void;
}

const FIXED = Float64Array.of(1, 0, 0, 0, 1, 0, 0, 0, 1);

/** Sine of the angle between two flats up to which they are one: what the rounding of corners alone makes of it. */
const ONE_PLANE = 1e-11;

function alike(a: Float64Array, b: Float64Array): boolean {
  if (a === b) return true;
  const [x, y, z, u, v, w] = [a[6], a[7], a[8], b[6], b[7], b[8]] as [
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  return Math.hypot(y * w - z * v, z * u - x * w, x * v - y * u) < ONE_PLANE;
}

/** Axes of every flat, the fixed ones where it is level. */
function flatAxes({ mesh }: ShellModel): readonly Float64Array[] {
  const out: Float64Array[] = [];
  const corners = new Float64Array(9);
  for (let e = 0; e < mesh.flatOf.length; e++) {
    const f = mesh.flatOf[e] as number;
    if (out[f]) continue;
    cornersOf(mesh, e, corners);
    const axes = new Float64Array(9);
    triangleAxes(corners, axes);
    out[f] = alike(axes, FIXED) ? FIXED : axes;
  }
  return out;
}

/** Axes of every node that lies in one plane and bears nothing but its triangles; undefined for the others. */
function nodeAxes(model: ShellModel): (Float64Array | undefined)[] {
  const { mesh } = model;
  const axes = flatAxes(model);
  const of = new Array<Float64Array | undefined>(mesh.coordinates.length / 3);
  const mixed = new Uint8Array(of.length);
  for (let e = 0; e < mesh.flatOf.length; e++) {
    const own = axes[mesh.flatOf[e] as number] as Float64Array;
    for (let i = 0; i < 3; i++) {
      const n = mesh.triangles[3 * e + i] as number;
      const known = of[n];
      if (known && !alike(known, own)) mixed[n] = 1;
      of[n] ??= own;
    }
  }
  for (const x of model.extra) for (const n of x.nodes) mixed[n] = 1;
  for (const c of model.contacts ?? []) if (of[c.node] !== FIXED) mixed[c.node] = 1;
  for (const s of model.springs ?? []) for (const n of s.nodes) if (of[n] !== FIXED) mixed[n] = 1;
  for (let n = 0; n < of.length; n++) {
    // held along some of the fixed axes: it has to be seen from them
    let held = 0;
    for (let i = 0; i < DOF_PER_NODE; i++) held += model.held[DOF_PER_NODE * n + i] as number;
    if (mixed[n] || (of[n] !== FIXED && held > 0 && held < DOF_PER_NODE)) of[n] = undefined;
  }
  return of;
}

export function uncoupled(model: ShellModel): Uncoupled {
  const { mesh, extra, springs = [], contacts = [] } = model;
  const m = triangleCount(mesh);
  const count = mesh.coordinates.length / 3;
  const axesOf = nodeAxes(model);
  const at: number[] = [];
  const from = [0];
  const of: number[] = [];
  /** the vertex of a node's in-plane degrees of freedom, and of the others; one and the same where they are coupled */
  const vertexOf = new Int32Array(2 * count);
  for (let n = 0; n < count; n++) {
    const put = (dofs: readonly number[]): number => {
      at.push(...mesh.coordinates.subarray(3 * n, 3 * n + 3));
      of.push(...dofs.map(i => DOF_PER_NODE * n + i));
      return from.push(of.length) - 2;
    };
    if (axesOf[n]) {
      vertexOf[2 * n] = put(IN_PLANE);
      vertexOf[2 * n + 1] = put(OUT);
    } else vertexOf[2 * n] = vertexOf[2 * n + 1] = put(ALL);
  }
  const starts = [0];
  const nodes: number[] = [];
  for (let e = 0; e < m; e++)
    for (const part of [0, 1]) {
      for (let i = 0; i < 3; i++)
        nodes.push(vertexOf[2 * (mesh.triangles[3 * e + i] as number) + part] as number);
      starts.push(nodes.length);
    }
  for (const x of [...extra, ...springs]) {
    for (const n of x.nodes) nodes.push(vertexOf[2 * n] as number);
    starts.push(nodes.length);
  }
  for (const c of contacts) {
    for (const n of nodesOf(c)) nodes.push(vertexOf[2 * n + 1] as number);
    starts.push(nodes.length);
  }
  const k = triangleStiffness(model, axesOf);
  return {
    vertices: { at: Float64Array.from(at), from: Int32Array.from(from), of: Int32Array.from(of) },
    incidence: { from: Int32Array.from(starts), nodes: Int32Array.from(nodes) },
    element: e => {
      if (e < 2 * m) return k(e);
      const x = extra[e - 2 * m];
      if (x) return x.k;
      const c = contacts[e - 2 * m - extra.length - springs.length];
      if (c)
        return chosen(
          contactAtRest(c),
          nodesOf(c).flatMap((n, i) => (axesOf[n] ? OUT : ALL).map(f => DOF_PER_NODE * i + f)),
          DOF_PER_NODE * nodesOf(c).length,
        );
      const s = springs[e - 2 * m - extra.length] as JointSpring;
      return chosen(
        jointStiffness(s, () => 0),
        s.nodes.flatMap((n, i) => (axesOf[n] ? IN_PLANE : ALL).map(f => DOF_PER_NODE * i + f)),
        DOF_PER_NODE * s.nodes.length,
      );
    },
    turn: (v, back) => {
      for (let n = 0; n < count; n++) {
        const a = axesOf[n];
        if (!a || a === FIXED) continue;
        for (let h = DOF_PER_NODE * n; h < DOF_PER_NODE * (n + 1); h += 3) {
          const [x, y, z] = [v[h] as number, v[h + 1] as number, v[h + 2] as number];
          for (let c = 0; c < 3; c++)
            v[h + c] = back
              ? (a[c] as number) * x + (a[3 + c] as number) * y + (a[6 + c] as number) * z
              : (a[3 * c] as number) * x + (a[3 * c + 1] as number) * y + (a[3 * c + 2] as number) * z;
        }
      }
    },
  };
}

/** Chosen rows and columns of an n × n matrix. */
function chosen(k: Float64Array, rows: readonly number[], n: number): Float64Array {
  const out = new Float64Array(rows.length ** 2);
  rows.forEach((r, i) => {
    rows.forEach((c, j) => {
      out[i * rows.length + j] = k[r * n + c] as number;
    });
  });
  return out;
}

/** Stiffness of part e % 2 (in the plane, out of it) of triangle e / 2 over the degrees of freedom of its corners' vertices. */
function triangleStiffness(
  model: ShellModel,
  axesOf: readonly (Float64Array | undefined)[],
): (e: number) => Float64Array {
  const { mesh } = model;
  const m = triangleCount(mesh);
  const axes = new Float64Array(9 * m);
  const own = new Float64Array(162 * m);
  const rest = restOf(model);
  for (let e = 0; e < m; e++) {
    const { k: whole, axes: t } = rest[e] as Rest;
    axes.set(t, 9 * e);
    for (let i = 0; i < 9; i++)
      for (let j = 0; j < 9; j++) {
        own[162 * e + 9 * i + j] = whole[18 * (MEMBRANE[i] as number) + (MEMBRANE[j] as number)] as number;
        own[162 * e + 81 + 9 * i + j] = whole[18 * (BENDING[i] as number) + (BENDING[j] as number)] as number;
      }
  }
  // from the degrees of freedom of a corner's vertex to its three moves in the triangle's axes, three by three or by six
  const T = [new Float64Array(18), new Float64Array(18), new Float64Array(18)] as const;
  const width = [0, 0, 0];
  const half = new Float64Array(9 * 18);
  const room = new Map<number, Float64Array>();
  const dot = (t: number, r: number, a: Float64Array, s: number): number =>
    (axes[t + 3 * r] as number) * (a[3 * s] as number) +
    (axes[t + 3 * r + 1] as number) * (a[3 * s + 1] as number) +
    (axes[t + 3 * r + 2] as number) * (a[3 * s + 2] as number);
  return part => {
    const e = part >> 1;
    const out = part & 1;
    const t = 9 * e;
    let n = 0;
    for (let i = 0; i < 3; i++) {
      const node = axesOf[mesh.triangles[3 * e + i] as number];
      const w = node ? 3 : 6;
      width[i] = w;
      n += w;
      const M = T[i] as Float64Array;
      M.fill(0);
      if (node) {
        // in the plane: u v θz; out of it: w θx θy
        const [lone, first] = out ? [0, 1] : [2, 0];
        M[3 * lone + lone] = dot(t, 2, node, 2);
        for (let r = 0; r < 2; r++)
          for (let s = 0; s < 2; s++) M[3 * (first + r) + first + s] = dot(t, r, node, s);
      } else
        for (let c = 0; c < 3; c++) {
          const [x, y, z] = [axes[t + c] as number, axes[t + 3 + c] as number, axes[t + 6 + c] as number];
          if (out) {
            M[c] = z;
            M[6 + 3 + c] = x;
            M[12 + 3 + c] = y;
          } else {
            M[c] = x;
            M[6 + c] = y;
            M[12 + 3 + c] = z;
          }
        }
    }
    const k = 162 * e + 81 * out;
    let col = 0;
    for (let j = 0; j < 3; j++) {
      const w = width[j] as number;
      const M = T[j] as Float64Array;
      for (let r = 0; r < 9; r++)
        for (let c = 0; c < w; c++)
          half[18 * r + col + c] =
            (own[k + 9 * r + 3 * j] as number) * (M[c] as number) +
            (own[k + 9 * r + 3 * j + 1] as number) * (M[w + c] as number) +
            (own[k + 9 * r + 3 * j + 2] as number) * (M[2 * w + c] as number);
      col += w;
    }
    let K = room.get(n);
    if (!K) {
      K = new Float64Array(n * n);
      room.set(n, K);
    }
    let row = 0;
    for (let i = 0; i < 3; i++) {
      const w = width[i] as number;
      const M = T[i] as Float64Array;
      for (let r = 0; r < w; r++)
        for (let c = 0; c < n; c++)
          K[(row + r) * n + c] =
            (M[r] as number) * (half[18 * 3 * i + c] as number) +
            (M[w + r] as number) * (half[18 * (3 * i + 1) + c] as number) +
            (M[2 * w + r] as number) * (half[18 * (3 * i + 2) + c] as number);
      row += w;
    }
    return K;
  };
}
