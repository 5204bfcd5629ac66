import { add3, dot3, scale3, sub3, type Vec3 } from '../geometry';
import { dentForce } from '../sheet';
import { bad, good, type Result } from '../units';
import { type JointSpring, jointForce, meanMove, stateOf } from './joint-spring';
import { linearSolver } from './linear';
import { forceOn, pushedBack, type ShellModel } from './model';
import { solveLarge } from './newton';
import {
  gapOver,
  type Held,
  heldBy,
  loose,
  meshPlate,
  modelFor,
  nodeAt,
  onPlate,
  plateFlatsOf,
  up,
} from './plate-model';
import { ring } from './ring';
import { type Flat3, planeOf, type ShellMesh } from './shell-mesh';
import { FREEDOMS } from './sparse';
import { elasticStress, faceStressAt, vonMises } from './stress';
import { PATCH, type StrikeAnswer, type StrikeReaction, type StrikeWish } from './strike-wish';
import { worstPlace } from './worst-place';

let WORK: any;
/** Past its yield the sheet hardens by this part of its modulus: little, so that dents are not made small (a guess). */
const HARDENING = 200;

/**
 * Strikes a plate from below: finds its worst place unless one is told, and answers with the theory the answer needs: small
 * deflections up to half a thickness, large ones beyond, and with yielding where the sheet passes its yield. Bolted joints press
 * the sheet to their members under head or washer and hold it in its plane by friction, play and shank. An estimate: welds,
 * fatigue, loosening and the give of the frame are not in it.
 */
export function strikePlate(wish: StrikeWish, now: () => number = () => 0): Result<StrikeAnswer> {
  const t0 = now();
  const { folded } = wish;
  const flats = plateFlatsOf(folded);
  const held = heldBy(flats, folded.panel.id, wish.joints);
  if (held.length === 0) return bad('no bolt holds it');
  let at: Vec3;
  if (wish.at) {
    const given = onPlate(flats, wish.at);
    if (!given) return bad('there is no sheet at that place');
    at = given;
  } else {
    const worst = worstPlace(wish, flats, held);
    if (!worst.ok) return worst;
    at = worst.value;
  }
  const meshed = meshPlate(flats, held, wish.fineness ?? 16, at);
  if (!meshed.ok) return meshed;
  const model = modelFor(wish, meshed.value, held);
  if (!(up(model.load, model.mesh, at, wish.force) > 0)) return bad('the rock falls beside the plate');
  const solver = linearSolver(model);
  if ('mechanism' in solver) return bad(loose(model, solver.node, solver.freedom));
  const t = model.thickness;
  const ringHz = ring(model, solver, folded.material.density);
  let u = solver.solve(model.load);
  let inner: Float64Array = pushedBack(model, u);
  let stress = elasticStress(model, u);
  let theory = 'small deflections, elastic';
  let dentMm: number | undefined = 0;
  let reached = 1;
  const most = (): number => mostDown(model.mesh, u).mm;
  const peak = (): number => peakStress(model, stress, held, at);
  if (most() > t / 2 || peak() > folded.material.yield) {
    const large = solveLarge(model, {
      plastic: true,
      unload: true,
      hardening: folded.material.E / HARDENING,
      tolerance: 1e-3,
    });
    if ('mechanism' in large) return bad(loose(model, large.node, large.freedom));
    if (large.reached === 0) return bad('no balance found under any share of the force');
    ({ u, inner, stress, reached } = large);
    WORK=[large.steps,large.rounds,large.factors,large.gaveWayAt];
    theory = large.yielded ? 'large deflections, elastic-plastic' : 'large deflections, elastic';
    if (large.yielded) dentMm = large.rest && Math.max(0, mostDown(model.mesh, large.rest).mm);
  }
  const gaps = wish.components.flatMap(c => {
    let least: number | undefined;
    for (let n = 0; n < model.mesh.coordinates.length / 3; n++) {
      const gap = gapOver(c, nodeAt(model.mesh, n), t);
      if (gap === undefined) continue;
      const left = gap - (u[FREEDOMS * n + 2] as number);
      if (least === undefined || left < least) least = left;
    }
    return least === undefined ? [] : [{ component: c.id, gapMm: least }];
  });
  gaps.sort((a, b) => a.gapMm - b.gapMm);
  const move = (n: number, axis: 0 | 1): number => u[FREEDOMS * n + axis] as number;
  const reactionsN = held.map((h, i): StrikeReaction => {
    const nodes = meshed.value.discs[i] as readonly number[];
    const [a, b] = [forceOn(inner, nodes), forceOn(model.load, nodes)];
    const R: Vec3 = [a[0] - reached * b[0], a[1] - reached * b[1], a[2] - reached * b[2]];
    const spring = model.springs?.find(s => s.id === h.joint.id);
    const n = planeOf((flats[h.flat] as Flat3).polygon).n;
    const upward = n[2] < 0 ? scale3(n, -1) : n;
    // held in its plane the force passes through the spring, which is no longer part of what the sheet pushes back with
    const [mx, my] = spring ? meanMove(spring, move) : [0, 0];
    const sheet = spring ? sheetForce(model, u, spring) : R;
    const off = dot3(R, upward);
    const plane = sub3(sheet, scale3(upward, dot3(sheet, upward)));
    return {
      joint: h.joint.id,
      tensionN: Math.max(0, off),
      shearN: Math.hypot(...plane),
      state: spring ? stateOf(spring, Math.hypot(mx, my)) : 'held',
    };
  });
  const { mesh } = model;
  const moves = new Float32Array(mesh.coordinates.length);
  for (let n = 0; n < moves.length / 3; n++)
    for (let k = 0; k < 3; k++) moves[3 * n + k] = u[FREEDOMS * n + k] as number;
  const over = new Float32Array(moves.length / 3).fill(Number.NaN);
  for (let n = 0; n < over.length; n++)
    for (const c of wish.components) {
      const gap = gapOver(c, nodeAt(mesh, n), t);
      if (gap === undefined) continue;
      const left = gap - (u[FREEDOMS * n + 2] as number);
      if (!((over[n] as number) <= left)) over[n] = left;
    }
  return good({
    panel: folded.panel.id,
    forceN: wish.force,
    at,
    deflectionMm: most(),
    gapMm: gaps[0]?.gapMm,
    gapTo: gaps[0]?.component,
    gaps,
    vonMisesMPa: peak(),
    yieldMPa: folded.material.yield,
    dentMm,
    dentForceN: dentForce(folded.material, t),
    ringHz,
    reached,
    reactionsN,
    theory,
    work: WORK,
    nodes: mesh.coordinates.length / 3,
    solveMs: now() - t0,
    picture: {
      coordinates: Float32Array.from(mesh.coordinates),
      triangles: Uint32Array.from(mesh.triangles),
      moves,
      gaps: over,
    },
  });
}

/** What a joint's spring takes in the plane, from its law. */
function sheetForce(model: ShellModel, u: Float64Array, spring: JointSpring): Vec3 {
  const out = new Float64Array(model.load.length);
  jointForce(spring, (n, axis) => u[FREEDOMS * n + axis] as number, out);
  return forceOn(out, spring.nodes);
}

/** Largest upward move of a node, mm. */
function mostDown(mesh: ShellMesh, u: Float64Array): { readonly mm: number; readonly node: number } {
  let best = { mm: 0, node: 0 };
  for (let n = 0; n < mesh.coordinates.length / 3; n++) {
    const mm = u[FREEDOMS * n + 2] as number;
    if (mm > best.mm) best = { mm, node: n };
  }
  return best;
}

/** Stress of von Mises at the struck place, or the most away from bolts (two of their discs' radii off), MPa. */
function peakStress(model: ShellModel, stress: Float64Array, held: readonly Held[], at: Vec3): number {
  const { mesh } = model;
  let most = 0;
  for (let e = 0; e < mesh.flatOf.length; e++) {
    const c = [0, 1, 2].reduce<Vec3>(
      (s, i) => add3(s, scale3(nodeAt(mesh, mesh.triangles[3 * e + i] as number), 1 / 3)),
      [0, 0, 0],
    );
    if (held.some(h => Math.hypot(c[0] - h.at[0], c[1] - h.at[1]) < 2 * h.radius)) continue;
    // the mean of the element's points: a single point next to a corner says little
    for (const face of [1, -1]) {
      const s = [0, 1, 2].map(k =>
        [0, 1, 2].reduce(
          (sum, p) =>
            sum +
            ((stress[18 * e + 6 * p + k] as number) + face * (stress[18 * e + 6 * p + 3 + k] as number)) / 3,
          0,
        ),
      );
      most = Math.max(most, vonMises(s[0] as number, s[1] as number, s[2] as number));
    }
  }
  const flat = flatUnder(mesh, at);
  const there = faceStressAt({ mesh }, stress, at, PATCH * 0.45, flat);
  return Math.max(most, there.top, there.bottom);
}

/** The flat whose triangles come nearest to a place. */
function flatUnder(mesh: ShellMesh, at: Vec3): number {
  let best = { flat: 0, d: Infinity };
  for (let e = 0; e < mesh.flatOf.length; e++) {
    const p = nodeAt(mesh, mesh.triangles[3 * e] as number);
    const d = Math.hypot(p[0] - at[0], p[1] - at[1], p[2] - at[2]);
    if (d < best.d) best = { flat: mesh.flatOf[e] as number, d };
  }
  return best.flat;
}
