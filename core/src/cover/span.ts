import type { SheetChoice } from '../plan';
import type { Rig } from '../rig';
import { MATERIALS, type Material } from '../sheet';
import { STANDARD_GRAVITY } from '../units';

/** Turned-up side that stiffens a long plate, mm, and its angle, degrees. */
export const SIDE = { length: 38, angle: 75 } as const;

/** Half the heavier axle's load, N: the vehicle set down on one plate. */
export const setDownLoad = (rig: Rig): number =>
  (Math.max(rig.axles.front.massKg, rig.axles.rear.massKg) * STANDARD_GRAVITY) / 2;

/** How high a proposed side stands, mm. */
export const SIDE_HEIGHT = SIDE.length * Math.sin((SIDE.angle * Math.PI) / 180);

/**
 * Plastic moment of a plate across its width, N·mm: m·b with m = Sy t²/4, and for each turned-up side its web at the
 * plate's edge, Sy·t·h²/4 about its own middle. A rule for laying out, not a strength figure.
 */
export const spanMoment = (m: Material, t: number, width: number, sides: readonly number[]): number =>
  m.yield * ((t * t * width) / 4 + sides.reduce((sum, h) => sum + (t * h * h) / 4, 0));

/**
 * Longest span, mm, over which a plate held at both ends carries the set-down load in its middle without folding up:
 * the beam mechanism P = 8·M/L with both ends held (Johansen). `sides` are the heights of turned-up sides, mm. Our
 * layout rule until the plate is solved as a shell.
 */
export const longestSpan = (sheet: SheetChoice, rig: Rig, width: number, sides: readonly number[]): number =>
  (8 * spanMoment(MATERIALS[sheet.material], sheet.thickness, width, sides)) / setDownLoad(rig);
