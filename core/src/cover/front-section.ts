import { type FoldedPanel, facetInSpace } from '../fold';
import type { Vec2, Vec3 } from '../geometry';
import type { Component, Member, PresentRig } from '../rig';

/** What a cut across the vehicle shows, seen from the front: (y, z), mm. */
export interface FrontSection {
  /** the underside of every flat that is cut, with the way into its sheet, as long as the thickness looks in this view */
  readonly sheet: readonly {
    readonly panel: string;
    readonly from: Vec2;
    readonly to: Vec2;
    readonly thick: Vec2;
  }[];
  /** flats of brackets near the cut, whole, as they are seen */
  readonly near: readonly { readonly panel: string; readonly outline: readonly Vec2[] }[];
  /** members and parts that are cut: the stretch of y, and of z */
  readonly blocks: readonly {
    readonly id: string;
    readonly kind: 'member' | 'part';
    readonly y: readonly [number, number];
    readonly z: readonly [number, number];
  }[];
}

/** The stretches of y in which a straight line across the vehicle at x lies in an outline. */
function stretches(outline: readonly Vec2[], x: number): readonly (readonly [number, number])[] {
  const ys: number[] = [];
  outline.forEach((a, i) => {
    const b = outline[(i + 1) % outline.length] as Vec2;
    // a corner on the line belongs to the edge that goes on to the rear alone
    if (a[0] <= x !== b[0] <= x) ys.push(a[1] + ((x - a[0]) / (b[0] - a[0])) * (b[1] - a[1]));
  });
  ys.sort((a, b) => a - b);
  return ys.flatMap((y, i) =>
    i % 2 === 0 && ys[i + 1] !== undefined ? [[y, ys[i + 1] as number] as const] : [],
  );
}

/** Where a flat polygon in space crosses the plane at x: its ends, by y. */
function cutAt(points: readonly Vec3[], x: number): readonly (readonly [Vec2, Vec2])[] {
  const hits: Vec2[] = [];
  points.forEach((a, i) => {
    const b = points[(i + 1) % points.length] as Vec3;
    if (a[0] <= x === b[0] <= x) return;
    const k = (x - a[0]) / (b[0] - a[0]);
    hits.push([a[1] + k * (b[1] - a[1]), a[2] + k * (b[2] - a[2])]);
  });
  hits.sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  return hits.flatMap((p, i) => (i % 2 === 0 && hits[i + 1] ? [[p, hits[i + 1] as Vec2] as const] : []));
}

/**
 * A cut across the vehicle at x, mm behind the front axle: plates as cut, brackets within `reach` of it whole, members and parts as blocks.
 * Source: plane geometry.
 */
export function frontSection(
  rig: Pick<PresentRig, 'members' | 'components'>,
  panels: readonly FoldedPanel[],
  x: number,
  reach = 120,
): FrontSection {
  const block = (kind: 'member' | 'part') => (b: Member | Component) =>
    stretches(b.footprint, x).map(y => ({ id: b.id, kind, y, z: [b.zBottom, b.zTop] as const }));
  return {
    blocks: [...rig.components.flatMap(block('part')), ...rig.members.flatMap(block('member'))],
    sheet: panels.flatMap(p =>
      p.facets.flatMap(f =>
        cutAt(facetInSpace(f), x).map(([from, to]) => ({
          panel: p.panel.id,
          from,
          to,
          thick: [f.frame.n[1] * p.sheet.thickness, f.frame.n[2] * p.sheet.thickness] as const,
        })),
      ),
    ),
    near: panels
      .filter(p => p.panel.role === 'bracket')
      .flatMap(p =>
        p.facets.flatMap(f => {
          const points = facetInSpace(f);
          const xs = points.map(q => q[0]);
          return Math.min(...xs) <= x + reach && Math.max(...xs) >= x - reach
            ? [{ panel: p.panel.id, outline: points.map((q): Vec2 => [q[1], q[2]]) }]
            : [];
        }),
      ),
  };
}
