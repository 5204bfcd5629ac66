import { blankPlace, type FoldedPanel, flatRegions, openingOutline, removesMetal } from '../fold';
import {
  add3,
  contains,
  distanceToOutline,
  dot3,
  inRegion,
  scale3,
  sub3,
  toDegrees,
  unit3,
  type Vec2,
  type Vec3,
} from '../geometry';
import { barFace, type Joint, stackedIn, topPlateOf } from '../plan';
import type { Member, Mount, PresentRig } from '../rig';
import type { ResolvedJoint } from './joint';
import { DOWN, outwardOf } from './outward';
import { throughMember } from './through';

/** Where a bolt's axis meets a plate. */
export type SeatPlace = 'flat' | 'bend' | 'opening' | 'beside';

/** One plate on a bolt. Distances along the axis from the face of the hole, away from the member, mm. */
export interface PlateSeat {
  readonly panel: string;
  readonly where: SeatPlace;
  /** the flat it passes through, or passes nearest to where it misses them all */
  readonly facet?: string;
  /** on that flat's underside, in its frame, and in the blank */
  readonly at: Vec2;
  readonly blank: Vec2;
  /** its face toward the member and its face away from it */
  readonly near: number;
  readonly far: number;
  /** between the axis and the square to the sheet, degrees */
  readonly tilt: number;
}

/** One place in a stack where two faces should meet: what is between them, less the spacer that is meant to fill it, mm. */
export interface SeatGap {
  /** the plate toward the head, and what it should lie against: the next plate, a bar, or the member */
  readonly plate: string;
  readonly against: { readonly kind: 'plate' | 'bar' | 'member'; readonly id: string };
  /** positive: it hangs short by as much; negative: it is inside by as much */
  readonly mm: number;
  /** the plate lies on the member's far side: a top plate */
  readonly top?: true;
}

/** A bolt as it stands in the vehicle. */
export interface JointSeat {
  readonly joint: string;
  /** the way out of the member's face, unit */
  readonly axis: Vec3;
  /** the hole's face on the axis; of a joint without a hole the place it is at */
  readonly face: Vec3;
  /** outermost first */
  readonly plates: readonly PlateSeat[];
  readonly gaps: readonly SeatGap[];
  /** why the hole itself holds nothing: its member is not there, it hangs in the air beside it, or inside it */
  readonly loose?: 'no-member' | 'mid-air';
}

/** Faces nearer than this meet, mm: what paint and washers take up. */
export const SEAT_TOLERANCE = 0.5;
/** A hole's place may lie this far off the face of its member, mm: what a tape reads wrong. */
const OFF_FACE = 2;

/** A plate's place on an axis: of all its flats the one that lies where the stack wants it, or the nearest it passes by. */
function seatIn(p: FoldedPanel, face: Vec3, axis: Vec3, wanted: number): PlateSeat | undefined {
  const t = p.sheet.thickness;
  let best: { seat: PlateSeat; rank: readonly [number, number] } | undefined;
  for (const f of p.facets) {
    const slope = dot3(axis, f.frame.n);
    if (Math.abs(slope) < 0.05 || f.outline.length < 3) continue;
    const under = dot3(sub3(f.frame.origin, face), f.frame.n) / slope;
    const upper = under + t / slope;
    const on = sub3(add3(face, scale3(axis, under)), f.frame.origin);
    const at: Vec2 = [dot3(on, f.frame.u), dot3(on, f.frame.v)];
    const inside = contains(f.outline, at);
    const off = distanceToOutline(f.outline, at);
    const [near, far] = [Math.min(under, upper), Math.max(under, upper)];
    const rank = [inside ? 0 : off, Math.abs(near - wanted)] as const;
    if (
      best &&
      (best.rank[0] < rank[0] - 1e-9 || (best.rank[0] <= rank[0] + 1e-9 && best.rank[1] <= rank[1]))
    )
      continue;
    const blank = blankPlace(p, f.id, at);
    const flat = flatRegions(p).get(f.id) ?? [];
    const openings = f.parent === undefined ? p.panel.openings.filter(removesMetal).map(openingOutline) : [];
    const hit = openings.some(o => contains(o, at));
    const where: SeatPlace = !inside ? 'beside' : hit ? 'opening' : inRegion(flat, blank) ? 'flat' : 'bend';
    best = {
      rank,
      seat: {
        panel: p.panel.id,
        where,
        facet: f.id,
        at,
        blank,
        near,
        far,
        tilt: toDegrees(Math.acos(Math.min(1, Math.abs(slope)))),
      },
    };
  }
  return best?.seat;
}

/** Height along the axis that a bar takes up over a hole it is bolted to, and where its two faces lie. */
function barOn(
  rig: PresentRig,
  joint: Joint,
  face: Vec3,
): { id: string; near: number; far: number } | undefined {
  const bar =
    joint.mount === undefined ? undefined : rig.bars.find(b => b.mounts.includes(joint.mount as string));
  return bar && { id: bar.id, near: face[2] - barFace(bar, face, 1), far: face[2] - barFace(bar, face, -1) };
}

/** Whether a place lies in a member's block. */
const inBlock = (m: Member, [x, y, z]: Vec3): boolean =>
  z >= m.zBottom && z <= m.zTop && contains(m.footprint, [x, y]);

/** Whether a hole lies in a face of its member: just behind it is metal, just before it none. */
function looseHole(mount: Mount, member: Member | undefined, rig: PresentRig): JointSeat['loose'] {
  if (!member) return 'no-member';
  const [x, y, z] = mount.at;
  const out = outwardOf(mount);
  if (out !== DOWN && out[2] > -0.999) {
    const step = scale3(out, OFF_FACE + 0.5);
    return inBlock(member, sub3(mount.at, step)) && !inBlock(member, add3(mount.at, step))
      ? undefined
      : 'mid-air';
  }
  if (!contains(member.footprint, [x, y]) && distanceToOutline(member.footprint, [x, y]) > OFF_FACE)
    return 'mid-air';
  const bar = rig.bars.find(b => b.id === member.id);
  const bottom = bar ? barFace(bar, mount.at, -1) : member.zBottom;
  return Math.abs(z - bottom) > OFF_FACE ? 'mid-air' : undefined;
}

/** The way a joint without a hole in the vehicle looks: as it says, else square out of its outermost plate's underside where it is. */
function ownNormal(joint: Joint, at: Vec3, panels: ReadonlyMap<string, FoldedPanel>): Vec3 {
  if (joint.normal) return unit3(joint.normal);
  const outer = panels.get(joint.panels[0] ?? '');
  let best: { off: number; out: Vec3 } | undefined;
  for (const f of outer?.facets ?? []) {
    const from = sub3(at, f.frame.origin);
    const on: Vec2 = [dot3(from, f.frame.u), dot3(from, f.frame.v)];
    const off =
      Math.abs(dot3(from, f.frame.n)) + (contains(f.outline, on) ? 0 : distanceToOutline(f.outline, on));
    if (!best || off < best.off) best = { off, out: scale3(f.frame.n, -1) };
  }
  return best?.out ?? DOWN;
}

/** Where a joint stands: its axis through every one of its plates, and what is between the faces that should meet. */
export function seatOf(
  j: Pick<ResolvedJoint, 'id' | 'joint' | 'mount' | 'member' | 'at'>,
  rig: PresentRig,
  panels: ReadonlyMap<string, FoldedPanel>,
): JointSeat {
  const { joint, mount } = j;
  const axis = mount ? outwardOf(mount) : ownNormal(joint, j.at, panels);
  const bar = mount && axis[2] < -0.9 ? barOn(rig, joint, j.at) : undefined;
  // from the member outward
  const inner = stackedIn(joint)
    .flatMap(id => panels.get(id) ?? [])
    .reverse();
  // without a hole in the vehicle the innermost panel is what the others are bolted to, a spacer between
  const onto = mount === undefined && inner.length > 1 ? joint.spacer : 0;
  let wanted = joint.spacer - onto + (bar ? bar.far : 0);
  const seats: PlateSeat[] = [];
  for (const p of inner) {
    const seat = seatIn(p, j.at, axis, wanted);
    if (!seat) continue;
    if (seats.push(seat) === 1) wanted += onto;
    wanted += p.sheet.thickness;
  }
  const gaps: SeatGap[] = [];
  if (bar)
    gaps.push({
      plate: bar.id,
      against: { kind: 'member', id: mount?.member ?? '' },
      mm: bar.near - joint.spacer,
    });
  seats.forEach((s, i) => {
    const next = seats[i - 1];
    if (next)
      gaps.push({
        plate: s.panel,
        against: { kind: 'plate', id: next.panel },
        mm: s.near - next.far - (i === 1 ? onto : 0),
      });
    else if (bar) gaps.push({ plate: s.panel, against: { kind: 'bar', id: bar.id }, mm: s.near - bar.far });
    else if (mount)
      gaps.push({ plate: s.panel, against: { kind: 'member', id: mount.member }, mm: s.near - joint.spacer });
  });
  const top = panels.get(topPlateOf(joint) ?? '');
  const depth = top && j.member ? throughMember(j.member, j.at, axis) : 0;
  const onTop = top && seatIn(top, j.at, axis, -depth - top.sheet.thickness);
  if (onTop && mount)
    gaps.push({
      plate: onTop.panel,
      against: { kind: 'member', id: mount.member },
      mm: -depth - onTop.far,
      top: true,
    });
  const loose = mount ? looseHole(mount, j.member, rig) : undefined;
  return {
    joint: j.id,
    axis,
    face: j.at,
    plates: [...[...seats].reverse(), ...(onTop ? [onTop] : [])],
    gaps,
    ...(loose ? { loose } : {}),
  };
}

interface KeptSeat {
  readonly joint: ResolvedJoint;
  readonly bars: PresentRig['bars'];
  readonly panels: readonly (FoldedPanel | undefined)[];
  readonly seat: JointSeat;
}
const kept = new WeakMap<Joint, KeptSeat>();

/** Where every joint stands, by joint id; kept for as long as neither a joint nor one of its plates changes. */
export function seatsOf(
  joints: readonly ResolvedJoint[],
  rig: PresentRig,
  panels: readonly FoldedPanel[],
): ReadonlyMap<string, JointSeat> {
  const byId = new Map(panels.map(p => [p.panel.id, p]));
  return new Map(
    joints.map(j => {
      const mine = j.joint.panels.map(id => byId.get(id));
      const last = kept.get(j.joint);
      if (
        last &&
        last.joint === j &&
        last.bars.length === rig.bars.length &&
        last.bars.every((b, i) => b === rig.bars[i]) &&
        last.panels.length === mine.length &&
        last.panels.every((p, i) => p === mine[i])
      )
        return [j.id, last.seat];
      const seat = seatOf(j, rig, byId);
      kept.set(j.joint, { joint: j, bars: rig.bars, panels: mine, seat });
      return [j.id, seat];
    }),
  );
}
