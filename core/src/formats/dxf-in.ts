import DxfParser from 'dxf-parser';
import { boxOf, contains, distance2, type Polygon, selfCrossing, signedArea, type Vec2 } from '../geometry';
import { LIMITS } from '../plan';
import { err, MM_PER_FOOT, MM_PER_INCH, ok, type Result, roundTo } from '../units';
import { DXF_LIMITS, dxfEntities } from './dxf-door';

/** A plate outline from a drawing with what is cut out of it; mm, as drawn. */
export interface DrawnPlate {
  readonly outline: Polygon;
  readonly holes: readonly ({ readonly at: Vec2; readonly circle: number } | { readonly polygon: Polygon })[];
}
export interface DrawnPlates {
  readonly plates: readonly DrawnPlate[];
  /** how curves were made straight, mm off at most */
  readonly tolerance: number;
}

/** Curves are flattened to chords no farther than this from the arc, mm. */
export const DXF_TOLERANCE = 0.1;
/** A bulge below it is a straight line. */
const FLAT = 1e-6;
/** Ends this near to each other are joined, mm. */
const JOIN = 0.05;

/** Where a drawing has this layer, only what lies on it is cut. */
const CUT_LAYER = 'CUT';

/** $INSUNITS to mm; 0 means that the drawing does not say. */
const UNITS: Readonly<Record<number, number>> = {
  1: MM_PER_INCH,
  2: MM_PER_FOOT,
  4: 1,
  5: 10,
  6: 1000,
};

interface Point {
  readonly x: number;
  readonly y: number;
  readonly bulge?: number;
}
interface Entity {
  readonly type: string;
  readonly layer?: string;
  readonly vertices?: readonly Point[];
  readonly shape?: boolean;
  readonly center?: Point;
  readonly radius?: number;
  readonly startAngle?: number;
  readonly endAngle?: number;
}
interface Contour {
  readonly points: Polygon;
  readonly circle?: { readonly at: Vec2; readonly d: number };
}

/** Points along an arc from a0 by `sweep` (radians), without its last one. */
function arcPoints(c: Vec2, r: number, a0: number, sweep: number): Vec2[] {
  const step = 2 * Math.acos(Math.max(-1, 1 - DXF_TOLERANCE / Math.max(r, DXF_TOLERANCE)));
  // one more than a contour may have is told as what it is
  const n = Math.min(DXF_LIMITS.points + 1, Math.max(2, Math.ceil(Math.abs(sweep) / Math.max(step, 1e-6))));
  return Array.from({ length: n }, (_, i): Vec2 => {
    const a = a0 + (sweep * i) / n;
    return [c[0] + r * Math.cos(a), c[1] + r * Math.sin(a)];
  });
}

/** A polyline's segment as points: a bulge is the tangent of a quarter of its arc's angle. */
function segment(a: Point, b: Point, k: number): Vec2[] {
  const [p, q]: [Vec2, Vec2] = [
    [a.x * k, a.y * k],
    [b.x * k, b.y * k],
  ];
  // flatter than any line is drawn: its circle would have no center
  if (a.bulge === undefined || Math.abs(a.bulge) < FLAT) return [p];
  const sweep = 4 * Math.atan(a.bulge);
  const chord = distance2(p, q);
  if (chord === 0) return [p];
  const r = chord / 2 / Math.sin(Math.abs(sweep) / 2);
  const h = r * Math.cos(Math.abs(sweep) / 2) * Math.sign(a.bulge);
  const mid: Vec2 = [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2];
  const c: Vec2 = [mid[0] - ((q[1] - p[1]) / chord) * h, mid[1] + ((q[0] - p[0]) / chord) * h];
  return arcPoints(c, r, Math.atan2(p[1] - c[1], p[0] - c[0]), sweep);
}

/** A place in the drawing's own unit, as its program shows it. */
const place = (p: Vec2, perUnit: number): string =>
  `(${roundTo(p[0] / perUnit, 2)}, ${roundTo(p[1] / perUnit, 2)})`;

/** Joins loose lines and arcs end to end; what stays open is a fault with its place. */
function joined(paths: readonly (readonly Vec2[])[], perUnit: number): Result<Contour[]> {
  const left = paths.map(p => [...p]);
  const out: Contour[] = [];
  while (left.length > 0) {
    const path = left.shift() as Vec2[];
    for (;;) {
      const end = path.at(-1) as Vec2;
      if (path.length > 2 && distance2(end, path[0] as Vec2) < JOIN) break;
      const next = left.findIndex(
        p => distance2(p[0] as Vec2, end) < JOIN || distance2(p.at(-1) as Vec2, end) < JOIN,
      );
      if (next < 0) return err(`a contour is open at ${place(end, perUnit)}: close it in the drawing`);
      const [piece] = left.splice(next, 1) as [Vec2[]];
      if (distance2(piece[0] as Vec2, end) >= JOIN) piece.reverse();
      path.push(...piece.slice(1));
    }
    out.push({ points: path.slice(0, -1) });
  }
  return ok(out);
}

/** The unit factor a drawing states, to mm; undefined when it does not say. */
export function dxfUnit(text: string): number | undefined {
  const m = /\$INSUNITS\s*\r?\n\s*70\s*\r?\n\s*(\d+)/.exec(text);
  return m ? UNITS[Number(m[1])] : undefined;
}

/**
 * Plate outlines from a DXF drawing: closed polylines (arcs as bulges), circles, and lines and arcs that close. The
 * outer contours become plates, what lies within them their openings. `perUnit` is mm a drawing unit, needed where the
 * drawing does not state its unit. Any fault names what and where; nothing is taken in part.
 */
export function readDxf(text: string, perUnit: number | undefined = dxfUnit(text)): Result<DrawnPlates> {
  if (perUnit === undefined) return err('the drawing does not say its unit: choose mm or inch');
  const own = dxfEntities(text, perUnit);
  if (!own.ok) return own;
  let entities: readonly Entity[];
  try {
    entities = (new DxfParser().parseSync(own.value)?.entities ?? []) as unknown as readonly Entity[];
  } catch {
    return err('this is not a whole DXF drawing: the file may be torn');
  }
  const k = perUnit;
  // a drawing for a cutter keeps bend lines and etching on layers of their own
  const cut = entities.filter(e => e.layer?.toUpperCase() === CUT_LAYER);
  if (cut.length > 0) entities = cut;
  const closed: Contour[] = [];
  const loose: Vec2[][] = [];
  for (const e of entities) {
    if ((e.type === 'LWPOLYLINE' || e.type === 'POLYLINE') && e.vertices) {
      const v = e.vertices;
      const [first, last] = [v[0], v.at(-1)];
      if (!first || !last) continue;
      const back = v.length > 3 && Math.hypot(first.x - last.x, first.y - last.y) * k < JOIN;
      const ring = back ? v.slice(0, -1) : v;
      if (e.shape || back)
        closed.push({ points: ring.flatMap((p, i) => segment(p, ring[(i + 1) % ring.length] as Point, k)) });
      else
        loose.push([
          ...v.slice(0, -1).flatMap((p, i) => segment(p, v[i + 1] as Point, k)),
          [last.x * k, last.y * k],
        ]);
    } else if (e.type === 'CIRCLE' && e.center && e.radius) {
      const at: Vec2 = [e.center.x * k, e.center.y * k];
      closed.push({
        points: arcPoints(at, e.radius * k, 0, 2 * Math.PI),
        circle: { at, d: 2 * e.radius * k },
      });
    } else if (e.type === 'LINE' && e.vertices?.[0] && e.vertices[1]) {
      const [a, b] = e.vertices as [Point, Point];
      if (Math.hypot(a.x - b.x, a.y - b.y) * k > 1e-6)
        loose.push([
          [a.x * k, a.y * k],
          [b.x * k, b.y * k],
        ]);
    } else if (
      e.type === 'ARC' &&
      e.center &&
      e.radius &&
      e.startAngle !== undefined &&
      e.endAngle !== undefined
    ) {
      const c: Vec2 = [e.center.x * k, e.center.y * k];
      const r = e.radius * k;
      const sweep =
        (((e.endAngle - e.startAngle) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI) || 2 * Math.PI;
      loose.push([
        ...arcPoints(c, r, e.startAngle, sweep),
        [c[0] + r * Math.cos(e.startAngle + sweep), c[1] + r * Math.sin(e.startAngle + sweep)],
      ]);
    }
  }
  if (loose.length > DXF_LIMITS.loose)
    return err(`there are ${loose.length} loose lines and arcs; ${DXF_LIMITS.loose} is the most`);
  const chains = joined(loose, perUnit);
  if (!chains.ok) return chains;
  const all = [...closed, ...chains.value].filter(c => c.points.length > 2);
  if (all.length === 0) return err('there is no closed contour in the drawing');
  for (const c of all) {
    if (!c.points.flat().every(Number.isFinite))
      return err('a contour has a place that is none: the file may be torn');
    // circles stay circles
    if (!c.circle && c.points.length > DXF_LIMITS.points)
      return err(
        `a contour at ${place(c.points[0] as Vec2, perUnit)} has ${c.points.length} points with its curves made straight; ${DXF_LIMITS.points} is the most`,
      );
    const cross = selfCrossing(c.points);
    if (cross) return err(`a contour crosses itself near ${place(c.points[cross[0]] as Vec2, perUnit)}`);
    if (Math.abs(signedArea(c.points)) < 1)
      return err(`a contour at ${place(c.points[0] as Vec2, perUnit)} encloses no area`);
  }
  const size = (c: Contour): number => Math.abs(signedArea(c.points));
  const sorted = [...all].sort((a, b) => size(b) - size(a));
  const plates: { outline: Polygon; holes: DrawnPlate['holes'][number][] }[] = [];
  for (const c of sorted) {
    const first = c.points[0] as Vec2;
    const around = plates.find(p => contains(p.outline, first));
    if (!around) plates.push({ outline: c.points, holes: [] });
    else if (c.circle) around.holes.push({ at: c.circle.at, circle: c.circle.d });
    else around.holes.push({ polygon: c.points });
  }
  if (plates.length > LIMITS.panels)
    return err(`there are ${plates.length} outlines; ${LIMITS.panels} plates are the most`);
  const { min, max } = boxOf(all.flatMap(c => c.points));
  if (Math.max(max[0] - min[0], max[1] - min[1]) > 6000)
    return err('the drawing is larger than a vehicle: check its unit');
  return ok({ plates, tolerance: DXF_TOLERANCE });
}
