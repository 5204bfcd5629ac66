import { hasFoot, saidWay, seatsOf, wrongWays } from '../bolt';
import type { FoldedPanel } from '../fold';
import { stackedIn } from '../plan';
import { formatLength } from '../units';
import type { Job } from './job';

/** A word on what would go up the wrong way round as easily. */
export function turnedHow(job: Job, p: FoldedPanel): readonly string[] {
  const [way] = wrongWays(p, job.joints, seatsOf(job.joints, job.rig, job.panels));
  if (!way) return [];
  return [
    p.panel.wayUp
      ? `It also fits ${saidWay(way)}: the arrow FRONT points to the front, UP looks up.`
      : `It also fits ${saidWay(way)}: hold it against the picture first.`,
  ];
}

/** How the loose spacers between a plate and the vehicle stay over their holes while it goes up; nothing where it has none. */
export function spacersHow({ joints, fitted, units }: Job, p: FoldedPanel): readonly string[] {
  const loose = joints.filter(
    j =>
      j.joint.spacer > 0 &&
      !hasFoot(j.nut?.kind) &&
      // on a bracket they lie between it and the plate
      stackedIn(j.joint).at(j.mount === undefined ? -2 : -1) === p.panel.id &&
      !fitted.has(j.id),
  );
  const heights = [...new Set(loose.map(j => j.joint.spacer))].sort((a, b) => a - b);
  if (heights.length === 0) return [];
  const where = heights.map(
    mm =>
      `${formatLength(mm, units, true)} at ${loose
        .filter(j => j.joint.spacer === mm)
        .map(j => j.id)
        .join(', ')}`,
  );
  return [
    `Stick ${loose.length === 1 ? 'its spacer over its hole' : 'its spacers over their holes'} on top of the plate first, with a dab of thick grease or tape: ${where.join('; ')}.`,
  ];
}

/** How a plate meets straps that go over an axle tube: they hang there before it comes. */
export function strapsHow({ joints }: Job, p: FoldedPanel): readonly string[] {
  const straps = joints.filter(j => j.nut?.kind === 'axle-strap' && stackedIn(j.joint).at(-1) === p.panel.id);
  if (straps.length === 0) return [];
  return [
    `Lay the strap${straps.length === 1 ? '' : 's'} of ${straps.map(j => j.id).join(', ')} over the axle tube first, legs down, tape round each; no brake line, wire or breather hose is under them.`,
    'Push the plate up over the legs and start a nut on each leg by hand.',
  ];
}
