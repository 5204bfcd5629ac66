import { type FoldedPanel, holeMargin } from '../fold';
import { add3, type Vec3 } from '../geometry';
import { topPlateOf } from '../plan';
import { needsNewNut } from './drill';
import { ELEMENTS } from './elements';
import type { ResolvedJoint } from './joint';
import { outwardOf } from './outward';
import type { JointSeat } from './seat';
import { legsOf, strapOver } from './strap';
import { threadNamed } from './thread';

/** Why a bolt holds nothing at all, or one of its plates not. */
export interface HoldFault {
  readonly kind:
    | 'no-member'
    | 'mid-air'
    | 'blocked'
    | 'other-thread'
    | 'too-thick'
    | 'no-thread'
    | 'not-through'
    | 'post-no-thread'
    | 'head-turns'
    | 'beside'
    | 'opening'
    | 'bend'
    | 'edge';
  /** the plate that it does not hold; without one it holds none */
  readonly panel?: string;
}

/** Heads that cut a thread of their own. */
export const SELF_TAPPING: ReadonlySet<string> = new Set(['thread-cutting', 'self-drilling']);
/** Holes with a thread that a post's stud is screwed into. */
const THREADED: ReadonlySet<string> = new Set(['threaded', 'captive-nut', 'rivet-nut', 'clip-nut']);
/** Holes that a bolt can go right through, once the far wall is drilled. */
export const GOES_THROUGH: ReadonlySet<string> = new Set(['through', 'slot', 'drill']);
/** Heads that nothing turns: their nut is turned. */
export const STILL_HEADS: ReadonlySet<string> = new Set(['carriage', 't-bolt']);
/** Where a joint holds its plates: on its axis, a strap by its two legs. */
export const heldAt = (j: ResolvedJoint): readonly Vec3[] =>
  j.nut?.kind === 'axle-strap' && j.member
    ? legsOf(strapOver(j.member, j.thread, outwardOf(j.mount))).map(leg => add3(j.at, leg))
    : [j.at];
/** What keeps a joint as it stands from holding its plates; none where it holds them all. */
export function holdFaults(
  j: ResolvedJoint,
  seat: JointSeat | undefined,
  panels: readonly FoldedPanel[],
): readonly HoldFault[] {
  const out: HoldFault[] = [];
  if (seat?.loose) out.push({ kind: seat.loose });
  const { mount, joint, nut } = j;
  if (mount?.condition === 'blocked') out.push({ kind: 'blocked' });
  const own = mount?.hole.thread === undefined ? undefined : threadNamed(mount.hole.thread);
  if (
    (joint.nut === 'none' || joint.nut === 'post') &&
    !needsNewNut(mount) &&
    mount?.hole.kind !== 'through' &&
    mount?.hole.kind !== 'slot' &&
    own?.ok &&
    own.value.designation !== j.thread.designation
  )
    out.push({ kind: 'other-thread' });
  const hole =
    mount?.hole.kind === 'through' || mount?.hole.kind === 'slot' ? mount.hole.diameter : undefined;
  if (hole !== undefined && joint.nut !== 'rivet-nut' && j.thread.d > hole + 1e-6)
    out.push({ kind: 'too-thick' });
  // its stud wants a sound thread in the vehicle
  if (joint.nut === 'post' && (needsNewNut(mount) || !THREADED.has(mount?.hole.kind ?? '')))
    out.push({ kind: 'post-no-thread' });
  // a top plate wants the bolt to come out of the member's far side
  if (mount && topPlateOf(joint) !== undefined && !GOES_THROUGH.has(mount.hole.kind))
    out.push({ kind: 'not-through' });
  const tiesPlates = mount === undefined && joint.panels.length > 1;
  if (!nut && !SELF_TAPPING.has(joint.fastener.head) && (mount !== undefined || tiesPlates))
    out.push({ kind: 'no-thread' });
  if (nut && STILL_HEADS.has(joint.fastener.head) && ELEMENTS[nut.kind].fast === true)
    out.push({ kind: 'head-turns' });
  for (const s of seat?.plates ?? []) {
    if (s.where !== 'flat') {
      out.push({ kind: s.where, panel: s.panel });
      continue;
    }
    const p = panels.find(x => x.panel.id === s.panel);
    const drawn = p?.holes.filter(h => h.joint === j.id) ?? [];
    // a hole that runs out over an edge is a notch
    if (p && drawn.some(h => holeMargin(p, h) <= 0)) out.push({ kind: 'edge', panel: s.panel });
  }
  return out;
}

/** The joints that hold a plate: those that hold anything, and that pass through sound sheet of it. */
export const holding = (
  panel: string,
  joints: readonly ResolvedJoint[],
  seats: ReadonlyMap<string, JointSeat>,
  panels: readonly FoldedPanel[],
): readonly ResolvedJoint[] =>
  joints.filter(
    j =>
      j.joint.panels.includes(panel) &&
      !holdFaults(j, seats.get(j.id), panels).some(f => f.panel === undefined || f.panel === panel),
  );
