import { areaOf, difference, type Polygon, union, type Vec2 } from '../geometry';
import type { Panel } from '../plan';
import { reliefOf } from './brake';
import type { Developed, FoldedPanel, Relief } from './folded-panel';
import { baseCorners, LEAST_TURN } from './mitre';

/** Sides of the half circle that rounds a relief's foot, so that it starts no crack. */
const ROUND_SIDES = 12;
/** Slots reach this far past the edge, mm, so that nothing is left standing in the rounding of the cut. */
const PAST = 0.05;

const round = ([x, y]: Vec2, r: number): Polygon =>
  Array.from({ length: 2 * ROUND_SIDES }, (_, i): Vec2 => {
    const a = (i * Math.PI) / ROUND_SIDES;
    return [x + r * Math.cos(a), y + r * Math.sin(a)];
  });

/** A slot beside the end of a bend: one thickness wide, R + t deep past its mold line and beyond where it begins to curve. */
function slot(parent: Developed, child: Developed, atEnd: boolean, width: number, t: number): Relief {
  const hinge = child.facet.hinge as NonNullable<Developed['facet']['hinge']>;
  const bend = child.bend as NonNullable<Developed['bend']>;
  const deep = Math.max(reliefOf(bend.insideRadius, t).depth, bend.setbackMm);
  const from = atEnd ? hinge.width : -width;
  const put = (s: number, d: number): Vec2 => [
    hinge.start[0] + hinge.along[0] * s + hinge.outward[0] * d,
    hinge.start[1] + hinge.along[1] * s + hinge.outward[1] * d,
  ];
  const point = (q: Vec2): Vec2 => [
    parent.origin[0] + parent.u[0] * q[0] + parent.v[0] * q[1],
    parent.origin[1] + parent.u[1] * q[0] + parent.v[1] * q[1],
  ];
  const out = Math.max(bend.allowanceMm - bend.setbackMm, 0) + PAST;
  const box = [put(from, -deep), put(from + width, -deep), put(from + width, out), put(from, out)];
  const foot = round(put(from + width / 2, -deep), width / 2);
  return { kind: 'bend', bends: [bend.id], outlines: [box.map(point), foot.map(point)] };
}

/** Where two bends leave one corner: the parallelogram both of them claim, its inner point rounded. */
function cornerCut(at: Vec2, pair: readonly [Developed, Developed], t: number): Relief | undefined {
  const [p, q] = pair;
  const [a, b] = [p.bend, q.bend];
  if (!a || !b) return undefined;
  const [o1, o2] = [p.u, q.u];
  const det = o1[0] * o2[1] - o1[1] * o2[0];
  /** the point `x` mm beyond the one edge and `y` beyond the other */
  const put = (x: number, y: number): Vec2 => [
    at[0] + (x * o2[1] - y * o1[1]) / det,
    at[1] + (y * o1[0] - x * o2[0]) / det,
  ];
  const [x0, y0] = [-a.setbackMm, -b.setbackMm];
  const [x1, y1] = [x0 + a.allowanceMm, y0 + b.allowanceMm];
  return {
    kind: 'corner',
    bends: [a.id, b.id],
    outlines: [[put(x0, y0), put(x1, y0), put(x1, y1), put(x0, y1)], round(put(x0, y0), t / 2)],
  };
}

/**
 * The reliefs of a blank: a slot beside every bend that ends within an edge or at an inward corner, and a cut where two
 * bends meet at an outward one. Sizes after sheet-metal design guides (`reliefOf`); thickness in mm.
 */
export function reliefsOf(
  panel: Panel,
  developed: readonly Developed[],
  thickness: number,
): readonly Relief[] {
  const byId = new Map(developed.map(d => [d.facet.id, d]));
  const bent = (id: string | undefined): Developed | undefined => {
    const d = id === undefined ? undefined : byId.get(id);
    return d?.bend && d.bend.angle !== 0 ? d : undefined;
  };
  const out: Relief[] = [];
  const width = reliefOf(0, thickness).width;
  for (const child of developed) {
    const parent = child.facet.parent === undefined ? undefined : byId.get(child.facet.parent);
    if (!parent || !child.facet.hinge || !bent(child.facet.id)) continue;
    child.facet.hinge.inset.forEach((inset, i) => {
      if (inset > 1e-6) out.push(slot(parent, child, i === 1, width, thickness));
    });
  }
  const base = byId.get('base');
  for (const corner of baseCorners(panel)) {
    const [before, after] = corner.ends.map(e => bent(e?.flange.id));
    if (corner.turn >= LEAST_TURN) {
      const [a, b] = corner.ends;
      const meet =
        before && after && a && b
          ? a.inset < (after.bend?.setbackMm ?? 0) + thickness &&
            b.inset < (before.bend?.setbackMm ?? 0) + thickness
          : false;
      const cut = before && after && meet ? cornerCut(corner.at, [before, after], thickness) : undefined;
      if (cut) out.push(cut);
      continue;
    }
    // an inward corner, or an edge that goes straight on: the sheet beside the bend stays flat
    for (const [d, atEnd, end] of [
      [before, true, corner.ends[0]],
      [after, false, corner.ends[1]],
    ] as const)
      if (base && d && end && end.inset <= 1e-6) out.push(slot(base, d, atEnd, width, thickness));
  }
  return out;
}

/** What the reliefs take off a blank, mm². */
export function reliefArea({ blank }: FoldedPanel): number {
  if (blank.reliefs.length === 0) return 0;
  const whole = union(blank.pieces.map(p => p.outline));
  return areaOf(whole) - areaOf(difference(whole, union(blank.reliefs.flatMap(r => r.outlines))));
}
