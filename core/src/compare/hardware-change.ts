import type { Facts } from '../derive';
import { formatTorque, type UnitSystem } from '../units';
import { boltName } from './phase-report';

/** Joints that need other hardware, or another torque, in one build than in another. */
export interface HardwareChange {
  readonly what: 'bolt' | 'torque';
  /** as it is in the build compared to, and in this one */
  readonly from: string;
  readonly to: string;
  readonly joints: readonly string[];
}

/** Same torque to a reader of a wrench: N\u00b7m. */
const SAME_NM = 0.5;

/** What of the hardware changes from one build to another: longer bolts where the sheet is thicker, other torque where it bears less. */
export function hardwareChange(
  from: Facts,
  to: Facts,
  units: UnitSystem = 'metric',
): readonly HardwareChange[] {
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
    if (boltName(was) !== boltName(j)) say('bolt', boltName(was), boltName(j), j.id);
    if (Math.abs(was.torqueNm - j.torqueNm) > SAME_NM)
      say('torque', formatTorque(was.torqueNm, units), formatTorque(j.torqueNm, units), j.id);
  }
  return [...found.values()].sort((a, b) => b.joints.length - a.joints.length);
}
