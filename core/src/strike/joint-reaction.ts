import { outwardOf, SPACER } from '../bolt';
import {
  add3,
  contains,
  cross3,
  dot3,
  length3,
  rectangle,
  scale3,
  sub3,
  type Vec2,
  type Vec3,
  wayOut,
} from '../geometry';
import { across, type Hung, heldFrom, movesOf } from './hung';
import { type JointSpring, jointForce, meanMove, stateOf } from './joint-spring';
import { forceOn, type ShellModel } from './model';
import { barOf, type Held, type PlateModel, pressedBack } from './plate-model';
import { type Flat3, inPlane2, nodeAt, planeOf } from './shell-mesh';
import { DOF_PER_NODE } from './sparse';
import type { StrikeReaction, StrikeWish } from './strike-wish';

/** What a struck plate's balance is made of. */
export interface Struck {
  readonly model: PlateModel;
  readonly flats: readonly Flat3[];
  readonly inner: Float64Array;
  readonly u: Float64Array;
  /** share of the load that is borne */
  readonly reached: number;
}

/**
 * What a joint takes, N and N·m: off its member, in the plane of the sheet, and as a moment under its head; and what its bolt is pulled
 * with, prying included (`pryingPull`).
 */
export function reactionOf(wish: StrikeWish, s: Struck, h: Held, nodes: readonly number[]): StrikeReaction {
  const { model, flats, u } = s;
  const flat = flats[h.flat] as Flat3;
  const plane = planeOf(flat.polygon);
  const upward = plane.n[2] < 0 ? scale3(plane.n, -1) : plane.n;
  const spring = model.springs?.find(x => x.id === h.joint.id);
  let R: Vec3 = [0, 0, 0];
  let M: Vec3 = [0, 0, 0];
  const tied = h.hung ? model.hung.nodeOf.get(h.joint.id) : model.barNodeOf.get(h.joint.id);
  if (tied !== undefined) ({ force: R, moment: M } = heldFrom(model.ties, model.mesh, tied, h.at, u));
  else
    for (const n of nodes) {
      const { force, moment } = heldWith(s, n, spring, upward);
      R = add3(R, force);
      M = add3(M, add3(moment, cross3(sub3(nodeAt(model.mesh, n), h.at), force)));
    }
  const { pull, moment, towards } = pulledBy(R, M, upward);
  const sheet = spring ? sheetForce(model, u, spring) : R;
  const shear = sub3(sheet, scale3(upward, dot3(sheet, upward)));
  const [mx, my] = spring ? meanMove(spring, (n, axis) => u[DOF_PER_NODE * n + axis] as number) : [0, 0];
  return {
    joint: h.joint.id,
    tensionN: Math.max(0, pull),
    boltN: pryingPull(pull, moment, contactEdge(wish, flat, h, towards), h.joint.thread.d),
    momentNm: moment / 1000,
    shearN: length3(shear),
    state: spring ? stateOf(spring, Math.hypot(mx, my)) : 'held',
  };
}

/** What pulls a sheet off, N, and tilts it, N·mm, and over which edge; what turns it about the bolt's own axis is friction under the head. */
function pulledBy(R: Vec3, M: Vec3, upward: Vec3) {
  const tilt = across(M, upward);
  const moment = length3(tilt);
  return {
    pull: dot3(R, upward),
    moment,
    towards: moment > 0 ? scale3(cross3(tilt, upward), 1 / moment) : ([1, 0, 0] as Vec3),
  };
}

/** What the bolts to the vehicle of a plate's brackets take: pried over the bracket's own edge. */
export const seatReactions = (hung: Hung, u: Float64Array): readonly StrikeReaction[] =>
  hung.hangers.flatMap(h =>
    h.seats(movesOf(hung, h, u)).map(({ joint, force, moment: M, flat }) => {
      const plane = planeOf(flat.polygon);
      // from the sheet to what it is clamped to
      const out = joint.mount ? outwardOf(joint.mount) : ([0, 0, -1] as Vec3);
      const upward = dot3(plane.n, out) > 0 ? scale3(plane.n, -1) : plane.n;
      const { pull, moment, towards } = pulledBy(force, M, upward);
      const edge = wayOut(
        flat.polygon.map(q => inPlane2(plane, q)),
        inPlane2(plane, joint.at),
        [dot3(towards, plane.u), dot3(towards, plane.v)],
      );
      return {
        joint: joint.id,
        tensionN: Math.max(0, pull),
        boltN: pryingPull(pull, moment, edge ?? 0, joint.thread.d),
        momentNm: moment / 1000,
        shearN: length3(across(force, upward)),
        state: 'held',
      };
    }),
  );

/**
 * Pull of a bolt, N, where the sheet under its head is pulled off with T (below nought where it is pressed on) and carries a moment M,
 * N·mm: the sheet is pried over the edge of what it is clamped to, `edge` mm from the bolt, while the head bears on the far side of the
 * shank, half a diameter off (AISC Manual 15th ed. part 9, prying: a' = a + d/2). With Q at the edge and B in the bolt: B = T + Q and
 * M = Q·edge + B·d/2. Where no edge is pressed the bolt takes T alone.
 */
export const pryingPull = (T: number, M: number, edge: number, d: number): number =>
  Math.max(0, T, (M + T * edge) / (edge + d / 2));

/** How far from its bolt, along a direction in its plane, a sheet touches what it is clamped to, mm: spacer, bar or member, and the sheet itself. */
function contactEdge(wish: StrikeWish, flat: Flat3, h: Held, towards: Vec3): number {
  const { joint } = h;
  const plane = planeOf(flat.polygon);
  const own = plane.u;
  const along: Vec2 = [dot3(towards, own), dot3(towards, plane.v)];
  const onFlat =
    wayOut(
      flat.polygon.map(q => inPlane2(plane, q)),
      inPlane2(plane, h.at),
      along,
    ) ?? 0;
  if (joint.joint.spacer > 0) return Math.min(onFlat, (SPACER.outer * joint.thread.d) / 2);
  const bar = barOf(wish, h);
  const at: Vec2 = [h.at[0], h.at[1]];
  const way: Vec2 = [towards[0], towards[1]];
  const under = (footprint: readonly Vec2[]): number =>
    contains(footprint, at) ? (wayOut(footprint, at, way) ?? Infinity) : 0;
  if (bar) {
    const [x, y] = [bar.to[0] - bar.from[0], bar.to[1] - bar.from[1]];
    const long = Math.hypot(x, y) || 1;
    const turned = ([a, b]: Vec2): Vec2 => [(a * x + b * y) / long, (b * x - a * y) / long];
    const w = bar.section.width / 2;
    const p = turned([at[0] - bar.from[0], at[1] - bar.from[1]]);
    return Math.min(onFlat, wayOut(rectangle(0, -w, long, w), p, turned(way)) ?? 0);
  }
  // plates joined to one another alone lie on each other at least under the head
  return Math.min(onFlat, joint.member ? under(joint.member.footprint) : h.radius);
}

/** Force and moment with which a node under a head is held to what it is clamped to, N and N·mm; not in the plane where a spring holds it. */
function heldWith(
  { model, inner, u, reached }: Struck,
  n: number,
  spring: JointSpring | undefined,
  upward: Vec3,
): { readonly force: Vec3; readonly moment: Vec3 } {
  const at = (k: number): number => inner[DOF_PER_NODE * n + k] as number;
  const moment: Vec3 = [at(3), at(4), at(5)];
  if (spring?.axes) return { force: pressedBack(n, upward, u), moment };
  const borne = (k: number): number => at(k) - reached * (model.load[DOF_PER_NODE * n + k] as number);
  return { force: spring ? [0, 0, borne(2)] : [borne(0), borne(1), borne(2)], moment };
}

/** What a joint's spring takes in the plane, from its law. */
function sheetForce(model: ShellModel, u: Float64Array, spring: JointSpring): Vec3 {
  const out = new Float64Array(model.load.length);
  jointForce(spring, (n, axis) => u[DOF_PER_NODE * n + axis] as number, out);
  return forceOn(out, spring.nodes);
}
