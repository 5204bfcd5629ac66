import { boxOf, type Vec2 } from '../geometry';
import type { Component, PresentRig } from '../rig';
import type { Lane } from './lanes';
import { MAX_SPACER, OVERLAP, STEEPEST } from './wish';

/**
 * How a plate runs from its front end to its rear one: places along the vehicle and the heights of its underside there, mm, front first.
 * Both ends lie level under their members, so that bolts stand square to them.
 */
export interface Profile {
  readonly points: readonly Vec2[];
  /** further down that each end has to hang, mm; nought where the profile stands */
  readonly more: readonly [front: number, rear: number];
  /** set where its spacers would be too long: how long, mm, and the part that hangs so low */
  readonly fault?: { readonly longMm: number; readonly under?: string };
}

/** Levels of a lane's two ends, mm: its underside under the front member and under the rear one. */
export interface Ends {
  readonly front: number;
  readonly rear: number;
}

interface Ceiling {
  readonly x0: number;
  readonly x1: number;
  readonly z: number;
  readonly name: string;
}

/** Room beside what hangs above, mm: an upper face just under its clearance is too near once it is painted. */
const AIR = 1;
/** Parts that move keep at least this much, mm. */
const MOVING = 10;

/** Highest allowed upper face along a lane: under each part by its clearance, moving parts and other members too. */
export function ceilingsOver(rig: PresentRig, lane: Lane): readonly Ceiling[] {
  const [x0, x1] = [lane.front.x - OVERLAP / 2, lane.rear.x + OVERLAP / 2];
  const [y0, y1] = lane.y;
  const over = <T extends { readonly footprint: Component['footprint'] }>(items: readonly T[]) =>
    items.flatMap(item => {
      const b = boxOf(item.footprint);
      const [from, to] = [Math.max(b.min[0], x0), Math.min(b.max[0], x1)];
      return from < to && b.min[1] < y1 && b.max[1] > y0 ? [{ item, x0: from, x1: to }] : [];
    });
  return [
    ...over(rig.components).map(({ item, x0: a, x1: b }) => ({
      x0: a,
      x1: b,
      z: item.zBottom - Math.max(item.keepOut, item.moves ? MOVING : 0) - AIR,
      name: item.name,
    })),
    ...over(rig.members)
      .filter(({ item }) => item.id !== lane.front.member.id && item.id !== lane.rear.member.id)
      .map(({ item, x0: a, x1: b }) => ({ x0: a, x1: b, z: item.zBottom - AIR, name: item.id })),
  ];
}

/** Height of a profile's underside at a place along the vehicle. */
export function heightOn(points: readonly Vec2[], x: number): number {
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1] as Vec2, points[i] as Vec2];
    if (x <= b[0] || i === points.length - 1) {
      const k = b[0] === a[0] ? 0 : (x - a[0]) / (b[0] - a[0]);
      return a[1] + (b[1] - a[1]) * Math.max(0, Math.min(1, k));
    }
  }
  return points[0]?.[1] ?? 0;
}

/** How far a profile's upper face reaches above what hangs over it, mm; zero or less where it is clear. */
function excess(points: readonly Vec2[], thickness: number, ceilings: readonly Ceiling[]): number {
  let worst = Number.NEGATIVE_INFINITY;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1] as Vec2, points[i] as Vec2];
    const run = b[0] - a[0];
    const upright = run > 0 ? (thickness * Math.hypot(run, b[1] - a[1])) / run : thickness;
    for (const c of ceilings) {
      const [x0, x1] = [Math.max(a[0], c.x0), Math.min(b[0], c.x1)];
      if (x0 > x1) continue;
      for (const x of [x0, x1]) worst = Math.max(worst, heightOn([a, b], x) + upright - c.z);
    }
  }
  return worst;
}

/** Ends that differ by no more than this are made level with a spacer under the higher one, mm: a bend so slight is no bend. */
const LEVEL = 12;

/** From end to end: level, or a slope between two level lips whose bends lie `lip` mm from the middle of their members. */
function straight(lane: Lane, ends: Ends, lip: readonly [number, number]): readonly Vec2[] {
  const [a, b] = [lane.front.x - OVERLAP / 2, lane.rear.x + OVERLAP / 2];
  if (Math.abs(ends.front - ends.rear) < 0.01)
    return [
      [a, ends.front],
      [b, ends.rear],
    ];
  return [
    [a, ends.front],
    [lane.front.x + lip[0], ends.front],
    [lane.rear.x - lip[1], ends.rear],
    [b, ends.rear],
  ];
}

/**
 * A profile below everything that hangs over the lane: level or sloping from member to member, if need be on spacers; else level under
 * the lowest part with a ramp up to each member that is higher.
 */
export function profileOf(
  rig: PresentRig,
  lane: Lane,
  ends: Ends,
  thickness: number,
  lip: readonly [number, number],
  folds: boolean,
): Profile {
  const ceilings = ceilingsOver(rig, lane);
  const apart = ends.front - ends.rear;
  if (Math.abs(apart) >= 0.01 && (Math.abs(apart) <= LEVEL || !folds)) {
    const low = Math.min(ends.front, ends.rear);
    return { points: [], more: [ends.front - low, ends.rear - low] };
  }
  const clear = (down: readonly [number, number]): readonly Vec2[] | undefined => {
    const points = straight(lane, { front: ends.front - down[0], rear: ends.rear - down[1] }, lip);
    return excess(points, thickness, ceilings) <= 0.01 ? points : undefined;
  };
  const level = clear([0, 0]);
  if (level) return { points: level, more: [0, 0] };
  // no deeper than it must: both ends by as much, or the one end that is under the part
  let best: readonly [number, number] | undefined;
  const total = (d: readonly [number, number]): number => d[0] + d[1];
  for (let down = 1; down <= MAX_SPACER; down++) {
    const ways: readonly (readonly [number, number])[] =
      apart === 0
        ? [[down, down]]
        : [
            [down, 0],
            [0, down],
            [down, down],
          ];
    for (const way of ways) if ((!best || total(way) < total(best)) && clear(way)) best = way;
    if (best) break;
  }
  if (best) return { points: [], more: best };
  return belly(lane, ends, thickness, lip, ceilings, folds);
}

/** Level under the lowest part, with a ramp up to each member that is higher. */
function belly(
  lane: Lane,
  ends: Ends,
  thickness: number,
  lip: readonly [number, number],
  ceilings: readonly Ceiling[],
  folds: boolean,
): Profile {
  const { front, rear } = lane;
  const lowest = Math.min(...ceilings.map(c => c.z));
  const z = Math.floor(Math.min(lowest - thickness, ends.front, ends.rear));
  const [frontEnd, rearEnd] = [front.x + lip[0], rear.x - lip[1]];
  const frontRamp = folds ? rampUp(ceilings, frontEnd, ends.front, z, 1, rearEnd, thickness) : undefined;
  const rearRamp = folds
    ? rampUp(ceilings, rearEnd, ends.rear, z, -1, frontRamp?.foot ?? frontEnd, thickness)
    : undefined;
  const tops = [frontRamp?.top ?? z, rearRamp?.top ?? z] as const;
  const more: [number, number] = [ends.front - tops[0], ends.rear - tops[1]];
  const [a, b] = [front.x - OVERLAP / 2, rear.x + OVERLAP / 2];
  const points: Vec2[] = [
    [a, tops[0]],
    ...(frontRamp
      ? ([
          [frontEnd, tops[0]],
          [frontRamp.foot, z],
        ] as Vec2[])
      : []),
    ...(rearRamp
      ? ([
          [rearRamp.foot, z],
          [rearEnd, tops[1]],
        ] as Vec2[])
      : []),
    [b, tops[1]],
  ];
  const culprit = ceilings.find(c => c.z === lowest)?.name ?? '';
  const long = Math.max(...more);
  return {
    points,
    more,
    ...(long > 2 * MAX_SPACER
      ? {
          fault: { longMm: long, under: culprit },
        }
      : {}),
  };
}

interface Ramp {
  /** underside at the member, and where the ramp reaches the belly */
  readonly top: number;
  readonly foot: number;
}

/** Angles tried for a ramp, gentle first, degrees. */
const ANGLES = [28, 33, 38, 43, STEEPEST] as const;

/**
 * A ramp from a member's edge at `x` down to the belly at `z`, running `towards` the other member, under every ceiling
 * on its way; with a spacer at its top where it does not fit without. Undefined when a short drop wants none, or when
 * none fits before `limit`.
 */
function rampUp(
  ceilings: readonly Ceiling[],
  x: number,
  end: number,
  z: number,
  towards: 1 | -1,
  limit: number,
  thickness: number,
): Ramp | undefined {
  for (const top of [end, end - MAX_SPACER, end - 2 * MAX_SPACER])
    for (const angle of ANGLES) {
      if (top - z <= MAX_SPACER) continue;
      const slope = Math.tan((angle * Math.PI) / 180);
      const foot = x + (towards * (top - z)) / slope;
      if ((limit - foot) * towards < 60) continue;
      const upright = thickness / Math.cos((angle * Math.PI) / 180);
      const height = (at: number): number => Math.max(z, Math.min(top, top - (at - x) * towards * slope));
      // the highest point of the ramp under a ceiling is where the ceiling is nearest to the member
      const clear = ceilings.every(c => {
        const nearest = towards > 0 ? Math.max(c.x0, x - OVERLAP) : Math.min(c.x1, x + OVERLAP);
        const reaches = towards > 0 ? c.x1 > x - OVERLAP : c.x0 < x + OVERLAP;
        const low = height(nearest);
        return !reaches || low + (low > z ? upright : thickness) <= c.z + 0.01;
      });
      if (clear) return { top, foot };
    }
  return undefined;
}
