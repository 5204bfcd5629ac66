import { length3, sub3 } from '../geometry';
import type { Material } from '../sheet';
import type { ShellModel } from './model';
import type { Shape } from './ring';
import { middleOf } from './shell-mesh';
import { DOF_PER_NODE } from './sparse';
import { elasticStress, elementStress } from './stress';

/** How hard the road shakes a car's body, (m/s²)²/Hz by Hz, straight on log scales: random vibration of sprung masses, ISO 16750-3, from memory. */
const BODY = [
  [10, 20],
  [55, 6.5],
  [180, 0.25],
  [300, 0.25],
  [360, 0.14],
  [1000, 0.14],
] as const;

/** Damping of a bolted sheet, as a share of the critical: a guess. */
export const DAMPING = 0.03;
/** Three times the rms is looked at: it is passed a few times in a thousand. */
const SIGMAS = 3;
/** So many radii round a bolt count as its own. */
const ROUND_BOLT = 2.2;

/** Density of the road's shaking at a frequency, (m/s²)²/Hz; beyond the ends of what is stated as at them. */
export function roadDensity(hz: number): number {
  const i = BODY.findIndex(([f]) => f >= hz);
  if (i === 0) return BODY[0][1];
  const [to, from] = [BODY[i], BODY[i - 1]];
  if (!to || !from) return BODY[BODY.length - 1]?.[1] ?? 0;
  const t = Math.log(hz / from[0]) / Math.log(to[0] / from[0]);
  return from[1] * (to[1] / from[1]) ** t;
}

/** Rms acceleration, m/s², of what vibrates at a frequency on a base shaken so: √(π/2·f·Q·S) (Miles 1954). */
export const shaken = (hz: number, density = roadDensity(hz), damping = DAMPING): number =>
  Math.sqrt(((Math.PI / 2) * hz * density) / (2 * damping));

/** Endurance limit of a sheet, as a share of its tensile strength: handbooks, from memory; plastics have none that is told. */
const ENDURES: Readonly<Partial<Record<Material['family'], number>>> = {
  steel: 0.4,
  stainless: 0.4,
  aluminum: 0.35,
};

/**
 * Stress of the road's shaking in a plate round its bolts, three times its rms, by the endurance limit of its sheet; undefined where none is
 * known. Of the first shape in which it vibrates alone, small and elastic: it ranks sheets and builds, it is no life.
 */
export function shakenShare(
  model: ShellModel,
  { hz, shape, mass }: Shape,
  material: Material,
  bolts: readonly { readonly at: readonly [number, number, number]; readonly radius: number }[],
): number | undefined {
  const share = ENDURES[material.family];
  if (share === undefined || !(hz > 0)) return undefined;
  let taken = 0;
  for (let n = 0; n < mass.length; n++)
    taken += (mass[n] as number) * (shape[DOF_PER_NODE * n + 2] as number);
  // mm by m/s²: the shape bears a unit of mass, in tonnes
  const size = (taken * 1000 * shaken(hz)) / (2 * Math.PI * hz) ** 2;
  const stress = elasticStress(
    model,
    shape.map(v => v * size),
  );
  let most = 0;
  for (let e = 0; e < model.mesh.flatOf.length; e++) {
    const at = middleOf(model.mesh, e);
    if (bolts.some(b => length3(sub3(at, b.at)) < ROUND_BOLT * b.radius))
      most = Math.max(most, elementStress(stress, e));
  }
  return (SIGMAS * most) / (share * material.ultimate);
}
