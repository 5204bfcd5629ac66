import { boxOf } from '../geometry';
import type { Member, Mount, PresentRig } from '../rig';

/** A member that crosses under the vehicle, where plates end and are bolted. */
export interface Station {
  readonly member: Member;
  /** middle along the vehicle, mm */
  readonly x: number;
  readonly half: number;
  readonly zBottom: number;
  readonly y: readonly [number, number];
  readonly mounts: readonly Mount[];
}

const CROSSES = 250;
const NARROW = 260;
/** Members nearer to each other than this count as one support, mm. */
const SAME_PLACE = 90;

/** Members that cross, front to rear; of two at the same place the lower one counts. */
export function stationsOf(rig: PresentRig): readonly Station[] {
  const all = rig.members
    .map((member): Station => {
      const b = boxOf(member.footprint);
      return {
        member,
        x: (b.min[0] + b.max[0]) / 2,
        half: (b.max[0] - b.min[0]) / 2,
        zBottom: member.zBottom,
        y: [b.min[1], b.max[1]],
        mounts: rig.mounts.filter(m => m.member === member.id && m.condition !== 'blocked'),
      };
    })
    .filter(s => s.y[1] - s.y[0] >= CROSSES && 2 * s.half <= NARROW)
    .sort((a, b) => a.x - b.x);
  return all.filter(
    (s, i) =>
      !all.some(
        (o, k) =>
          k !== i &&
          Math.abs(o.x - s.x) < SAME_PLACE &&
          (o.zBottom < s.zBottom || (o.zBottom === s.zBottom && k < i)),
      ),
  );
}
