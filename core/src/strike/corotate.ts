import {
  addBDB,
  addShear,
  BENDING,
  bendingB,
  doubleArea,
  inPlane,
  MEMBRANE,
  membraneB,
  POINTS,
  planeStress,
  shearStiffness,
  toGlobal,
  triangleAxes,
} from './element';
import { cornersOf, type ShellModel } from './model';
import { LAYERS, type Layers, layerPoint, staysElastic } from './plastic';
import { FREEDOMS } from './sparse';

/*
 * Large displacements by the element-independent co-rotational way (Nour-Omid and Rankin 1991; Felippa and Haugen 2005): every
 * triangle is seen from axes that move with it, where its moves stay small and the element of small deflections serves; forces
 * and stiffness are turned back to the fixed axes with what the turning itself adds.
 */

/** A structure on its way: where its nodes are, and how each has turned (matrices row by row). */
export interface Bent {
  readonly at: Float64Array;
  readonly turned: Float64Array;
}

export function unbent(model: ShellModel): Bent {
  const n = model.mesh.coordinates.length / 3;
  const turned = new Float64Array(9 * n);
  for (let i = 0; i < n; i++) turned[9 * i] = turned[9 * i + 4] = turned[9 * i + 8] = 1;
  return { at: model.mesh.coordinates.slice(), turned };
}

export const copied = (b: Bent): Bent => ({ at: b.at.slice(), turned: b.turned.slice() });

/** Moves a structure by small increments, node · 6 + freedom: places are added, rotations laid over what was turned before. */
export function moved(bent: Bent, du: Float64Array, share: number): void {
  const { at, turned } = bent;
  const R = new Float64Array(9);
  for (let n = 0; n < at.length / 3; n++) {
    for (let k = 0; k < 3; k++)
      at[3 * n + k] = (at[3 * n + k] as number) + share * (du[FREEDOMS * n + k] as number);
    const x = share * (du[FREEDOMS * n + 3] as number);
    const y = share * (du[FREEDOMS * n + 4] as number);
    const z = share * (du[FREEDOMS * n + 5] as number);
    if (x === 0 && y === 0 && z === 0) continue;
    rotation(x, y, z, R);
    for (let c = 0; c < 3; c++) {
      const a = turned[9 * n + c] as number;
      const b = turned[9 * n + 3 + c] as number;
      const d = turned[9 * n + 6 + c] as number;
      for (let r = 0; r < 3; r++)
        turned[9 * n + 3 * r + c] =
          (R[3 * r] as number) * a + (R[3 * r + 1] as number) * b + (R[3 * r + 2] as number) * d;
    }
  }
}

/** Matrix of a rotation vector (Rodrigues). */
function rotation(x: number, y: number, z: number, R: Float64Array): void {
  const t2 = x * x + y * y + z * z;
  const t = Math.sqrt(t2);
  const s = t < 1e-8 ? 1 : Math.sin(t) / t;
  const c = t < 1e-8 ? 0.5 : (1 - Math.cos(t)) / t2;
  R[0] = 1 - c * (y * y + z * z);
  R[1] = c * x * y - s * z;
  R[2] = c * x * z + s * y;
  R[3] = c * x * y + s * z;
  R[4] = 1 - c * (x * x + z * z);
  R[5] = c * y * z - s * x;
  R[6] = c * x * z - s * y;
  R[7] = c * y * z + s * x;
  R[8] = 1 - c * (x * x + y * y);
}

const corner0 = new Float64Array(9);
const corner = new Float64Array(9);
const axes0 = new Float64Array(9);
const flat0 = new Float64Array(6);
const flat = new Float64Array(6);
const spun = new Float64Array(9);

/** What does not change about a triangle while it moves. */
interface Rest {
  readonly B: Float64Array;
  readonly Bb: Float64Array;
  readonly Bs: Float64Array;
  readonly axes: Float64Array;
  readonly flat: Float64Array;
  readonly area: number;
  /** elastic stiffness in its own axes */
  readonly k: Float64Array;
}

/** Prepares every triangle of a structure. */
export function restOf(model: ShellModel): readonly Rest[] {
  const { mesh, elastic, thickness } = model;
  const D = planeStress(elastic);
  const shear = shearStiffness(elastic, thickness);
  return Array.from({ length: mesh.flatOf.length }, (_, e): Rest => {
    cornersOf(mesh, e, corner0);
    triangleAxes(corner0, axes0);
    inPlane(corner0, axes0, flat0);
    const B = new Float64Array(27 * POINTS);
    const Bb = new Float64Array(27 * POINTS);
    const Bs = new Float64Array(18 * POINTS);
    membraneB(flat0, elastic.nu, B);
    bendingB(flat0, thickness, elastic.nu, Bb, Bs);
    const area = doubleArea(flat0) / 2;
    const k = new Float64Array(324);
    const w = area / POINTS;
    for (let p = 0; p < POINTS; p++) {
      addBDB(k, B, 27 * p, D, w * thickness, MEMBRANE);
      addBDB(k, Bb, 27 * p, D, (w * thickness ** 3) / 12, BENDING);
      addShear(k, Bs, 18 * p, w * shear);
    }
    return { B, Bb, Bs, axes: axes0.slice(), flat: flat0.slice(), area, k };
  });
}

/** The moves of a triangle seen from its own axes, eighteen; `axes` receives those axes as they stand now. */
export function ownMoves(
  model: ShellModel,
  rest: Rest,
  e: number,
  bent: Bent,
  axes: Float64Array,
  out: Float64Array,
): void {
  const { triangles } = model.mesh;
  for (let i = 0; i < 3; i++) {
    const n = 3 * (triangles[3 * e + i] as number);
    corner[3 * i] = bent.at[n] as number;
    corner[3 * i + 1] = bent.at[n + 1] as number;
    corner[3 * i + 2] = bent.at[n + 2] as number;
  }
  triangleAxes(corner, axes);
  inPlane(corner, axes, flat);
  for (let i = 0; i < 3; i++) {
    out[6 * i] = (flat[2 * i] as number) - (rest.flat[2 * i] as number);
    out[6 * i + 1] = (flat[2 * i + 1] as number) - (rest.flat[2 * i + 1] as number);
    out[6 * i + 2] = 0;
    // axes now · turn of the node · axes then, transposed
    const r = 9 * (triangles[3 * e + i] as number);
    for (let a = 0; a < 3; a++)
      for (let c = 0; c < 3; c++) {
        let s = 0;
        for (let k = 0; k < 3; k++) s += (axes[3 * a + k] as number) * (bent.turned[r + 3 * k + c] as number);
        spun[3 * a + c] = s;
      }
    const m = (a: number, b: number): number => {
      let s = 0;
      for (let k = 0; k < 3; k++) s += (spun[3 * a + k] as number) * (rest.axes[3 * b + k] as number);
      return s;
    };
    // rotation vector of a small turn
    const x = (m(2, 1) - m(1, 2)) / 2;
    const y = (m(0, 2) - m(2, 0)) / 2;
    const z = (m(1, 0) - m(0, 1)) / 2;
    const sin = Math.sqrt(x * x + y * y + z * z);
    const f = sin < 1e-9 ? 1 : Math.asin(Math.min(1, sin)) / sin;
    out[6 * i + 3] = f * x;
    out[6 * i + 4] = f * y;
    out[6 * i + 5] = f * z;
  }
}

const own = new Float64Array(18);
const force = new Float64Array(18);
const tangent = new Float64Array(324);
const axes = new Float64Array(9);
const G = new Float64Array(54);
const S = new Float64Array(54);
const KS = new Float64Array(54);
const SKS = new Float64Array(9);
const SG = new Float64Array(54);
const DX = new Float64Array(3);
const DY = new Float64Array(3);

/** Force and tangent stiffness of one triangle as it stands, in fixed axes. `layers` for a sheet that may yield. */
export function bentElement(
  model: ShellModel,
  rest: Rest,
  e: number,
  bent: Bent,
  layers: Layers | undefined,
  outForce: Float64Array,
  outK: Float64Array | undefined,
): void {
  ownMoves(model, rest, e, bent, axes, own);
  if (layers && !elasticStill(model, rest, e, layers))
    plasticForce(model, rest, e, layers, outK !== undefined);
  else {
    for (let i = 0; i < 18; i++) {
      let s = 0;
      for (let j = 0; j < 18; j++) s += (rest.k[18 * i + j] as number) * (own[j] as number);
      force[i] = s;
    }
    if (outK) tangent.set(rest.k);
  }
  turnBack(outForce, outK);
}

/** Takes the turning of the axes into account and turns force and tangent to fixed axes. */
function turnBack(outForce: Float64Array, outK: Float64Array | undefined): void {
  const x1 = flat[0] as number;
  const y1 = flat[1] as number;
  const x2 = flat[2] as number;
  const y2 = flat[3] as number;
  const x3 = flat[4] as number;
  const y3 = flat[5] as number;
  const a2 = (x2 - x1) * (y3 - y1) - (x3 - x1) * (y2 - y1);
  G.fill(0);
  S.fill(0);
  DX[0] = (y2 - y3) / a2;
  DX[1] = (y3 - y1) / a2;
  DX[2] = (y1 - y2) / a2;
  DY[0] = (x3 - x2) / a2;
  DY[1] = (x1 - x3) / a2;
  DY[2] = (x2 - x1) / a2;
  const l = x2 - x1;
  for (let i = 0; i < 3; i++) {
    // spin of the axes from the corners' moves: the plane's tilt, and the first side's turn in it
    G[6 * i + 2] = DY[i] as number;
    G[18 + 6 * i + 2] = -(DX[i] as number);
    const x = flat[2 * i] as number;
    const y = flat[2 * i + 1] as number;
    // moves of a rigid spin: ω × x, and ω itself
    S[3 * (6 * i) + 2] = -y;
    S[3 * (6 * i + 1) + 2] = x;
    S[3 * (6 * i + 2)] = y;
    S[3 * (6 * i + 2) + 1] = -x;
    for (let k = 0; k < 3; k++) S[3 * (6 * i + 3 + k) + k] = 1;
  }
  G[36 + 1] = -1 / l;
  G[36 + 7] = 1 / l;
  // f := (I − S G)ᵀ f
  let m0 = 0;
  let m1 = 0;
  let m2 = 0;
  for (let r = 0; r < 18; r++) {
    const f = force[r] as number;
    m0 += (S[3 * r] as number) * f;
    m1 += (S[3 * r + 1] as number) * f;
    m2 += (S[3 * r + 2] as number) * f;
  }
  for (let r = 0; r < 18; r++)
    force[r] =
      (force[r] as number) - (G[r] as number) * m0 - (G[18 + r] as number) * m1 - (G[36 + r] as number) * m2;
  if (outK) {
    // K := (I − S G)ᵀ K (I − S G)
    for (let r = 0; r < 18; r++)
      for (let k = 0; k < 3; k++) {
        let s = 0;
        for (let j = 0; j < 18; j++) s += (tangent[18 * r + j] as number) * (S[3 * j + k] as number);
        KS[3 * r + k] = s;
      }
    for (let a = 0; a < 3; a++)
      for (let b = 0; b < 3; b++) {
        let s = 0;
        for (let r = 0; r < 18; r++) s += (S[3 * r + a] as number) * (KS[3 * r + b] as number);
        SKS[3 * a + b] = s;
      }
    // SKS G, three rows
    for (let k = 0; k < 3; k++)
      for (let c = 0; c < 18; c++)
        SG[18 * k + c] =
          (SKS[3 * k] as number) * (G[c] as number) +
          (SKS[3 * k + 1] as number) * (G[18 + c] as number) +
          (SKS[3 * k + 2] as number) * (G[36 + c] as number);
    for (let r = 0; r < 18; r++) {
      const k0 = KS[3 * r] as number;
      const k1 = KS[3 * r + 1] as number;
      const k2 = KS[3 * r + 2] as number;
      const g0 = G[r] as number;
      const g1 = G[18 + r] as number;
      const g2 = G[36 + r] as number;
      for (let c = 0; c < 18; c++)
        outK[18 * r + c] =
          (tangent[18 * r + c] as number) -
          k0 * (G[c] as number) -
          k1 * (G[18 + c] as number) -
          k2 * (G[36 + c] as number) -
          (KS[3 * c] as number) * g0 -
          (KS[3 * c + 1] as number) * g1 -
          (KS[3 * c + 2] as number) * g2 +
          g0 * (SG[c] as number) +
          g1 * (SG[18 + c] as number) +
          g2 * (SG[36 + c] as number);
    }
    // what the turning of the forces adds: −F G − Gᵀ Fᵀ
    for (let i = 0; i < 6; i++) {
      // moments count half with either term, so that the sum is symmetric
      const half = i % 2 === 1 ? 0.5 : 1;
      const p = half * (force[3 * i] as number);
      const q = half * (force[3 * i + 1] as number);
      const t = half * (force[3 * i + 2] as number);
      const row = 54 * i;
      for (let c = 0; c < 18; c++) {
        const g0 = G[c] as number;
        const g1 = G[18 + c] as number;
        const g2 = G[36 + c] as number;
        const s0 = q * g2 - t * g1;
        const s1 = t * g0 - p * g2;
        const s2 = p * g1 - q * g0;
        outK[row + c] = (outK[row + c] as number) - s0;
        outK[row + 18 + c] = (outK[row + 18 + c] as number) - s1;
        outK[row + 36 + c] = (outK[row + 36 + c] as number) - s2;
        outK[18 * c + 3 * i] = (outK[18 * c + 3 * i] as number) - s0;
        outK[18 * c + 3 * i + 1] = (outK[18 * c + 3 * i + 1] as number) - s1;
        outK[18 * c + 3 * i + 2] = (outK[18 * c + 3 * i + 2] as number) - s2;
      }
    }
    toGlobal(outK, 18, axes);
  }
  for (let i = 0; i < 6; i++)
    for (let c = 0; c < 3; c++)
      outForce[3 * i + c] =
        (axes[c] as number) * (force[3 * i] as number) +
        (axes[3 + c] as number) * (force[3 * i + 1] as number) +
        (axes[6 + c] as number) * (force[3 * i + 2] as number);
}

const strain = new Float64Array(6);
const sums = new Float64Array(6);
const moduli = new Float64Array(27);

/** Strains in the middle and curvatures at one point of a triangle, six. */
function strainAt(rest: Rest, p: number): void {
  for (let r = 0; r < 3; r++) {
    let m = 0;
    let b = 0;
    for (let j = 0; j < 9; j++) {
      m += (rest.B[27 * p + 9 * r + j] as number) * (own[MEMBRANE[j] as number] as number);
      b += (rest.Bb[27 * p + 9 * r + j] as number) * (own[BENDING[j] as number] as number);
    }
    strain[r] = m;
    strain[3 + r] = b;
  }
}

/** True for a triangle that has not yielded and does not now: the elastic stiffness serves, and its layers stay at rest. */
function elasticStill(model: ShellModel, rest: Rest, e: number, layers: Layers): boolean {
  if (layers.touched[e]) return false;
  for (let p = 0; p < POINTS; p++) {
    strainAt(rest, p);
    if (!staysElastic(layers, strain, model.thickness)) return false;
  }
  // what an earlier round of this step may have tried is taken back
  const from = POINTS * LAYERS * e;
  layers.strain.fill(0, 3 * from, 3 * (from + POINTS * LAYERS));
  layers.measure.fill(0, from, from + POINTS * LAYERS);
  return true;
}

/** Force and tangent of a sheet that may yield, summed over its layers, in the triangle's own axes. */
function plasticForce(model: ShellModel, rest: Rest, e: number, layers: Layers, wantTangent: boolean): void {
  const t = model.thickness;
  force.fill(0);
  if (wantTangent) tangent.fill(0);
  const w = rest.area / POINTS;
  const shear = shearStiffness(model.elastic, t);
  for (let p = 0; p < POINTS; p++) {
    strainAt(rest, p);
    layerPoint(layers, (POINTS * e + p) * LAYERS, strain, t, sums, wantTangent ? moduli : undefined);
    for (let j = 0; j < 9; j++) {
      let [m, b] = [0, 0];
      for (let r = 0; r < 3; r++) {
        m += (rest.B[27 * p + 9 * r + j] as number) * (sums[r] as number);
        b += (rest.Bb[27 * p + 9 * r + j] as number) * (sums[3 + r] as number);
      }
      const jm = MEMBRANE[j] as number;
      const jb = BENDING[j] as number;
      force[jm] = (force[jm] as number) + w * m;
      force[jb] = (force[jb] as number) + w * b;
    }
    // shear stays elastic
    for (let r = 0; r < 2; r++) {
      let g = 0;
      for (let j = 0; j < 9; j++)
        g += (rest.Bs[18 * p + 9 * r + j] as number) * (own[BENDING[j] as number] as number);
      for (let j = 0; j < 9; j++) {
        const jb = BENDING[j] as number;
        force[jb] = (force[jb] as number) + w * shear * g * (rest.Bs[18 * p + 9 * r + j] as number);
      }
    }
    if (wantTangent) {
      addBDB(tangent, rest.B, 27 * p, moduli.subarray(0, 9), w, MEMBRANE);
      addBDB(tangent, rest.Bb, 27 * p, moduli.subarray(18, 27), w, BENDING);
      addBDB(tangent, rest.B, 27 * p, moduli.subarray(9, 18), w, MEMBRANE, rest.Bb, BENDING);
      addBDB(tangent, rest.Bb, 27 * p, moduli.subarray(9, 18), w, BENDING, rest.B, MEMBRANE);
      addShear(tangent, rest.Bs, 18 * p, w * shear);
    }
  }
}
