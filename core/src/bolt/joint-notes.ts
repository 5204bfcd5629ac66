import { listed } from '../units';
import type { ResolvedJoint } from './joint';

/** What hands have to know of a joint, a sentence each. Common practice, no source. */
export interface JointNotes {
  /** why the head is where it is */
  readonly direction: string;
  /** how far the plate can be moved about the bolt to center it, mm to each side: fore and aft, and across */
  readonly playMm: readonly [along: number, across: number];
  /** set where plates share the hole */
  readonly shared?: string;
}

/** Notes on a joint; `marks` are the marks of its plates, outermost first. */
export function jointNotes(j: ResolvedJoint, marks: readonly string[]): JointNotes {
  const { mount, joint } = j;
  const hole = mount?.hole;
  // a thread in the member fixes the bolt; play is then in the plate's own hole
  const through = hole?.kind === 'through' || hole?.kind === 'slot' ? hole.diameter : undefined;
  const inPlate = j.thread.clearance - j.thread.d;
  const inMember = through === undefined ? 0 : Math.max(0, through - j.thread.d);
  const play = (inPlate + inMember) / 2;
  const slot = hole?.kind === 'slot' ? hole.length : undefined;
  const longPlay = slot === undefined ? play : (inPlate + Math.max(0, slot - j.thread.d)) / 2;
  const slotAcross = hole?.along === 'y';
  const turned = joint.fastener.head === 't-bolt' || joint.fastener.head === 'carriage';
  return {
    direction:
      joint.nut === 'axle-strap'
        ? 'Nuts below: keep the legs short past them, capped or painted; rocks hit what sticks out.'
        : joint.headSide === 'below'
          ? 'Head below: rocks hit a smooth head, not the threads.'
          : turned
            ? 'Head above: it locks into the member by its shape; the nut goes on from below.'
            : 'Head above: the nut is reached from below. Keep the end short; rocks hit it.',
    playMm: slotAcross ? [play, longPlay] : [longPlay, play],
    ...(marks.length > 1
      ? {
          shared: `Plates ${listed(marks)} share this hole, ${marks[0]} outermost: tighten it when the last of them is up.`,
        }
      : {}),
  };
}
