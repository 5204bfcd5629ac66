import type { ResolvedJoint } from '../bolt';
import type { Facts } from '../derive';
import { fixed } from '../units';

/** Joints that need other hardware, or another torque, in one build than in another. */
export interface HardwareChange {
  readonly what: 'bolt' | 'torque';
  /** as it is in the build compared to, and in this one */
  readonly from: string;
  readonly to: string;
  readonly joints: readonly string[];
}

const boltOf = (j: ResolvedJoint): string =>
  `${j.joint.fastener.head} ${j.joint.fastener.thread} \u00d7 ${fixed(j.lengthMm, 0)}`;

/** Same torque to a reader of a wrench: N\u00b7m. */
const SAME_NM = 0.5;

/** What of the hardware changes from one build to another: longer bolts where the sheet is thicker, other torque where it bears less. */
export function hardwareChange(from: Facts, to: Facts): readonly HardwareChange[] {
  const before = new Map(from.joints.map(j => [j.id, j]));
  const found = new Map<
    string,
    { what: HardwareChange['what']; from: string; to: string; joints: string[] }
  >();
  const say = (what: HardwareChange['what'], a: string, b: string, joint: string): void => {
    const key = `${what} ${a} ${b}`;
    const known = found.get(key);
    if (known) known.joints.push(joint);
    else found.set(key, { what, from: a, to: b, joints: [joint] });
  };
  for (const j of to.joints) {
    const was = before.get(j.id);
    if (!was) continue;
    if (boltOf(was) !== boltOf(j)) say('bolt', boltOf(was), boltOf(j), j.id);
    if (Math.abs(was.torqueNm - j.torqueNm) > SAME_NM)
      say('torque', `${fixed(was.torqueNm, 0)} N\u00b7m`, `${fixed(j.torqueNm, 0)} N\u00b7m`, j.id);
  }
  return [...found.values()].sort((a, b) => b.joints.length - a.joints.length);
}
