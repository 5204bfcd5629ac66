import { boxOf, toDegrees } from '../../geometry';
import type { Component, PresentRig } from '../../rig';
import type { Lane } from './lanes';
import { MAX_SPACER, OVERLAP, ROOM, STEEPEST } from './wish';

/** How a plate runs from its front station to its rear one; z of its underside, mm. */
export interface Run {
  readonly kind: 'straight' | 'belly';
  readonly frontZ: number;
  readonly rearZ: number;
  /** z of the level belly, and where it begins and ends along the vehicle */
  readonly belly?: { readonly z: number; readonly from: number; readonly to: number };
  /** drop of the belly below each end, taken by a ramp or by a spacer */
  readonly frontRamp: number;
  readonly rearRamp: number;
  readonly frontSpacer: number;
  readonly rearSpacer: number;
  readonly fault?: string;
}

interface Ceiling {
  readonly x0: number;
  readonly x1: number;
  readonly z: number;
  readonly name: string;
}

/** Highest allowed upper face along a lane: under each part by its keep-out, moving parts and other members too. */
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
      z: item.zBottom - Math.max(item.keepOut, item.moves ? 10 : 0) - 1,
      name: item.name,
    })),
    ...over(rig.members)
      .filter(({ item }) => item.id !== lane.front.member.id && item.id !== lane.rear.member.id)
      .map(({ item, x0: a, x1: b }) => ({ x0: a, x1: b, z: item.zBottom - 1, name: item.id })),
  ];
}

/** Levels of a lane's two ends under their stations, one sheet deeper where a neighbour lies between. */
export interface Ends {
  readonly front: number;
  readonly rear: number;
}

/**
 * Finds a run below every ceiling: straight from station to station, if need be on spacers; else level under the
 * lowest part with a ramp up to each station that is higher.
 */
export function runOf(rig: PresentRig, lane: Lane, ends: Ends): Run {
  const ceilings = ceilingsOver(rig, lane);
  const { front, rear } = lane;
  const span = rear.x - front.x;
  const lineAt = (x: number): number => ends.front + ((ends.rear - ends.front) * (x - front.x)) / span;
  // how far the line lies too high, at each place, and the place's share of the way to the rear
  const high = ceilings.flatMap(c =>
    [c.x0, c.x1].map(x => ({ by: lineAt(x) + ROOM - c.z, share: (x - front.x) / span })),
  );
  const drop = Math.max(0, ...high.map(h => h.by));
  if (drop <= MAX_SPACER) {
    // each end is lowered no more than it must be, the other being where it is
    const least = (other: number, own: (share: number) => number): number =>
      Math.ceil(
        Math.max(
          0,
          ...high
            .filter(h => own(h.share) > 0.02)
            .map(h => (h.by - other * (1 - own(h.share))) / own(h.share)),
        ),
      );
    const frontSpacer = Math.min(
      Math.ceil(drop),
      least(drop, s => 1 - s),
    );
    const rearSpacer = Math.min(
      Math.ceil(drop),
      least(frontSpacer, s => s),
    );
    return {
      kind: 'straight',
      frontZ: ends.front - frontSpacer,
      rearZ: ends.rear - rearSpacer,
      frontRamp: 0,
      rearRamp: 0,
      frontSpacer,
      rearSpacer,
    };
  }
  const lowest = Math.min(...ceilings.map(c => c.z));
  const z = Math.floor(Math.min(lowest - ROOM, ends.front, ends.rear));
  const lip = OVERLAP / 2;
  const [frontEnd, rearEnd] = [front.x + front.half + 8, rear.x - rear.half - 8];
  const frontRamp = rampUp(ceilings, frontEnd, ends.front, z, 1, rearEnd);
  const rearRamp = rampUp(ceilings, rearEnd, ends.rear, z, -1, frontRamp?.foot ?? frontEnd);
  const spacer = (end: number, ramp: Ramp | undefined): number => end - (ramp ? ramp.top : z);
  const [frontSpacer, rearSpacer] = [spacer(ends.front, frontRamp), spacer(ends.rear, rearRamp)];
  const culprit = ceilings.find(c => c.z === lowest)?.name ?? '';
  const long = Math.max(frontSpacer, rearSpacer);
  return {
    kind: 'belly',
    frontZ: frontRamp?.top ?? z,
    rearZ: rearRamp?.top ?? z,
    belly: { z, from: frontRamp?.foot ?? front.x - lip, to: rearRamp?.foot ?? rear.x + lip },
    frontRamp: frontRamp ? frontRamp.top - z : 0,
    rearRamp: rearRamp ? rearRamp.top - z : 0,
    frontSpacer,
    rearSpacer,
    fault:
      long > 2 * MAX_SPACER
        ? `${culprit} hangs ${Math.round(long)} mm below the member beside it, with no room for a ramp: the spacers would be too long`
        : undefined,
  };
}

interface Ramp {
  /** underside at the member, and where the ramp reaches the belly */
  readonly top: number;
  readonly foot: number;
}

/** A drop smaller than this is no ramp, mm. */
const LEAST_RAMP = 15;
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
): Ramp | undefined {
  if (end - z <= MAX_SPACER) return undefined;
  for (const top of [end, end - MAX_SPACER, end - 2 * MAX_SPACER])
    for (const angle of ANGLES) {
      if (top - z < LEAST_RAMP) continue;
      const slope = Math.tan((angle * Math.PI) / 180);
      const foot = x + (towards * (top - z)) / slope;
      if ((limit - foot) * towards < 60) continue;
      const height = (at: number): number => Math.max(z, Math.min(top, top - Math.abs(at - x) * slope));
      // the highest point of the ramp under a ceiling is where the ceiling is nearest to the member
      const clear = ceilings.every(c => {
        const nearest = towards > 0 ? Math.max(c.x0, x) : Math.min(c.x1, x);
        const reaches = towards > 0 ? c.x1 > x - 30 : c.x0 < x + 30;
        return !reaches || height(nearest) + ROOM <= c.z + 0.01;
      });
      if (clear) return { top, foot };
    }
  return undefined;
}

export const rampAngle = (drop: number, run: number): number => toDegrees(Math.atan2(drop, run));

/** Slope of a run at its front or rear end: how much it falls to the rear, mm a mm; a belly ends level. */
export const slopeAt = (run: Run, lane: Lane): number =>
  run.belly ? 0 : (run.frontZ - run.rearZ) / (lane.rear.x - lane.front.x);
