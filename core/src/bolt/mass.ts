import { disc } from './clamp';
import type { NutSize } from './elements';
import type { HeadSize } from './heads';
import type { Strap } from './strap';
import type { Thread } from './thread';

/** Density of steel, kg/mm³. */
const STEEL = 7850e-9;
/** What of a layer its mass asks for, mm. */
interface Ring {
  readonly kind: string;
  readonly thickness: number;
  readonly diameter: number;
}
const hexagon = (flats: number): number => 0.866 * flats * flats;

/** Mass of bolt, washers, nut and spacer from their geometry, kg. */
export function hardwareMass(
  t: Thread,
  head: HeadSize,
  length: number,
  layers: readonly Ring[],
  nut: NutSize | undefined,
  bought: boolean,
  spacerDensity: number,
): number {
  const shank = length > 0 ? 0.93 * disc(t.d) * length : 0;
  const top = length === 0 ? 0 : (head.flats ? hexagon(head.flats) : disc(head.bearing) * 0.75) * head.height;
  const ring = (l: Ring): number => (disc(l.diameter) - disc(1.05 * t.d)) * l.thickness;
  const rings = layers
    .filter(l => l.kind === 'washer' || l.kind === 'spacer')
    .reduce((sum, l) => sum + ring(l) * (l.kind === 'spacer' ? spacerDensity / STEEL : 1), 0);
  const own = nut && bought ? (disc(nut.diameter) * 0.83 - disc(t.d)) * nut.height : 0;
  return STEEL * (shank + top + rings + own);
}

/** A strap's own rod, from leg to leg over the tube, and the nut on its other leg, kg. */
export function strapMass(s: Strap, t: Thread, legMm: number, nut: NutSize | undefined): number {
  const rod = disc(t.d) * (2 * legMm + s.overMm + Math.PI * s.legMm);
  return STEEL * (rod + (nut ? (disc(nut.diameter) * 0.83 - disc(t.d)) * nut.height : 0));
}
