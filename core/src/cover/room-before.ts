import type { FoldedPanel } from '../fold';
import { add3, cross3, prism, scale3, unit3, type Vec3 } from '../geometry';
import type { PresentRig } from '../rig';
import { type Body, blockBodies, bodyOf, plateBodies, reach, type SolidClash } from './solids';

/** How long a tool may be that is put on a head straight from outside, and what it would meet then. */
export interface RoomBefore {
  readonly mm: number;
  readonly with: SolidClash['with'];
}

const CORNERS = 8;
/** Lengths are tried this close, mm. */
const STEP = 5;

/** A round tool from a place outward, as an octagon over it. */
function tool(from: Vec3, out: Vec3, radius: number, length: number): readonly Body[] {
  const side = unit3(cross3(out, Math.abs(out[2]) < 0.9 ? [0, 0, 1] : [1, 0, 0]));
  const up = cross3(out, side);
  const round = Array.from({ length: CORNERS }, (_, i): Vec3 => {
    const a = (2 * Math.PI * (i + 0.5)) / CORNERS;
    return add3(from, add3(scale3(side, radius * Math.cos(a)), scale3(up, radius * Math.sin(a))));
  });
  return [bodyOf(prism(round, scale3(out, length)))];
}

/**
 * The room along an axis before a head, from `from` outward (`out`, unit), for a round tool of so many mm about it: how far it is free up to `most` mm, and
 * what ends it; undefined where all of that is free. Plates, members and parts count as solids.
 */
export function roomBefore(
  rig: Pick<PresentRig, 'members' | 'components'>,
  panels: readonly FoldedPanel[],
  from: Vec3,
  out: Vec3,
  radius: number,
  most: number,
): RoomBefore | undefined {
  const whole = tool(from, out, radius, most);
  const things = [
    ...panels.map(p => ({ kind: 'plate' as const, id: p.panel.id, bodies: plateBodies(p) })),
    ...rig.members.map(m => ({ kind: 'member' as const, id: m.id, bodies: blockBodies(m) })),
    ...rig.components.map(c => ({ kind: 'part' as const, id: c.id, bodies: blockBodies(c) })),
  ].filter(t => reach(whole, t.bodies) !== undefined);
  let best: RoomBefore | undefined;
  for (const { kind, id, bodies } of things) {
    let mm = 0;
    while (mm + STEP < most && !reach(tool(from, out, radius, mm + STEP), bodies)) mm += STEP;
    if (!best || mm < best.mm) best = { mm, with: { kind, id } };
  }
  return best;
}
