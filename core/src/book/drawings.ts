import type { ResolvedJoint } from '../bolt';
import { type FlatPattern, type FoldedPanel, facetInSpace, holeOutline, openingOutline } from '../fold';
import { boxOf, type Polygon, toSpace, type Vec2 } from '../geometry';
import type { PresentRig } from '../rig';
import { formatLength, type UnitSystem } from '../units';
import { PAGE, type Sheet } from './sheet';

/** From where the underside is looked at: the map is laid out as the reader sees it. */
export type Side = 'above' | 'head-front' | 'head-rear';

/** Puts a stretch of plane into a box on the page, as large as it fits, and says how many mm of page a mm is. */
function fit(
  points: readonly Vec2[],
  box: { readonly x: number; readonly y: number; readonly w: number; readonly h: number },
  flip: readonly [x: boolean, y: boolean],
): { readonly put: (p: Vec2) => Vec2; readonly k: number } {
  const { min, max } = boxOf(points);
  const k = Math.min(box.w / Math.max(1, max[0] - min[0]), box.h / Math.max(1, max[1] - min[1]));
  const [cx, cy] = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2];
  return {
    k,
    put: ([x, y]) => [
      box.x + box.w / 2 + (x - cx) * k * (flip[0] ? -1 : 1),
      box.y + box.h / 2 + (y - cy) * k * (flip[1] ? -1 : 1),
    ],
  };
}

const flats = (p: FoldedPanel): readonly Polygon[] =>
  p.facets.map(f => facetInSpace(f).map((q): Vec2 => [q[0], q[1]]));
const openings = (p: FoldedPanel): readonly Polygon[] => {
  const base = p.facets[0];
  return base
    ? p.panel.openings.map(o =>
        openingOutline(o).map((q): Vec2 => {
          const s = toSpace(base.frame, q);
          return [s[0], s[1]];
        }),
      )
    : [];
};

/** What a map shows. */
export interface MapOf {
  readonly rig: PresentRig;
  readonly panels: readonly FoldedPanel[];
  /** numbered in this order where `numbered`, else by their ids */
  readonly joints: readonly ResolvedJoint[];
  readonly side: Side;
  readonly numbered?: boolean;
  /** the whole underside, or the plates and bolts alone */
  readonly whole?: boolean;
  readonly jackAt?: Vec2;
}

/** The underside as a line drawing `height` mm high, parts dashed, plates in full lines with their marks, bolts dotted. */
export function drawMap(
  s: Sheet,
  { rig, panels, joints, side, numbered, whole, jackAt }: MapOf,
  height: number,
): void {
  s.room(height + 6);
  const shown = panels.flatMap(p => flats(p).flat());
  const bolts = joints.map((j): Vec2 => [j.at[0], j.at[1]]);
  const parts = whole ? rig.components.filter(c => c.protect || c.moves) : [];
  const points = [...shown, ...bolts, ...parts.flatMap(c => [...c.footprint])];
  if (points.length === 0) return;
  const { put } = fit(points, { x: PAGE.margin + 4, y: s.y + 3, w: s.width - 8, h: height - 6 }, [
    side === 'head-rear',
    side !== 'head-front',
  ]);
  const laid = (r: readonly Polygon[]): Polygon[] => r.map(o => o.map(put));
  for (const p of panels) {
    s.outline(laid(flats(p)), 0.35, [], true);
    s.outline(laid(openings(p)), 0.2);
  }
  for (const c of parts) s.outline(laid([c.footprint]), 0.15, [1.2, 0.8]);
  joints.forEach((j, i) => {
    const at = put([j.at[0], j.at[1]]);
    s.dot(at, numbered ? 1.9 : 0.8, false);
    if (numbered) s.label(`${i + 1}`, at, 6.5, true);
  });
  for (const p of panels) s.label(p.panel.mark, put([p.centroid[0], p.centroid[1]]), 12, true);
  if (jackAt) {
    const at = put(jackAt);
    s.line([at[0] - 3, at[1]], [at[0] + 3, at[1]], 0.6);
    s.line([at[0], at[1] - 3], [at[0], at[1] + 3], 0.6);
  }
  s.y += height;
  const rightAtTop = side !== 'head-front';
  const driverAtTop = (rig.rig.driverSide === 'right') === rightAtTop;
  s.text(
    `Driver\u2019s side at the ${driverAtTop ? 'top' : 'bottom'}, ${side === 'head-rear' ? 'rear' : 'front'} at the left, ${side === 'above' ? 'seen from above' : 'seen lying on your back'}.`,
    8,
  );
}

/** A blank `height` mm high: cut lines full, bends up dash-dotted, bends down dashed, each with its name; its size dimensioned. */
export function drawBlank(s: Sheet, p: FlatPattern, height: number, units: UnitSystem): void {
  s.room(height + 4);
  const box = { x: PAGE.margin + 16, y: s.y + 3, w: s.width - 22, h: height - 16 };
  const { put } = fit(p.outline.flat(), box, [false, true]);
  const laid = (r: readonly Polygon[]): Polygon[] => r.map(o => o.map(put));
  s.outline(laid(p.outline), 0.4);
  for (const c of p.cutouts) {
    if ('circle' in c) {
      const ring = Array.from({ length: 36 }, (_, i): Vec2 => {
        const a = (i * Math.PI) / 18;
        return [c.at[0] + (c.circle / 2) * Math.cos(a), c.at[1] + (c.circle / 2) * Math.sin(a)];
      });
      s.outline(laid([ring]), 0.25);
    } else s.outline(laid([c.polygon]), 0.25);
  }
  s.outline(laid(p.marked), 0.2, [0.5, 0.7]);
  for (const h of p.holes) {
    const at = put(h.at);
    if (h.cut) s.outline(laid([holeOutline(h.cut, h.at)]), 0.25);
    if (!h.cut || h.kind === 'pilot') {
      s.line([at[0] - 1.4, at[1]], [at[0] + 1.4, at[1]], 0.15);
      s.line([at[0], at[1] - 1.4], [at[0], at[1] + 1.4], 0.15);
    }
    if (h.sink) s.outline(laid([holeOutline({ circle: h.sink.diameter }, h.at)]), 0.15, [0.6, 0.5]);
    s.label(h.joint, [at[0], at[1] - 3], 5.5);
  }
  for (const b of p.bends) {
    const [from, to] = [put(b.from), put(b.to)];
    s.line(from, to, 0.2, b.direction === 'up' ? [4, 1, 0.6, 1] : [2, 1.2]);
    s.label(
      `${b.id} ${b.direction} ${Math.round(Math.abs(b.angle) * 10) / 10}°`,
      [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2],
      7,
      false,
      Math.abs(to[1] - from[1]) > Math.abs(to[0] - from[0]),
    );
  }
  const { min, max } = boxOf(p.outline.flat().map(put));
  const [w, h] = p.size;
  s.line([min[0], max[1] + 4], [max[0], max[1] + 4], 0.15);
  for (const x of [min[0], max[0]]) s.line([x, max[1] + 2.5], [x, max[1] + 5.5], 0.15);
  s.label(formatLength(w, units, true), [(min[0] + max[0]) / 2, max[1] + 4], 8);
  s.line([min[0] - 4, min[1]], [min[0] - 4, max[1]], 0.15);
  for (const y of [min[1], max[1]]) s.line([min[0] - 5.5, y], [min[0] - 2.5, y], 0.15);
  s.label(formatLength(h, units, true), [min[0] - 4, (min[1] + max[1]) / 2], 8, false, true);
  s.y += height;
}
