import { blankPlace, drilled, type FoldedPanel, type HoleShape, type PlateHole } from '../fold';
import { dot3, toDegrees, type Vec2, type Vec3 } from '../geometry';
import { type HoleCut, type PlanDocument, stackedIn, topPlateOf } from '../plan';
import type { Member, PresentRig } from '../rig';
import { MM_PER_INCH } from '../units';
import { goesRound } from './drill';
import type { ResolvedJoint } from './joint';
import { DOWN, outwardOf } from './outward';
import { type JointSeat, type PlateSeat, seatsOf } from './seat';
import { setsNut } from './setting';
import { legsOf, strapOver } from './strap';
import { type Thread, threadNamed } from './thread';

/** Square neck of a carriage bolt, the largest, mm: ASME B18.5 (inch); ISO 8677, as DIN 603 (metric; M5 and M12 likely, M14 from memory). */
const NECK: Readonly<Record<string, number>> = {
  M5: 5.48,
  M6: 6.48,
  M8: 8.58,
  M10: 10.58,
  M12: 12.7,
  M14: 14.7,
  '1/4': 0.26 * MM_PER_INCH,
  '5/16': 0.324 * MM_PER_INCH,
  '3/8': 0.388 * MM_PER_INCH,
  '7/16': 0.452 * MM_PER_INCH,
  '1/2': 0.515 * MM_PER_INCH,
};
/** Room round a square neck, mm: common practice, no source. */
const NECK_ROOM = 0.4;
/** Square hole for a carriage bolt, mm across. */
export const squareHole = (t: Thread): number => Math.ceil(((NECK[t.size] ?? t.d) + NECK_ROOM) * 10) / 10;

/** A pilot is drilled with this, mm (1/8 in): common practice, no source. */
export const PILOT_HOLE = MM_PER_INCH / 8;

/** Whole angle of a sunk head: 90° metric (ISO 10642), 82° inch (ASME B18.3). */
export const sinkAngle = (t: Thread): number => (t.system === 'inch' ? 82 : 90);

/**
 * Whether the vehicle's hole is marked through the plate, which comes down again before it is drilled, whatever the method: a nut that is
 * set from the plate's side, and a member that is drilled right through, want the plate out of the way. Common practice, no source.
 */
export const marksFirst = (j: Pick<ResolvedJoint, 'joint' | 'nut'>): boolean =>
  topPlateOf(j.joint) !== undefined || setsNut(j);

/**
 * How the shop cuts a joint's holes: as the joint says; else full, but a pilot where the vehicle itself is drilled through the plate as
 * its template, for there the pilot leads the drill through both.
 */
export function cutOf(
  j: Pick<ResolvedJoint, 'joint' | 'nut' | 'mount'>,
  method: Pick<PlanDocument['plan']['method'], 'drilling'>,
): HoleCut {
  if (j.joint.cut) return j.joint.cut;
  const inPlace = j.mount?.hole.kind === 'drill' && method.drilling === 'template' && !goesRound(j.joint);
  return inPlace && !marksFirst(j) ? 'pilot' : 'full';
}

/** Hole for a self-clinching nut, mm: catalogs of such nuts, from memory; the nut's own maker says. */
const CLINCH: Readonly<Record<string, number>> = {
  M5: 6.35,
  M6: 8.75,
  M8: 10.5,
  M10: 14,
  M12: 17,
  '1/4': 8.75,
  '5/16': 10.5,
  '3/8': 14.3,
  '1/2': 17.5,
};

/** Hole for a clinch nut of a thread, by its designation, mm. */
export function clinchHole(designation: string): number {
  const t = threadNamed(designation);
  return t.ok ? (CLINCH[t.value.size] ?? Math.ceil(14 * t.value.d) / 10) : 14;
}

/** The hole in a bracket that has the thread: for the tap (thread diameter less pitch, ISO 2306), for a clinch nut, else for the bolt. */
function threadHole({ joint, thread }: ResolvedJoint): number {
  if (joint.nut === 'none') return Math.round((thread.d - thread.pitch) * 10) / 10;
  if (joint.nut === 'clinch') return clinchHole(thread.designation);
  return thread.clearances.normal;
}

/** The hole that a bolt wants in one of its plates when all is done, in the blank's axes; `turn` is the flat's there, degrees. */
function finalShape(j: ResolvedJoint, panel: string, atHead: boolean, turn: number): HoleShape {
  const { joint, thread } = j;
  const clear = thread.clearances[joint.fit ?? 'normal'];
  if (joint.threadIn === panel) return { circle: threadHole(j) };
  const slot = joint.slots?.[panel];
  if (slot) return { slot: [Math.max(slot.length, clear), clear], along: slot.along + turn };
  if (atHead && joint.fastener.head === 'carriage') return { square: squareHole(thread), along: turn };
  return { circle: clear };
}

function holeIn(
  j: ResolvedJoint,
  seat: PlateSeat,
  p: FoldedPanel,
  atHead: boolean,
  method: PlanDocument['plan']['method'],
  axis: Vec3,
): PlateHole | undefined {
  if (seat.facet === undefined || seat.where === 'beside') return undefined;
  const d = p.blank.developed.find(x => x.facet.id === seat.facet);
  const base = p.facets[0];
  if (!d || !base) return undefined;
  const inBlank = toDegrees(Math.atan2(d.u[1], d.u[0]));
  const final = finalShape(j, p.panel.id, atHead, slotTurn(p, seat, inBlank));
  const how = cutOf(j, method);
  const cut: HoleShape | undefined =
    how === 'none' ? undefined : how === 'pilot' ? { circle: PILOT_HOLE } : final;
  const threaded = j.joint.threadIn === p.panel.id && how === 'full';
  const sunk = atHead && j.joint.fastener.head === 'countersunk' && !j.joint.washers.includes('cup');
  return {
    joint: j.id,
    facet: seat.facet,
    at: seat.at,
    blank: seat.blank,
    kind:
      threaded && (j.joint.nut === 'none' || j.joint.nut === 'clinch')
        ? j.joint.nut === 'none'
          ? 'tapped'
          : 'clinch'
        : how === 'none'
          ? 'uncut'
          : how === 'pilot'
            ? 'pilot'
            : 'slot' in final
              ? 'slot'
              : 'square' in final
                ? 'square'
                : 'clearance',
    final,
    ...(threaded && j.joint.nut === 'clinch'
      ? {
          pressedFrom:
            dot3(axis, facetNormal(p, seat)) > 0 ? ('underside' as const) : ('upper face' as const),
        }
      : {}),
    ...(cut ? { cut } : {}),
    ...(sunk
      ? {
          sink: {
            diameter: j.head.bearing,
            depth: Math.min(j.head.height, p.sheet.thickness),
            angle: sinkAngle(j.thread),
            // the head's side of a sheet: its underside where the head is below and the flat looks up
            below: (j.joint.headSide === 'below') === seatLooksUp(p, seat),
          },
        }
      : {}),
  };
}

const facetNormal = (p: FoldedPanel, seat: PlateSeat): Vec3 =>
  p.facets.find(f => f.id === seat.facet)?.frame.n ?? [0, 0, 1];
const seatLooksUp = (p: FoldedPanel, seat: PlateSeat): boolean => facetNormal(p, seat)[2] >= 0;

/** The base's u as it lies in a flat, turned into the blank's axes, degrees. */
function slotTurn(p: FoldedPanel, seat: PlateSeat, inBlank: number): number {
  const facet = p.facets.find(f => f.id === seat.facet);
  const base = p.facets[0];
  if (!facet || !base || facet === base) return 0;
  const own: Vec2 = [dot3(base.frame.u, facet.frame.u), dot3(base.frame.u, facet.frame.v)];
  return Math.hypot(...own) < 1e-6 ? inBlank : toDegrees(Math.atan2(own[1], own[0])) + inBlank;
}

/** The two holes for the legs of a strap, either side of the place on its axis. */
function strapHoles(j: ResolvedJoint, member: Member, hole: PlateHole, p: FoldedPanel): readonly PlateHole[] {
  const facet = p.facets.find(f => f.id === hole.facet);
  if (!facet) return [];
  return legsOf(strapOver(member, j.thread, outwardOf(j.mount))).map(way => {
    const at: Vec2 = [hole.at[0] + dot3(way, facet.frame.u), hole.at[1] + dot3(way, facet.frame.v)];
    return { ...hole, at, blank: blankPlace(p, facet.id, at) };
  });
}

/** The holes that a plate's joints make in it. */
export function plateHoles(
  p: FoldedPanel,
  joints: readonly ResolvedJoint[],
  seats: ReadonlyMap<string, JointSeat>,
  method: PlanDocument['plan']['method'],
): readonly PlateHole[] {
  return joints.flatMap(j => {
    const stands = seats.get(j.id);
    const seat = stands?.plates.find(s => s.panel === p.panel.id);
    const axis = stands?.axis ?? DOWN;
    if (!seat || j.nut?.kind === 'tube-clamp')
      return seat ? (holeIn(j, seat, p, false, method, axis) ?? []) : [];
    if (j.nut?.kind === 'axle-strap' && j.member) {
      const hole = holeIn(j, seat, p, false, method, axis);
      return hole ? strapHoles(j, j.member, hole, p) : [];
    }
    const outermost = j.joint.panels[0] === p.panel.id;
    const innermost = stackedIn(j.joint).at(-1) === p.panel.id;
    const atHead = j.joint.headSide === 'below' ? outermost : innermost && j.joint.mount === undefined;
    return holeIn(j, seat, p, atHead, method, axis) ?? [];
  });
}

interface Kept {
  readonly joints: readonly ResolvedJoint[];
  readonly seats: readonly (JointSeat | undefined)[];
  readonly drilling: string;
  readonly made: FoldedPanel;
}
const kept = new WeakMap<FoldedPanel, Kept>();

const alike = (a: readonly PlateHole[], b: readonly PlateHole[]): boolean =>
  a.length === b.length && a.every((h, i) => JSON.stringify(h) === JSON.stringify(b[i]));

/** Plates with the holes of their joints in them, and where every joint stands; each kept while nothing of its own changes. */
export function drilledPanels(
  folded: readonly FoldedPanel[],
  joints: readonly ResolvedJoint[],
  rig: PresentRig,
  method: PlanDocument['plan']['method'],
): { readonly panels: readonly FoldedPanel[]; readonly seats: ReadonlyMap<string, JointSeat> } {
  const seats = seatsOf(joints, rig, folded);
  const panels = folded.map(p => {
    const mine = joints.filter(j => j.joint.panels.includes(p.panel.id));
    const stand = mine.map(j => seats.get(j.id));
    const last = kept.get(p);
    const same =
      last &&
      last.drilling === method.drilling &&
      last.joints.length === mine.length &&
      last.joints.every((j, i) => j === mine[i]) &&
      last.seats.every((s, i) => s === stand[i]);
    if (same) return last.made;
    const holes = plateHoles(p, mine, seats, method);
    // a neighbor that moved changes a shared bolt's seat, but seldom the hole in this plate: the plate stays the one that it was
    const made = last && alike(holes, last.made.holes) ? last.made : drilled(p, holes);
    kept.set(p, { joints: mine, seats: stand, drilling: method.drilling, made });
    return made;
  });
  return { panels, seats };
}
