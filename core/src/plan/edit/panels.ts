import {
  centroid,
  frameOf,
  intersection,
  type Polygon,
  rectangle,
  regionOf,
  selfCrossing,
  signedArea,
  toSpace,
  underGround,
  union,
  type Vec2,
  type Vec3,
} from '../../geometry';
import { err, ok, type Result } from '../../units';
import { USUAL_SHEET } from '../blank';
import type { Flange, Joint, Opening, Panel, PlanDocument, SheetChoice } from '../plan';
import { holeNamed } from '../present';
import { panelNamed } from '../select';
import { freshId, holesTidied, inPlan, marked, UNMARKED, withPanel } from './change';
import { lowered, tiedTo } from './lowered';

/** The sheet of a plate in each build that has one. */
const sheetsOf = (doc: PlanDocument, id: string): Readonly<Record<string, SheetChoice>> =>
  Object.fromEntries(doc.plan.builds.flatMap(b => (b.sheets[id] ? [[b.id, b.sheets[id]] as const] : [])));

/** Thickness of a plate's sheet in the build that plates are drawn for, mm. */
const sheetThickness = (doc: PlanDocument, id: string): number =>
  doc.plan.builds[0]?.sheets[id]?.thickness ?? USUAL_SHEET.thickness;

const MIN_AREA = 400;

/** What is wrong with an outline, as a sentence about that plate; undefined when it is sound. */
export function outlineFault(outline: Polygon, name: string): string | undefined {
  if (outline.length < 3) return `${name} needs at least three corners`;
  if (outline.some(p => !Number.isFinite(p[0]) || !Number.isFinite(p[1])))
    return `${name} has a corner that is not a number`;
  const cross = selfCrossing(outline);
  if (cross) return `${name} would cross itself: edge ${cross[0] + 1} meets edge ${cross[1] + 1}`;
  if (Math.abs(signedArea(outline)) < MIN_AREA) return `${name} would have no area`;
  return undefined;
}

const nameOf = (doc: PlanDocument, id: string): string => panelNamed(doc, id);

/** Changes a panel's outline, refused when it would cross itself or enclose nothing. */
export function outlineSet(doc: PlanDocument, id: string, outline: Polygon): Result<PlanDocument> {
  const fault = outlineFault(outline, nameOf(doc, id));
  return fault ? err(fault) : ok(withPanel(doc, id, p => ({ ...p, base: { ...p.base, outline } })));
}

/** A new plate with its sheet in every build and the next free letter; the others keep theirs. */
export function panelAdded(
  doc: PlanDocument,
  panel: Omit<Panel, 'id' | 'mark'> & { readonly id?: string },
  sheets: Readonly<Record<string, SheetChoice>> = {},
): { readonly document: PlanDocument; readonly id: string } {
  const id = panel.id ?? freshId('plate', doc.plan.panels);
  const builds = doc.plan.builds.map(b => {
    const usual = sheets[b.id] ?? Object.values(b.sheets)[0] ?? USUAL_SHEET;
    return { ...b, sheets: { ...b.sheets, [id]: usual } };
  });
  const panels = [...doc.plan.panels, { ...panel, id, mark: UNMARKED }];
  return { document: marked(inPlan(doc, { panels, builds })), id };
}

/** Takes plates out; joints lose them, and go when none is left; seams, sheets and the holes drilled for them go too. */
export function panelsRemoved(doc: PlanDocument, ids: readonly string[]): PlanDocument {
  const gone = new Set(ids);
  const left = (list: readonly string[]): readonly string[] => list.filter(x => !gone.has(x));
  const without = (j: Joint): Joint => {
    const { slots, threadIn, ...rest } = j;
    const kept = Object.entries(slots ?? {}).filter(([p]) => !gone.has(p));
    return {
      ...rest,
      ...(threadIn !== undefined && !gone.has(threadIn) ? { threadIn } : {}),
      panels: left(j.panels),
      ...(kept.length > 0 ? { slots: Object.fromEntries(kept) } : {}),
    };
  };
  return holesTidied(
    inPlan(doc, {
      panels: doc.plan.panels
        .filter(p => !gone.has(p.id))
        .map(p => {
          if (p.pairOf === undefined || !gone.has(p.pairOf)) return p;
          const { pairOf: _, ...alone } = p;
          return alone;
        }),
      ...(doc.plan.phases ? { phases: doc.plan.phases.map(f => ({ ...f, panels: left(f.panels) })) } : {}),
      joints: doc.plan.joints
        .map(j => (j.panels.some(p => gone.has(p)) ? without(j) : j))
        .filter((j, i) => {
          const was = doc.plan.joints[i]?.panels.length;
          // a bolt that held two sheets together, and no hole of the vehicle, holds nothing when one of them is gone
          return j.panels.length === was || j.panels.length > (j.mount === undefined ? 1 : 0);
        }),
      seams: doc.plan.seams.filter(s => !gone.has(s.front) && !gone.has(s.rear)),
      builds: doc.plan.builds.map(b => ({
        ...b,
        sheets: Object.fromEntries(Object.entries(b.sheets).filter(([p]) => !gone.has(p))),
      })),
    }),
  );
}

/** Moves a plate in space, mm. */
export const panelMoved = (doc: PlanDocument, id: string, [dx, dy, dz]: Vec3): PlanDocument =>
  withPanel(doc, id, p => {
    const [x, y, z] = p.base.origin;
    return { ...p, base: { ...p.base, origin: [x + dx, y + dy, z + dz] } };
  });

/** Moves one corner to a place in base coordinates. */
export function cornerMoved(doc: PlanDocument, id: string, corner: number, to: Vec2): Result<PlanDocument> {
  const panel = doc.plan.panels.find(p => p.id === id);
  if (!panel?.base.outline[corner]) return err(`${nameOf(doc, id)} has no corner ${corner + 1}`);
  return outlineSet(
    doc,
    id,
    panel.base.outline.map((q, i) => (i === corner ? to : q)),
  );
}

/** Moves an edge square to itself by a distance (outward is positive), its neighbors following along their lines. */
export function edgeMoved(doc: PlanDocument, id: string, edge: number, by: number): Result<PlanDocument> {
  const panel = doc.plan.panels.find(p => p.id === id);
  const outline = panel?.base.outline;
  if (!outline?.[edge]) return err(`${nameOf(doc, id)} has no edge ${edge + 1}`);
  const n = outline.length;
  const at = (i: number): Vec2 => outline[(i + n) % n] as Vec2;
  const [a, b] = [at(edge), at(edge + 1)];
  const l = Math.hypot(b[0] - a[0], b[1] - a[1]);
  if (l === 0) return err(`edge ${edge + 1} of ${nameOf(doc, id)} has no length`);
  const turn = signedArea(outline) < 0 ? -1 : 1;
  const out: Vec2 = [((b[1] - a[1]) / l) * turn, (-(b[0] - a[0]) / l) * turn];
  // each end slides along its neighbor's line; where that is parallel, straight out
  const slide = (end: Vec2, beyond: Vec2): Vec2 => {
    const d: Vec2 = [end[0] - beyond[0], end[1] - beyond[1]];
    const along = d[0] * out[0] + d[1] * out[1];
    if (Math.abs(along) < 0.2 * Math.hypot(d[0], d[1]) || along === 0)
      return [end[0] + out[0] * by, end[1] + out[1] * by];
    const k = by / along;
    return [end[0] + d[0] * k, end[1] + d[1] * k];
  };
  const [na, nb] = [slide(a, at(edge - 1)), slide(b, at(edge + 2))];
  return outlineSet(
    doc,
    id,
    outline.map((q, i) => (i === edge ? na : i === (edge + 1) % n ? nb : q)),
  );
}

const shiftEdges = (flanges: readonly Flange[], map: (edge: number) => number | undefined): Flange[] =>
  flanges.flatMap(f => {
    if (f.edge === 'far') return [f];
    const edge = map(f.edge);
    return edge === undefined ? [] : [{ ...f, edge }];
  });

/** Puts a corner on an edge at a share of its length; a flange there stays on the longer piece. */
export function cornerAdded(doc: PlanDocument, id: string, edge: number, share = 0.5): PlanDocument {
  return withPanel(doc, id, p => {
    const o = p.base.outline;
    const a = o[edge];
    const b = o[(edge + 1) % o.length];
    if (!a || !b) return p;
    const at: Vec2 = [a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share];
    return {
      ...p,
      base: { ...p.base, outline: [...o.slice(0, edge + 1), at, ...o.slice(edge + 1)] },
      flanges: shiftEdges(p.flanges, e => (e > edge || (e === edge && share < 0.5) ? e + 1 : e)),
    };
  });
}

/** Takes a corner away; flanges on its two edges go with it. */
export function cornerRemoved(doc: PlanDocument, id: string, corner: number): Result<PlanDocument> {
  const panel = doc.plan.panels.find(p => p.id === id);
  if (!panel?.base.outline[corner]) return err(`${nameOf(doc, id)} has no corner ${corner + 1}`);
  const n = panel.base.outline.length;
  const before = (corner - 1 + n) % n;
  const set = outlineSet(
    doc,
    id,
    panel.base.outline.filter((_, i) => i !== corner),
  );
  if (!set.ok) return set;
  return ok(
    withPanel(set.value, id, p => ({
      ...p,
      flanges: shiftEdges(panel.flanges, e =>
        e === corner || e === before ? undefined : e > corner ? e - 1 : e,
      ),
    })),
  );
}

/** A copy beside the plate, 60 mm to the rear, without its bolts. */
export function panelDuplicated(doc: PlanDocument, id: string): { document: PlanDocument; id: string } {
  const p = doc.plan.panels.find(x => x.id === id);
  if (!p) return { document: doc, id };
  const [x, y, z] = p.base.origin;
  const { id: _, mark: __, ...rest } = p;
  return panelAdded(
    doc,
    { ...rest, name: `${p.name}, copy`, base: { ...p.base, origin: [x + 60, y, z] } },
    sheetsOf(doc, id),
  );
}

/** The plate turned over to the other side of the vehicle's center line, as a copy or in its place. */
export function panelMirrored(
  doc: PlanDocument,
  id: string,
  copy: boolean,
): { document: PlanDocument; id: string } {
  const p = doc.plan.panels.find(x => x.id === id);
  if (!p) return { document: doc, id };
  const flip = ([u, v]: Vec2): Vec2 => [u, -v];
  const [x, y, z] = p.base.origin;
  const n = p.base.outline.length;
  // the outline keeps its winding: it is walked backwards, so edge i becomes edge n − 2 − i
  const mirrored: Panel = {
    ...p,
    base: {
      ...p.base,
      origin: [x, -y, z],
      roll: -p.base.roll || 0,
      outline: [...p.base.outline].reverse().map(flip),
    },
    flanges: p.flanges.map(f =>
      f.edge === 'far'
        ? f
        : {
            ...f,
            edge: (2 * n - 2 - f.edge) % n,
            ...(f.inset ? { inset: [f.inset[1], f.inset[0]] as const } : {}),
          },
    ),
    openings: p.openings.map(
      (o): Opening => ({
        ...o,
        at: flip(o.at),
        ...('polygon' in o.shape ? { shape: { polygon: o.shape.polygon.map(flip) } } : {}),
        serves: undefined,
      }),
    ),
  };
  if (!copy) return { document: withPanel(doc, id, () => mirrored), id };
  const { id: _, mark: __, ...rest } = mirrored;
  return panelAdded(doc, { ...rest, name: `${p.name}, mirrored`, guards: [] }, sheetsOf(doc, id));
}

/** Where a plate is split: across the vehicle at an x, or along it at a y, mm. */
export type SplitLine = { readonly x: number } | { readonly y: number };

/**
 * Splits a plate at a line into a front and a rear one (or a left and a right one) with an overlap; the front or left
 * one lies outside and hangs one sheet lower. Flanges stay on the edges they had; bolts go to the plates they are under.
 */
export function panelSplit(
  doc: PlanDocument,
  id: string,
  line: SplitLine,
  overlap = 60,
): Result<{ document: PlanDocument; ids: readonly [string, string] }> {
  const p = doc.plan.panels.find(q => q.id === id);
  if (!p) return err('there is no such plate');
  // the clipping library never comes back from a corner that is no number
  if (!p.base.outline.flat().every(Number.isFinite))
    return err(`${nameOf(doc, id)} has a corner that is no number`);
  const axis = 'x' in line ? 0 : 1;
  const at = 'x' in line ? line.x : line.y;
  const cut = at - p.base.origin[axis];
  const along = p.base.outline.map(q => q[axis]);
  if (cut - Math.min(...along) < overlap || Math.max(...along) - cut < overlap)
    return err(`${nameOf(doc, id)} cannot be split that close to its end`);
  const half = (from: number, to: number): Polygon | undefined => {
    const far = 20_000;
    const strip = axis === 0 ? rectangle(from, -far, to, far) : rectangle(-far, from, far, to);
    const parts = intersection(regionOf(p.base.outline), regionOf(strip));
    return parts.length === 1 ? parts[0] : undefined;
  };
  const front = half(-20_000, cut + overlap / 2);
  const rear = half(cut - overlap / 2, 20_000);
  if (!front || !rear) return err(`${nameOf(doc, id)} would split into more than two pieces there`);
  /** flanges on the edges they had; of the outer half they end before it laps over the other */
  const flangesOn = (outline: Polygon, lap?: number): Flange[] =>
    p.flanges.flatMap(f => {
      if (f.edge === 'far') return [];
      const a = p.base.outline[f.edge] as Vec2;
      const b = p.base.outline[(f.edge + 1) % p.base.outline.length] as Vec2;
      const l = Math.hypot(b[0] - a[0], b[1] - a[1]);
      const off = (q: Vec2): number =>
        Math.abs((q[0] - a[0]) * (b[1] - a[1]) - (q[1] - a[1]) * (b[0] - a[0])) / l;
      const edge = outline.findIndex((q, i) => {
        const r = outline[(i + 1) % outline.length] as Vec2;
        return off(q) < 0.01 && off(r) < 0.01 && Math.hypot(r[0] - q[0], r[1] - q[1]) > 20;
      });
      if (edge < 0) return [];
      const [from, to] = [outline[edge] as Vec2, outline[(edge + 1) % outline.length] as Vec2];
      const clear = (q: Vec2): number =>
        lap !== undefined && q[axis] > lap - 0.01 ? overlap + 2 * sheetThickness(doc, id) : 0;
      const inset: readonly [number, number] = [clear(from), clear(to)];
      const left = Math.hypot(to[0] - from[0], to[1] - from[1]) - inset[0] - inset[1];
      return left < 20 ? [] : [{ ...f, edge, inset: inset[0] + inset[1] > 0 ? inset : undefined }];
    });
  const piece = (
    outline: Polygon,
    take: (o: Opening) => boolean,
    lap?: number,
  ): Pick<Panel, 'base' | 'flanges' | 'openings'> => ({
    base: { ...p.base, outline },
    flanges: flangesOn(outline, lap),
    openings: p.openings.filter(take),
  });
  const first = withPanel(doc, id, q => ({
    ...q,
    ...piece(front, o => o.at[axis] < cut, cut + overlap / 2),
  }));
  const { document: both, id: second } = panelAdded(
    first,
    {
      ...piece(rear, o => o.at[axis] >= cut),
      name: `${p.name}, ${axis === 0 ? 'rear' : 'right'}`,
      guards: p.guards,
    },
    sheetsOf(doc, id),
  );
  const placeOf = (mount: string | undefined): number | undefined => holeNamed(doc, mount)?.at[axis];
  const joints = both.plan.joints.map(j => {
    const where = placeOf(j.mount) ?? j.at?.[axis];
    if (where === undefined || !j.panels.includes(id) || where < at - overlap / 2) return j;
    const to = where > at + overlap / 2 ? [second] : [id, second];
    return { ...j, panels: j.panels.flatMap(q => (q === id ? to : [q])) };
  });
  const handedOn = (s: PlanDocument['plan']['seams'][number]) =>
    axis === 0 && s.front === id
      ? { ...s, front: second, outside: s.outside === id ? second : s.outside }
      : s;
  const seams = [...both.plan.seams.map(handedOn), { front: id, rear: second, overlap, outside: id }];
  const cutUp = inPlan(both, { joints, seams });
  // the two lie over one another now: the outer half hangs one sheet lower, and with it what is bolted to it alone
  const apart = inPlan(cutUp, { joints: joints.filter(j => !j.panels.includes(second)) });
  const down = lowered(apart, tiedTo(apart, id), sheetThickness(doc, id));
  const moved = new Map(down.plan.joints.map(j => [j.id, j]));
  const document = inPlan(cutUp, {
    panels: down.plan.panels,
    joints: joints.map(j => moved.get(j.id) ?? j),
  });
  return ok({ document, ids: [id, second] });
}

/** Makes one plate of two that touch or lap; the second is drawn into the plane of the first. */
export function panelsMerged(doc: PlanDocument, a: string, b: string): Result<PlanDocument> {
  const [p, q] = [a, b].map(id => doc.plan.panels.find(x => x.id === id));
  if (!p || !q || p === q) return err('choose two plates to merge');
  const [fp, fq] = [frameOf(p.base), frameOf(q.base)];
  const into = (at: Vec2): Vec2 => {
    const s = toSpace(fq, at);
    return underGround(fp, s[0], s[1]);
  };
  const merged = union([p.base.outline, q.base.outline.map(into)]);
  const [outline] = merged;
  if (merged.length !== 1 || !outline)
    return err(`${nameOf(doc, a)} and ${nameOf(doc, b)} do not touch: move them together first`);
  const set = outlineSet(doc, a, outline);
  if (!set.ok) return set;
  const joined = withPanel(set.value, a, x => ({
    ...x,
    flanges: [],
    openings: [
      ...p.openings,
      ...q.openings.map(o => ({ ...o, id: freshId(o.kind, [...p.openings, ...q.openings]), at: into(o.at) })),
    ],
    guards: [...new Set([...p.guards, ...q.guards])],
  }));
  const handed = inPlan(joined, {
    joints: joined.plan.joints.map(j => ({
      ...j,
      panels: [...new Set(j.panels.map(x => (x === b ? a : x)))],
    })),
    seams: joined.plan.seams
      .map(s => ({
        ...s,
        front: s.front === b ? a : s.front,
        rear: s.rear === b ? a : s.rear,
        outside: s.outside === b ? a : s.outside,
      }))
      .filter(s => s.front !== s.rear),
  });
  return ok(panelsRemoved(handed, [b]));
}

/** The middle of a plate's base in vehicle coordinates. */
export const panelMiddle = (p: Panel): Vec3 => toSpace(frameOf(p.base), centroid(p.base.outline));
