import {
  areaOf,
  boxesMeet,
  boxOf,
  difference,
  intersection,
  type Polygon,
  type Region,
  rectangle,
  regionOf,
  signedArea,
  union,
  type Vec2,
} from '../geometry';
import { blankOutline } from './blank-outline';
import type { FoldedPanel, HoleShape, PlateHole, PlateHoleKind } from './folded-panel';
import { grainOf } from './grain';
import { cutHoles, holeArea } from './holes';
import { openingOutline, removesMetal } from './openings';
import { flatRegions } from './solid';

/** A bend's center line on the flat blank. */
export interface BendLine {
  readonly id: string;
  readonly from: Vec2;
  readonly to: Vec2;
  /** degrees, positive up */
  readonly angle: number;
  readonly direction: 'up' | 'down';
  readonly insideRadius: number;
}

/** A bolt's hole on the blank. */
export interface PatternHole {
  readonly joint: string;
  readonly at: Vec2;
  readonly kind: PlateHoleKind;
  /** as it is cut; undefined where the shop cuts nothing */
  readonly cut?: HoleShape;
  readonly final: HoleShape;
  readonly sink?: PlateHole['sink'];
}

export type Cutout = { readonly id: string } & (
  | { readonly at: Vec2; readonly circle: number }
  | { readonly polygon: Polygon }
);

/** A plate as a shop gets it: mm, in the base's own coordinates, seen from the underside's plane from above. */
export interface FlatPattern {
  readonly panel: string;
  readonly mark: string;
  readonly name: string;
  /** outer contours counter-clockwise, inner ones clockwise; one outer contour unless flanges stand apart */
  readonly outline: Region;
  readonly bends: readonly BendLine[];
  readonly cutouts: readonly Cutout[];
  readonly holes: readonly PatternHole[];
  /** louvers are lanced, not cut out: their outlines are marked */
  readonly marked: readonly Polygon[];
  readonly size: readonly [number, number];
  /** where mark and grain arrow are etched, and the grain's direction */
  readonly etch: {
    readonly at: Vec2;
    readonly grain: Vec2;
    /** what tells how it hangs, and the way that it points to; where it is to be told */
    readonly way?: { readonly text: string; readonly along: Vec2 };
  };
}

/** Room that mark and arrow want round their start, mm: before and after it, below and above. */
const ETCH_ROOM = { before: 12, after: 190, below: 12, above: 34 } as const;
/** Places along and across the plate that are tried. */
const ETCH_STEPS = [0.08, 0.2, 0.35, 0.5, 0.65, 0.8] as const;

/** Where mark and grain arrow stand on the base clear of openings and bends: near its front left, or the freest there is. */
function etchPlace(f: FoldedPanel, cutouts: readonly Polygon[]): Vec2 {
  const { min, max } = boxOf(f.panel.base.outline);
  const flat = difference(flatRegions(f).get('base') ?? [], union(cutouts));
  let best: { at: Vec2; free: number } = { at: min, free: -1 };
  for (const v of ETCH_STEPS)
    for (const u of ETCH_STEPS) {
      const at: Vec2 = [min[0] + u * (max[0] - min[0]), min[1] + v * (max[1] - min[1])];
      const room = rectangle(
        at[0] - ETCH_ROOM.before,
        at[1] - ETCH_ROOM.below,
        at[0] + ETCH_ROOM.after,
        at[1] + Math.max(ETCH_ROOM.above, grainOf(f)[1] * 70),
      );
      const free = areaOf(intersection(flat, regionOf(room))) / Math.abs(signedArea(room));
      if (free > 0.999) return at;
      if (free > best.free) best = { at, free };
    }
  return best.at;
}

const known = new WeakMap<FoldedPanel, FlatPattern>();

/** The blank of a folded plate with its bend lines; exact polygons, joined at the bends. */
export function flatPattern(f: FoldedPanel): FlatPattern {
  const made = known.get(f) ?? patternOf(f);
  known.set(f, made);
  return made;
}

/** Openings as they are cut: those that lie over one another become one outline. */
function cutoutsOf(f: FoldedPanel): readonly Cutout[] {
  const cut = f.panel.openings.filter(removesMetal);
  const outline = cut.map(openingOutline);
  const meets = (i: number, k: number): boolean =>
    i !== k &&
    boxesMeet(boxOf(outline[i] as Polygon), boxOf(outline[k] as Polygon)) &&
    areaOf(intersection(regionOf(outline[i] as Polygon), regionOf(outline[k] as Polygon))) > 1e-3;
  const groups: number[][] = [];
  cut.forEach((_, i) => {
    const joined = groups.filter(g => g.some(k => meets(i, k)));
    for (const g of joined) groups.splice(groups.indexOf(g), 1);
    groups.push([...joined.flat(), i].sort((a, b) => a - b));
  });
  return groups.flatMap((g): readonly Cutout[] => {
    const [o] = g.map(i => cut[i]);
    if (!o) return [];
    if (g.length === 1)
      return 'circle' in o.shape
        ? [{ id: o.id, at: o.at, circle: o.shape.circle }]
        : [{ id: o.id, polygon: openingOutline(o) }];
    const id = g.map(i => cut[i]?.id).join(' ');
    // what would fall out of the middle of a ring of openings falls out: only outer contours are cut
    return union(g.map(i => outline[i] as Polygon))
      .filter(ring => signedArea(ring) > 0)
      .map(polygon => ({ id, polygon }));
  });
}

/** Where the vehicle's front lies in the blank, or its left where the base stands across it. */
function wayOf(f: FoldedPanel): { text: string; along: Vec2 } {
  const frame = f.facets[0]?.frame ?? { u: [1, 0, 0], v: [0, 1, 0] };
  const front: Vec2 = [-frame.u[0], -frame.v[0]];
  const [text, way]: readonly [string, Vec2] =
    Math.hypot(...front) > 0.3 ? ['FRONT', front] : ['LEFT', [-frame.u[1], -frame.v[1]]];
  const l = Math.hypot(...way) || 1;
  return { text: `${text}, UP`, along: [way[0] / l || 0, way[1] / l || 0] };
}

function patternOf(f: FoldedPanel): FlatPattern {
  const { pieces } = f.blank;
  const outline = blankOutline(f);
  const bends = pieces
    .filter(p => p.kind === 'bend')
    .flatMap((p): BendLine[] => {
      const bend = f.bends.find(b => b.id === p.id);
      const [a, b, c, d] = p.outline;
      if (!bend || bend.angle === 0 || !a || !b || !c || !d) return [];
      const mid = (q: Vec2, r: Vec2): Vec2 => [(q[0] + r[0]) / 2, (q[1] + r[1]) / 2];
      return [
        {
          id: p.id,
          from: mid(a, b),
          to: mid(d, c),
          angle: bend.angle,
          direction: bend.angle > 0 ? 'up' : 'down',
          insideRadius: bend.insideRadius,
        },
      ];
    });
  const box = boxOf(outline.flat());
  const size: [number, number] = [box.max[0] - box.min[0], box.max[1] - box.min[1]];
  return {
    panel: f.panel.id,
    mark: f.panel.mark,
    name: f.panel.name,
    outline,
    bends,
    cutouts: cutoutsOf(f),
    holes: f.holes.map(({ joint, blank, kind, cut, final, sink }) => ({
      joint,
      at: blank,
      kind,
      final,
      ...(cut ? { cut } : {}),
      ...(sink ? { sink } : {}),
    })),
    marked: f.panel.openings.filter(o => !removesMetal(o)).map(openingOutline),
    size,
    etch: {
      at: etchPlace(f, [...f.panel.openings.map(openingOutline), ...cutHoles(f)]),
      grain: grainOf(f),
      ...(f.panel.wayUp ? { way: wayOf(f) } : {}),
    },
  };
}

/** Area left of a pattern, openings and holes taken off, mm². */
export const patternArea = (p: FlatPattern): number =>
  p.outline.reduce((s, o) => s + signedArea(o), 0) -
  p.cutouts.reduce(
    (s, c) => s + ('circle' in c ? (Math.PI * c.circle ** 2) / 4 : Math.abs(signedArea(c.polygon))),
    0,
  ) -
  p.holes.reduce((s, h) => s + (h.cut ? holeArea(h.cut) : 0), 0);
