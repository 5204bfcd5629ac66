import { boxOf, difference, type Polygon, type Region, signedArea, union, type Vec2 } from '../geometry';
import type { FoldedPanel } from './fold';
import { grainOf } from './grain';
import { openingOutline, removesMetal } from './openings';

/** A bend's centre line on the flat blank. */
export interface BendLine {
  readonly id: string;
  readonly from: Vec2;
  readonly to: Vec2;
  /** degrees, positive up */
  readonly angle: number;
  readonly direction: 'up' | 'down';
  readonly insideRadius: number;
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
  /** louvers are lanced, not cut out: their outlines are marked */
  readonly marked: readonly Polygon[];
  readonly size: readonly [number, number];
  /** where mark and grain arrow are etched, and the grain's direction */
  readonly etch: { readonly at: Vec2; readonly grain: Vec2 };
}

/** The blank of a folded plate with its bend lines; exact polygons, joined at the bends. */
export function flatPattern(f: FoldedPanel): FlatPattern {
  const { pieces } = f.blank;
  const whole = union(pieces.map(p => p.outline));
  const { reliefs } = f.blank;
  const outline = reliefs.length > 0 ? difference(whole, union(reliefs.flatMap(r => r.outlines))) : whole;
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
  const cut = f.panel.openings.filter(removesMetal);
  const box = boxOf(outline.flat());
  const size: [number, number] = [box.max[0] - box.min[0], box.max[1] - box.min[1]];
  const base = f.panel.base.outline;
  const corner = boxOf(base);
  return {
    panel: f.panel.id,
    mark: f.panel.mark,
    name: f.panel.name,
    outline,
    bends,
    cutouts: cut.map(
      (o): Cutout =>
        'circle' in o.shape
          ? { id: o.id, at: o.at, circle: o.shape.circle }
          : { id: o.id, polygon: openingOutline(o) },
    ),
    marked: f.panel.openings.filter(o => !removesMetal(o)).map(openingOutline),
    size,
    etch: {
      at: [
        corner.min[0] + 0.08 * (corner.max[0] - corner.min[0]),
        corner.min[1] + 0.12 * (corner.max[1] - corner.min[1]),
      ],
      grain: grainOf(f),
    },
  };
}

/** Area left of a pattern, openings taken off, mm². */
export const patternArea = (p: FlatPattern): number =>
  p.outline.reduce((s, o) => s + signedArea(o), 0) -
  p.cutouts.reduce(
    (s, c) => s + ('circle' in c ? (Math.PI * c.circle ** 2) / 4 : Math.abs(signedArea(c.polygon))),
    0,
  );
