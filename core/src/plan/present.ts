import type { Vec2, Vec3 } from '../geometry';
import { type Member, type PresentRig, presentRig } from '../rig';
import type { Crossbar, PlanDocument } from './plan';

const asMember = new WeakMap<Crossbar, Member>();

/** Corners of a bar on the ground plane, its ends square to its axis. */
export function barFootprint({
  from,
  to,
  section,
}: Pick<Crossbar, 'from' | 'to' | 'section'>): readonly Vec2[] {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const l = Math.hypot(dx, dy) || 1;
  const [sx, sy] = [(-dy / l) * (section.width / 2), (dx / l) * (section.width / 2)];
  return [
    [from[0] - sx, from[1] - sy],
    [to[0] - sx, to[1] - sy],
    [to[0] + sx, to[1] + sy],
    [from[0] + sx, from[1] + sy],
  ];
}

/** A crossbar as a member that plates are bolted to; of one that slopes the heights hold for its whole length. */
export function barMember(bar: Crossbar): Member {
  const hit = asMember.get(bar);
  if (hit) return hit;
  const { height, wall } = bar.section;
  const made: Member = {
    id: bar.id,
    kind: 'crossmember',
    name: bar.name,
    footprint: barFootprint(bar),
    zBottom: Math.min(bar.from[2], bar.to[2]) - height / 2,
    zTop: Math.max(bar.from[2], bar.to[2]) + height / 2,
    wall: wall === 'solid' ? height : wall,
  };
  asMember.set(bar, made);
  return made;
}

/** Height of a bar's upper (`1`) or lower (`-1`) face over a place on its axis, mm; past its ends its line goes on. */
export function barFace(
  { from, to, section }: Pick<Crossbar, 'from' | 'to' | 'section'>,
  [x, y]: Vec3 | Vec2,
  side: 1 | -1,
): number {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const l2 = dx * dx + dy * dy;
  const t = l2 === 0 ? 0 : ((x - from[0]) * dx + (y - from[1]) * dy) / l2;
  return from[2] + t * (to[2] - from[2]) + (side * section.height) / 2;
}

/** The vehicle with its options as selected, and what the plan adds to it: holes drilled for it, and its crossbars. */
export function presentOf({ rig, plan }: Pick<PlanDocument, 'rig' | 'plan'>): PresentRig {
  const here = presentRig(rig);
  const holes = plan.holes ?? [];
  if (holes.length === 0 && plan.crossbars.length === 0) return here;
  return {
    ...here,
    members: [...here.members, ...plan.crossbars.map(barMember)],
    mounts: [...here.mounts, ...holes],
    bars: plan.crossbars,
  };
}

/** A hole of the vehicle or of the plan by its id, whether its option is chosen or not. */
export const holeNamed = ({ rig, plan }: Pick<PlanDocument, 'rig' | 'plan'>, id: string | undefined) =>
  id === undefined ? undefined : (rig.mounts.find(m => m.id === id) ?? plan.holes?.find(m => m.id === id));
