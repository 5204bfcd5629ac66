import type { Mount } from '../rig';
import type { ResolvedJoint } from './joint';

/** What hands have to know of a joint, a sentence each. Common practice, no source. */
export interface JointNotes {
  /** why the head is where it is */
  readonly direction: string;
  /** who reaches the nut, and until when */
  readonly reach: string;
  /** how far the bolt can be moved in its hole to centre the plate, mm to each side; undefined where its own thread fixes it */
  readonly playMm?: number;
  /** set where plates share the hole */
  readonly shared?: string;
}

const REACH: Readonly<Record<Mount['nutReach'], string>> = {
  none: 'Nobody reaches behind it: what takes the thread must hold by itself.',
  slot: 'A wrench or a finger gets in through the opening of the member, as long as the plate does not cover it: start this one before the plate is drawn up.',
  open: 'It can be held from behind until the next plate covers it.',
};

/** Notes on a joint; `marks` are the marks of its plates, outermost first. */
export function jointNotes(j: ResolvedJoint, marks: readonly string[]): JointNotes {
  const { mount, joint } = j;
  const hole = mount?.hole;
  // a thread in the member fixes the bolt; play is then in the plate's own hole
  const through = hole?.kind === 'through' || hole?.kind === 'slot' ? hole.diameter : undefined;
  const inPlate = j.thread.clearance - j.thread.d;
  const inMember = through === undefined ? 0 : Math.max(0, through - j.thread.d);
  const turned = joint.fastener.head === 't-bolt' || joint.fastener.head === 'carriage';
  return {
    direction:
      joint.headSide === 'below'
        ? 'Head below: a rock meets a smooth head, and the thread is out of its way.'
        : turned
          ? 'Head above: it is held by its own shape in the member, and the nut is drawn up from below.'
          : 'Head above: the nut is reached from below; a rock meets its end, so keep it short.',
    reach: mount
      ? REACH[mount.nutReach]
      : 'It joins plate to plate and can be held from both sides on the bench.',
    playMm: (inPlate + inMember) / 2,
    ...(marks.length > 1
      ? {
          shared: `Plates ${marks.slice(0, -1).join(', ')} and ${marks.at(-1)} share this hole, ${marks[0]} outermost: the last of them closes it.`,
        }
      : {}),
  };
}
