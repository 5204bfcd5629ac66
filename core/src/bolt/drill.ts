import type { Joint } from '../plan';
import type { Mount } from '../rig';
import { MM_PER_INCH, roundTo, tradeFraction, type UnitSystem } from '../units';
import type { Thread } from './thread';

/** Body hole of a rivet nut: common practice, no source. */
const RIVET_NUT_HOLE: Readonly<Record<string, number>> = { M5: 7, M6: 9, M8: 11, M10: 13, M12: 16, M14: 18 };

export const rivetNutHole = (t: Thread): number => RIVET_NUT_HOLE[t.size] ?? roundTo(1.35 * t.d, 1);

const PILOT = MM_PER_INCH / 8;

/** Pilot (1/8 in), steps of no more than twice the size before, and the final drill, mm. */
export function drillLadder(final: number): readonly number[] {
  const rungs = [roundTo(final, 2)];
  while ((rungs[0] as number) > 2.1 * PILOT) {
    const below = Math.max(PILOT, Math.round(((rungs[0] as number) / 1.8) * 2) / 2);
    rungs.unshift(below);
  }
  return (rungs[0] as number) > PILOT + 0.05 ? [roundTo(PILOT, 2), ...rungs] : rungs;
}

/** A drill is taken this much under a size at the most, mm: a hair, which a bit drills over by itself. Common practice, no source. */
const UNDER = 0.05;
/** A drill as it is sold there: in mm to a tenth, or the inch fraction next above, in 64ths. */
export const drillName = (mm: number, units: UnitSystem): string => {
  if (units === 'metric') return `${roundTo(mm, 1)} mm`;
  const next = (Math.ceil(((mm - UNDER) / MM_PER_INCH) * 64) / 64) * MM_PER_INCH;
  return `${tradeFraction(next)} in`;
};

/** Diameter of a new hole for a joint: by ISO 273 / ASME B18.2.8 clearance, tap drill, or shop figures. */
export function holeFor(joint: Joint, t: Thread): number {
  if (joint.nut === 'rivet-nut') return rivetNutHole(t);
  switch (joint.fastener.head) {
    case 'thread-cutting':
      // 5/16 for a 3/8 screw, 7/16 for a 1/2: common practice
      return t.size === '3/8'
        ? (5 / 16) * MM_PER_INCH
        : t.size === '1/2'
          ? (7 / 16) * MM_PER_INCH
          : 0.87 * t.d;
    case 'self-drilling':
      return Math.min((3 / 16) * MM_PER_INCH, 0.8 * t.d);
    case 'carriage':
      return t.d;
    default:
      return t.clearance;
  }
}

/** True when a hole's own nut has to be replaced before it can hold. */
export const needsNewNut = (mount: Mount | undefined): boolean =>
  mount?.condition === 'broken-nut' || mount?.condition === 'stripped';

/** Whether a joint holds its member from around it, by a clamp or a strap: no hole is made in that. */
export const goesRound = ({ nut }: Pick<Joint, 'nut'>): boolean =>
  nut === 'tube-clamp' || nut === 'axle-strap';

/** Drills, in order, that the vehicle itself needs at a joint; empty where the hole is there and sound. */
export function drillsFor(joint: Joint, mount: Mount | undefined, t: Thread): readonly number[] {
  if (!mount || goesRound(joint)) return [];
  if (mount.hole.kind === 'drill') return drillLadder(holeFor(joint, t));
  const setsRivetNut =
    joint.nut === 'rivet-nut' || (joint.nut === 'none' && needsNewNut(mount) && mount.nutReach === 'none');
  if (setsRivetNut && mount.hole.kind !== 'rivet-nut') {
    // the old hole or thread is the pilot
    const there = mount.hole.diameter ?? t.d;
    return drillLadder(rivetNutHole(t)).filter(x => x > there);
  }
  return [];
}
