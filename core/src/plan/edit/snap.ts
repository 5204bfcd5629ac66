import { boxOf, frameOf, toSpace, type Vec2 } from '../../geometry';
import type { PresentRig } from '../../rig';
import type { PlanDocument } from '../plan';
import { panelWord } from '../select';

/** Lines across and along the vehicle that an edge or corner likes to lie on, each with what it is. mm. */
export interface SnapLines {
  readonly x: readonly (readonly [at: number, what: string])[];
  readonly y: readonly (readonly [at: number, what: string])[];
}

/** Holes, members, the line of symmetry and the corners of every plate but one. */
export function snapLines(doc: PlanDocument, rig: PresentRig, except?: string): SnapLines {
  const x: [number, string][] = [];
  const y: [number, string][] = [[0, 'center line']];
  for (const m of rig.mounts) {
    x.push([m.at[0], `hole ${m.id}`]);
    y.push([m.at[1], `hole ${m.id}`]);
  }
  for (const m of rig.members) {
    const { min, max } = boxOf(m.footprint);
    x.push([min[0], m.id], [max[0], m.id]);
    y.push([min[1], m.id], [max[1], m.id]);
    // a plate ends in the middle of a member that crosses, or a bit past it
    if (max[0] - min[0] < 300) x.push([(min[0] + max[0]) / 2, `middle of ${m.id}`]);
  }
  for (const p of doc.plan.panels) {
    if (p.id === except) continue;
    const frame = frameOf(p.base);
    for (const q of p.base.outline) {
      const s = toSpace(frame, q);
      x.push([s[0], panelWord(p)]);
      y.push([s[1], panelWord(p)]);
    }
  }
  return { x, y };
}

export interface Snapped {
  readonly at: Vec2;
  /** what it snapped to; undefined where it lies on the grid only */
  readonly x?: string;
  readonly y?: string;
}

const near = (
  v: number,
  lines: SnapLines['x'],
  reach: number,
  grid: number,
): { v: number; what?: string } => {
  let best: readonly [number, string] | undefined;
  for (const l of lines) if (!best || Math.abs(l[0] - v) < Math.abs(best[0] - v)) best = l;
  if (best && Math.abs(best[0] - v) <= reach) return { v: best[0], what: best[1] };
  return { v: grid > 0 ? Math.round(v / grid) * grid : v };
};

/** A place on the ground plane, snapped to lines within `reach` mm, else to the grid (1 mm, or a sixteenth). */
export function snapped(at: Vec2, lines: SnapLines, reach: number, grid: number): Snapped {
  const [x, y] = [near(at[0], lines.x, reach, grid), near(at[1], lines.y, reach, grid)];
  return { at: [x.v, y.v], x: x.what, y: y.what };
}
