import type { Assembly } from '../derive';
import { MOUNT_SIGMA } from '../rig';
import { formatLength, formatPercent, tapeLength, type UnitSystem } from '../units';
import { type FitRemedy, KNOWN } from './remedies';

/** A remedy as it is done. */
export function fitRemedyWords({ joint, what, mm = 0 }: FitRemedy, units: UnitSystem): string {
  switch (what) {
    case 'slot':
      return `Make the holes for ${joint} slots, ${tapeLength(mm, units)} longer the way they lie apart.`;
    case 'larger':
      return `Make the holes for ${joint} larger by ${formatLength(mm, units, true)}, under a wide washer.`;
    case 'drill-on-fit':
      return `Leave the plate’s hole for ${joint} to be drilled where the vehicle’s own hole marks it.`;
    default:
      return `Measure the hole of ${joint} again, to ${formatLength(mm, units, true)}.`;
  }
}

/** What measuring every hole would bring. */
export const measuredWords = (chance: number, units: UnitSystem): string =>
  `With every hole known to ${formatLength(KNOWN, units, true)}, from a survey or a template: ${formatPercent(chance)}.`;

/** That holes are only taken to be known, where nothing is said of how they were measured; none where all were. */
export function assumedWords({ joints }: Pick<Assembly, 'joints'>, units: UnitSystem): readonly string[] {
  const bare = joints.filter(j => j.mount && j.mount.hole.kind !== 'drill' && j.mount.sigma === undefined);
  return bare.length === 0
    ? []
    : [
        `${bare.length === 1 ? 'One hole is' : `${bare.length} holes are`} taken to be known to ${formatLength(MOUNT_SIGMA, units, true)}, an estimate: nothing is said of how they were measured. Survey them on Rig, or hold a cardboard template up before metal is cut.`,
      ];
}
