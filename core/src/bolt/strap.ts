import { cross3, dot3, type Polygon, scale3, sub3, unit3, type Vec3 } from '../geometry';
import type { Member } from '../rig';
import type { Thread } from './thread';

/** A strap over a round tube with a threaded leg on either side of it, as a plate under the tube is held. mm. */
export interface Strap {
  /** across the tube, leg to leg, unit */
  readonly across: Vec3;
  /** what it goes over: the tube from side to side */
  readonly overMm: number;
  /** from the middle of the tube to the middle of a leg */
  readonly legMm: number;
}

/** Air between a tube and the leg beside it, mm: paint and a weld bead (common practice, no source). */
const BESIDE = 1;

/** The way that a footprint is longest, unit. */
function lengthwise(footprint: Polygon): Vec3 {
  let best: Vec3 = [0, 1, 0];
  let longest = 0;
  footprint.forEach(([x, y], i) => {
    const [u, v] = footprint[(i + 1) % footprint.length] as (typeof footprint)[number];
    const l = Math.hypot(u - x, v - y);
    if (l > longest) {
      longest = l;
      best = unit3([u - x, v - y, 0]);
    }
  });
  return best;
}

/** The strap that goes over a member, its legs pointing along `out`: a leg's own radius and a little air beside the tube. */
export function strapOver(member: Member, t: Thread, out: Vec3): Strap {
  const along = lengthwise(member.footprint);
  const across = unit3(cross3(along, out));
  const middle: Vec3 = [0, 0, (member.zBottom + member.zTop) / 2];
  const far = [member.zBottom, member.zTop].flatMap(z =>
    member.footprint.map(([x, y]) => dot3(sub3([x, y, z], middle), across)),
  );
  const overMm = Math.max(...far) - Math.min(...far);
  return { across, overMm, legMm: overMm / 2 + BESIDE + t.d / 2 };
}

/** From the place on the tube's middle line to its two legs, mm. */
export const legsOf = ({ across, legMm }: Strap): readonly [Vec3, Vec3] => [
  scale3(across, -legMm),
  scale3(across, legMm),
];
