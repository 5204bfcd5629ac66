import {
  add3,
  boxOf,
  centroid,
  type Polygon,
  scale3,
  signedArea,
  toRadians,
  toSpace,
  type Vec2,
  type Vec3,
} from '../geometry';
import type { Panel, SheetChoice, TestedK } from '../plan';
import { MATERIALS } from '../sheet';
import { type Bend, makeBend } from './bend';
import { type Facet, facetsOf, flatFrom } from './facets';
import { type BlankPiece, type Developed, type FoldedPanel, inBlank } from './folded-panel';
import { openingsTaken } from './openings';
import { reliefsOf } from './relief';

/** Lays the flange tree flat: each flange starts its own mold line minus the deduction past its parent's. */
function layFlat(facets: readonly Facet[], bends: ReadonlyMap<string, Bend>): readonly Developed[] {
  const placed = new Map<string, Developed>();
  for (const facet of facets) {
    const parent = facet.parent === undefined ? undefined : placed.get(facet.parent);
    if (!parent || !facet.hinge) {
      placed.set(facet.id, { facet, origin: [0, 0], u: [1, 0], v: [0, 1] });
      continue;
    }
    const { hinge } = facet;
    const bend = bends.get(facet.id);
    const turn = (d: Vec2): Vec2 => {
      const o = inBlank(parent, d);
      return [o[0] - parent.origin[0], o[1] - parent.origin[1]];
    };
    const u = turn(hinge.outward);
    const start = inBlank(parent, hinge.start);
    const back = bend?.deductionMm ?? 0;
    placed.set(facet.id, {
      facet,
      u,
      v: turn(hinge.along),
      origin: [start[0] - u[0] * back, start[1] - u[1] * back],
      bend,
    });
  }
  return [...placed.values()];
}

/** Distance of the centroid of a bent sheet sector from the bend's axis (annular sector, angle in radians). */
function sectorRadius(inner: number, outer: number, angle: number): number {
  const h = angle / 2;
  return ((2 / 3) * (Math.sin(h) / h) * (outer ** 3 - inner ** 3)) / (outer ** 2 - inner ** 2);
}

/**
 * Folds a panel from its sheet, with the shop's own K-factors where there are some: flats in space, bends, developed
 * blank, mass and center of mass.
 * Mass follows the blank (neutral fiber): area less openings × thickness × density. Pure; see `foldPanel`.
 */
export function fold(panel: Panel, sheet: SheetChoice, tests: readonly TestedK[] = []): FoldedPanel {
  const material = MATERIALS[sheet.material];
  const t = sheet.thickness;
  const facets = facetsOf(panel, t);
  const bends = facets.flatMap(({ flange }) =>
    flange ? [makeBend(flange.id, flange.angle, t, material, flange.insideRadius, tests)] : [],
  );
  const bendById = new Map(bends.map(b => [b.id, b]));

  let [area, mx, my, mz] = [0, 0, 0, 0];
  const take = (a: number, at: Vec3): void => {
    area += a;
    mx += a * at[0];
    my += a * at[1];
    mz += a * at[2];
  };
  const byId = new Map(facets.map(f => [f.id, f]));
  for (const facet of facets) {
    const bend = bendById.get(facet.id);
    const flat = bend ? flatFrom(facet, bend.setbackMm) : facet.outline;
    take(Math.abs(signedArea(flat)), toSpace(facet.frame, centroid(flat), t / 2));
    const parent = facet.parent === undefined ? undefined : byId.get(facet.parent);
    if (!bend || bend.angle === 0 || !parent || !facet.hinge) continue;
    const { hinge } = facet;
    const { width } = hinge;
    const s = bend.setbackMm;
    const { frame } = parent;
    const out = add3(scale3(frame.u, hinge.outward[0]), scale3(frame.v, hinge.outward[1]));
    const up = frame.n;
    const middle = toSpace(frame, [
      hinge.start[0] + (hinge.along[0] * width) / 2,
      hinge.start[1] + (hinge.along[1] * width) / 2,
    ]);
    take(-width * s, add3(add3(middle, scale3(out, -s / 2)), scale3(up, t / 2)));
    const a = Math.abs(toRadians(bend.angle));
    const r = sectorRadius(bend.insideRadius, bend.insideRadius + t, a);
    const side = bend.angle > 0 ? 1 : -1;
    const axisHeight = side > 0 ? bend.insideRadius + t : -bend.insideRadius;
    const axis = add3(add3(middle, scale3(out, -s)), scale3(up, axisHeight));
    const towards = add3(scale3(out, Math.sin(a / 2) * r), scale3(up, -side * Math.cos(a / 2) * r));
    take(width * bend.allowanceMm, add3(axis, towards));
  }
  const base = facets[0] as Facet;
  for (const [a, at] of openingsTaken(panel)) take(-a, toSpace(base.frame, at, t / 2));

  const developed = layFlat(facets, bendById);
  const pieces = developed.flatMap((p): BlankPiece[] => {
    const own = p.bend?.setbackMm ?? 0;
    const shape = p.bend ? flatFrom(p.facet, own) : p.facet.outline;
    const flat: BlankPiece = { id: p.facet.id, kind: 'flat', outline: shape.map(q => inBlank(p, q)) };
    if (!p.bend || !p.facet.hinge) return [flat];
    const w = p.facet.hinge.width;
    const from = own - p.bend.allowanceMm;
    const strip: Polygon = [
      [from, 0],
      [own, 0],
      [own, w],
      [from, w],
    ];
    return [{ id: p.facet.id, kind: 'bend', outline: strip.map(q => inBlank(p, q)) }, flat];
  });
  const box = boxOf(pieces.flatMap(p => p.outline));
  const reliefs = reliefsOf(panel, developed, t);
  return {
    panel,
    sheet,
    material,
    facets,
    bends,
    holes: [],
    blank: {
      areaMm2: area,
      size: [box.max[0] - box.min[0], box.max[1] - box.min[1]],
      pieces,
      developed,
      reliefs,
    },
    massKg: area * t * material.density * 1e-9,
    centroid: [mx / area, my / area, mz / area],
  };
}

const folded = new WeakMap<Panel, Map<string, FoldedPanel>>();

/** As `fold`, remembered for as long as the panel lives: an edit to one plate folds that plate only. */
export function foldPanel(panel: Panel, sheet: SheetChoice, tests: readonly TestedK[] = []): FoldedPanel {
  const tested = tests.map(t => `${t.material} ${t.ratio} ${t.k}`).join(',');
  const key = `${sheet.material}|${sheet.thickness}|${sheet.finish}|${tested}`;
  const known = folded.get(panel) ?? new Map<string, FoldedPanel>();
  const hit = known.get(key);
  if (hit) return hit;
  const made = fold(panel, sheet, tests);
  known.set(key, made);
  folded.set(panel, known);
  return made;
}
