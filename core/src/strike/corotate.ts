import type { Bent } from './bent';
import { addBDB, addShear, BENDING, MEMBRANE, POINTS, shearStiffness, toGlobal } from './element';
import { localDeformations } from './local-deformations';
import type { ShellModel } from './model';
import { LAYERS, type Layers, layerPoint, staysElastic } from './plastic';
import type { Predicted } from './predicted';
import type { Rest } from './rest';
import { DOF_PER_NODE } from './sparse';

/*
 * Large displacements by the element-independent co-rotational way (Nour-Omid and Rankin 1991; Felippa and Haugen 2005): every
 * triangle is seen from axes that move with it, where its moves stay small and the element of small deflections serves; forces
 * and stiffness are turned back to the fixed axes with what the turning itself adds.
 */

const flat = new Float64Array(6);
const own = new Float64Array(18);
const force = new Float64Array(18);
const tangent = new Float64Array(324);
const axes = new Float64Array(9);
const KS = new Float64Array(54);
const SKS = new Float64Array(9);
const H = new Float64Array(9);
const L = new Float64Array(9);

/** Predicts the own moves after a move of all nodes, node · 6 + freedom, from the tangent that it was found with. */
export function predict({ mesh }: ShellModel, t: Predicted, du: Float64Array): void {
  const d = new Float64Array(18);
  for (let e = 0; e < mesh.flatOf.length; e++) {
    const a = t.axes.subarray(9 * e, 9 * e + 9);
    for (let i = 0; i < 6; i++) {
      const n = DOF_PER_NODE * (mesh.triangles[3 * e + (i >> 1)] as number) + 3 * (i & 1);
      const [x, y, z] = [du[n] as number, du[n + 1] as number, du[n + 2] as number];
      for (let c = 0; c < 3; c++)
        d[3 * i + c] = (a[3 * c] as number) * x + (a[3 * c + 1] as number) * y + (a[3 * c + 2] as number) * z;
    }
    tilts(t.flat.subarray(6 * e, 6 * e + 6));
    // less the rigid spin in it
    let [wx, wy] = [0, 0];
    for (let i = 0; i < 3; i++) {
      wx += (TILTX[i] as number) * (d[6 * i + 2] as number);
      wy += (TILTY[i] as number) * (d[6 * i + 2] as number);
    }
    const wz = turn * ((d[7] as number) - (d[1] as number));
    for (let i = 0; i < 3; i++) {
      const x = t.flat[6 * e + 2 * i] as number;
      const y = t.flat[6 * e + 2 * i + 1] as number;
      d[6 * i] = (d[6 * i] as number) + wz * y;
      d[6 * i + 1] = (d[6 * i + 1] as number) - wz * x;
      d[6 * i + 2] = (d[6 * i + 2] as number) - wx * y + wy * x;
      d[6 * i + 3] = (d[6 * i + 3] as number) - wx;
      d[6 * i + 4] = (d[6 * i + 4] as number) - wy;
      d[6 * i + 5] = (d[6 * i + 5] as number) - wz;
    }
    for (let i = 0; i < 18; i++) t.next[18 * e + i] = (t.own[18 * e + i] as number) + (d[i] as number);
  }
  t.valid = true;
}

/**
 * Force and tangent stiffness of one triangle as it stands, in fixed axes. `layers` for a sheet that may yield. With `told` a
 * tangent is made at the moves foretold (its force is theirs), and a force alone is noted there.
 */
export function bentElement(
  model: ShellModel,
  rest: Rest,
  e: number,
  bent: Bent,
  layers: Layers | undefined,
  outForce: Float64Array,
  outK: Float64Array | undefined,
  told?: Predicted,
): void {
  localDeformations(model, rest, e, bent, axes, flat, own);
  if (told && !outK) {
    for (let i = 0; i < 18; i++) told.own[18 * e + i] = own[i] as number;
    for (let i = 0; i < 9; i++) told.axes[9 * e + i] = axes[i] as number;
    for (let i = 0; i < 6; i++) told.flat[6 * e + i] = flat[i] as number;
  }
  if (told?.valid && outK) for (let i = 0; i < 18; i++) own[i] = told.next[18 * e + i] as number;
  if (layers && !elasticStill(model, rest, e, layers))
    plasticForce(model, rest, e, layers, outK !== undefined);
  else {
    // in the plane and out of it each by itself
    for (let i = 0; i < 9; i++) {
      const m = MEMBRANE[i] as number;
      const b = BENDING[i] as number;
      let [s, t] = [0, 0];
      for (let j = 0; j < 9; j++) {
        const [mj, bj] = [MEMBRANE[j] as number, BENDING[j] as number];
        s += (rest.k[18 * m + mj] as number) * (own[mj] as number);
        t += (rest.k[18 * b + bj] as number) * (own[bj] as number);
      }
      force[m] = s;
      force[b] = t;
    }
    if (outK) tangent.set(rest.k);
  }
  for (let i = 0; i < 3; i++) spinsOf(i, outK !== undefined);
  turnBack(outForce, outK);
}

/**
 * From the rotation vector of a corner to its spin: moments become Hᵀ p, stiffness Hᵀ K H with what the change of H adds (Nour-Omid
 * and Rankin 1991; Felippa and Haugen 2005, their equations for H and L). What is not symmetric in that vanishes in balance.
 */
function spinsOf(i: number, wantTangent: boolean): void {
  const at = 6 * i + 3;
  const x = own[at] as number;
  const y = own[at + 1] as number;
  const z = own[at + 2] as number;
  const t2 = x * x + y * y + z * z;
  if (t2 < 1e-14) return;
  const eta = 1 / 12 + t2 / 720 + (t2 * t2) / 30240;
  // I − ½ spin(θ) + η spin(θ)²
  H[0] = 1 - eta * (y * y + z * z);
  H[1] = eta * x * y + z / 2;
  H[2] = eta * x * z - y / 2;
  H[3] = eta * x * y - z / 2;
  H[4] = 1 - eta * (x * x + z * z);
  H[5] = eta * y * z + x / 2;
  H[6] = eta * x * z + y / 2;
  H[7] = eta * y * z - x / 2;
  H[8] = 1 - eta * (x * x + y * y);
  const p = force[at] as number;
  const q = force[at + 1] as number;
  const r = force[at + 2] as number;
  for (let c = 0; c < 3; c++)
    force[at + c] = (H[c] as number) * p + (H[3 + c] as number) * q + (H[6 + c] as number) * r;
  // a thousandth of a turn does not show in a tangent
  if (!wantTangent || t2 < 1e-6) return;
  for (let j = 0; j < 18; j++) {
    const k = 18 * j + at;
    const a = tangent[k] as number;
    const b = tangent[k + 1] as number;
    const d = tangent[k + 2] as number;
    for (let c = 0; c < 3; c++)
      tangent[k + c] = a * (H[c] as number) + b * (H[3 + c] as number) + d * (H[6 + c] as number);
  }
  for (let j = 0; j < 18; j++) {
    const k = 18 * at + j;
    const a = tangent[k] as number;
    const b = tangent[k + 18] as number;
    const d = tangent[k + 36] as number;
    for (let c = 0; c < 3; c++)
      tangent[k + 18 * c] = a * (H[c] as number) + b * (H[3 + c] as number) + d * (H[6 + c] as number);
  }
  const mu = 1 / 360 + t2 / 7560;
  const dot = x * p + y * q + z * r;
  // spin(θ)² p
  const sx = x * dot - p * t2;
  const sy = y * dot - q * t2;
  const sz = z * dot - r * t2;
  // η[(θ·p) I + θ pᵀ − 2 p θᵀ] + μ spin(θ)² p θᵀ − ½ spin(p)
  L[0] = eta * (dot + x * p - 2 * p * x) + mu * sx * x;
  L[1] = eta * (x * q - 2 * p * y) + mu * sx * y + r / 2;
  L[2] = eta * (x * r - 2 * p * z) + mu * sx * z - q / 2;
  L[3] = eta * (y * p - 2 * q * x) + mu * sy * x - r / 2;
  L[4] = eta * (dot + y * q - 2 * q * y) + mu * sy * y;
  L[5] = eta * (y * r - 2 * q * z) + mu * sy * z + p / 2;
  L[6] = eta * (z * p - 2 * r * x) + mu * sz * x + q / 2;
  L[7] = eta * (z * q - 2 * r * y) + mu * sz * y - p / 2;
  L[8] = eta * (dot + z * r - 2 * r * z) + mu * sz * z;
  for (let a = 0; a < 3; a++)
    for (let b = 0; b < 3; b++) {
      let s = 0;
      for (let c = 0; c < 3; c++)
        s +=
          (L[3 * a + c] as number) * (H[3 * c + b] as number) +
          (L[3 * b + c] as number) * (H[3 * c + a] as number);
      const k = 18 * (at + a) + at + b;
      tangent[k] = (tangent[k] as number) + s / 2;
    }
}

/**
 * Takes the turning of the axes into account and turns force and tangent to fixed axes: f := Pᵀ f and K := Pᵀ K P − F G − Gᵀ Fᵀ P,
 * P = I − S G (Felippa and Haugen 2005), made symmetric. G gives the spin of the axes for moves of the corners and has five columns
 * that are not nought; S gives the moves of a rigid spin.
 */
function turnBack(outForce: Float64Array, outK: Float64Array | undefined): void {
  tilts(flat);
  if (outK) {
    for (let r = 0; r < 18; r++) {
      let [s0, s1, s2] = [0, 0, 0];
      for (let i = 0; i < 3; i++) {
        const k = 18 * r + 6 * i;
        const x = flat[2 * i] as number;
        const y = flat[2 * i + 1] as number;
        const w = tangent[k + 2] as number;
        s0 += w * y + (tangent[k + 3] as number);
        s1 += (tangent[k + 4] as number) - w * x;
        s2 += (tangent[k + 1] as number) * x - (tangent[k] as number) * y + (tangent[k + 5] as number);
      }
      KS[3 * r] = s0;
      KS[3 * r + 1] = s1;
      KS[3 * r + 2] = s2;
    }
    for (let c = 0; c < 3; c++) {
      let [s0, s1, s2] = [0, 0, 0];
      for (let i = 0; i < 3; i++) {
        const k = 18 * i + c;
        const x = flat[2 * i] as number;
        const y = flat[2 * i + 1] as number;
        const w = KS[k + 6] as number;
        s0 += w * y + (KS[k + 9] as number);
        s1 += (KS[k + 12] as number) - w * x;
        s2 += (KS[k + 3] as number) * x - (KS[k] as number) * y + (KS[k + 15] as number);
      }
      SKS[c] = s0;
      SKS[3 + c] = s1;
      SKS[6 + c] = s2;
    }
  }
  balanced();
  if (outK) {
    outK.set(tangent);
    // −Fᵀ S = Σ (n·x) I − x nᵀ, made symmetric, joins Sᵀ K S with its sign turned
    let [nx, xx, xy, yy, xz, yz] = [0, 0, 0, 0, 0, 0];
    for (let i = 0; i < 3; i++) {
      const x = flat[2 * i] as number;
      const y = flat[2 * i + 1] as number;
      const p = force[6 * i] as number;
      const q = force[6 * i + 1] as number;
      const t = force[6 * i + 2] as number;
      nx += p * x + q * y;
      xx += x * p;
      yy += y * q;
      xy += (x * q + y * p) / 2;
      xz += (x * t) / 2;
      yz += (y * t) / 2;
      // what the turning of the forces adds; moments count half with either term
      for (let half = 0; half < 2; half++) {
        const r = 18 * i + 9 * half;
        const share = half ? 0.5 : 1;
        const a = share * (force[6 * i + 3 * half] as number);
        const b = share * (force[6 * i + 3 * half + 1] as number);
        const c = share * (force[6 * i + 3 * half + 2] as number);
        KS[r + 1] = (KS[r + 1] as number) - c;
        KS[r + 2] = (KS[r + 2] as number) + b;
        KS[r + 3] = (KS[r + 3] as number) + c;
        KS[r + 5] = (KS[r + 5] as number) - a;
        KS[r + 6] = (KS[r + 6] as number) - b;
        KS[r + 7] = (KS[r + 7] as number) + a;
      }
    }
    const c00 = (SKS[0] as number) - nx + xx;
    const c11 = (SKS[4] as number) - nx + yy;
    const c22 = (SKS[8] as number) - nx;
    const c01 = (SKS[1] as number) + xy;
    const c02 = (SKS[2] as number) + xz;
    const c12 = (SKS[5] as number) + yz;
    for (let i = 0; i < 5; i++) {
      const c = COLUMNS[i] as number;
      const g0 = i < 3 ? (TILTX[i] as number) : 0;
      const g1 = i < 3 ? (TILTY[i] as number) : 0;
      const g2 = i < 3 ? 0 : i === 3 ? -turn : turn;
      for (let r = 0; r < 18; r++) {
        const v =
          (KS[3 * r] as number) * g0 + (KS[3 * r + 1] as number) * g1 + (KS[3 * r + 2] as number) * g2;
        outK[18 * r + c] = (outK[18 * r + c] as number) - v;
        outK[18 * c + r] = (outK[18 * c + r] as number) - v;
      }
      const s0 = c00 * g0 + c01 * g1 + c02 * g2;
      const s1 = c01 * g0 + c11 * g1 + c12 * g2;
      const s2 = c02 * g0 + c12 * g1 + c22 * g2;
      for (let j = 0; j < 5; j++) {
        const k = 18 * c + (COLUMNS[j] as number);
        outK[k] =
          (outK[k] as number) +
          (j < 3 ? s0 * (TILTX[j] as number) + s1 * (TILTY[j] as number) : j === 3 ? -turn * s2 : turn * s2);
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
/** f := (I − S G)ᵀ f: what a rigid spin would work is taken off. */
function balanced(): void {
  const f = force;
  let [m0, m1, m2] = [0, 0, 0];
  for (let i = 0; i < 3; i++) {
    const x = flat[2 * i] as number;
    const y = flat[2 * i + 1] as number;
    const w = f[6 * i + 2] as number;
    m0 += w * y + (f[6 * i + 3] as number);
    m1 += (f[6 * i + 4] as number) - w * x;
    m2 += (f[6 * i + 1] as number) * x - (f[6 * i] as number) * y + (f[6 * i + 5] as number);
  }
  for (let i = 0; i < 3; i++)
    f[6 * i + 2] = (f[6 * i + 2] as number) - (TILTX[i] as number) * m0 - (TILTY[i] as number) * m1;
  f[1] = (f[1] as number) + turn * m2;
  f[7] = (f[7] as number) - turn * m2;
}

/** Spin of the axes for moves of the corners: tilt about x and y by those along z, the turn in the plane by the first side's. */
function tilts(c: Float64Array): void {
  const x1 = c[0] as number;
  const y1 = c[1] as number;
  const x2 = c[2] as number;
  const y2 = c[3] as number;
  const x3 = c[4] as number;
  const y3 = c[5] as number;
  const a2 = (x2 - x1) * (y3 - y1) - (x3 - x1) * (y2 - y1);
  TILTX[0] = (x3 - x2) / a2;
  TILTX[1] = (x1 - x3) / a2;
  TILTX[2] = (x2 - x1) / a2;
  TILTY[0] = (y3 - y2) / a2;
  TILTY[1] = (y1 - y3) / a2;
  TILTY[2] = (y2 - y1) / a2;
  turn = 1 / (x2 - x1);
}
let turn = 0;
const TILTX = new Float64Array(3);
const TILTY = new Float64Array(3);
/** Moves that spin the axes: the three corners along z, the first side's ends across it. */
const COLUMNS = [2, 8, 14, 1, 7] as const;

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
