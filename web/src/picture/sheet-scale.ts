import type { Facts } from '@plate-fold/core/derive';
import { flatsFromAbove } from './paths';

/** From where the owner looks at the underside. */
export type Side = 'above' | 'head-front' | 'head-rear';

/** The stretch of the vehicle on the drawing sheet, mm: along it, and where across it the middle lies. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
  readonly yMid: number;
}

/** One scale for side view, map and strip, as the views of a drawing sheet share it. Pixels from millimeters. */
export interface SheetScale {
  readonly k: number;
  readonly width: number;
  readonly stretch: Stretch;
  readonly side: Side;
  /** along the vehicle */
  readonly X: (x: number) => number;
  /** across it, in a map of that height */
  readonly Y: (y: number, height: number) => number;
  readonly xAt: (px: number) => number;
  readonly yAt: (px: number, height: number) => number;
  readonly rightAtTop: boolean;
  readonly frontAtLeft: boolean;
}

/** So many times as long as a map is high: how far along it has to reach for what lies far out to be on it. */
const LONG = 3.2;

/** The whole vehicle: from ahead of the front overhang to behind the rear tire, plates and parts in any case, and plates that lie far out. */
export function wholeVehicle(facts: Facts): Stretch {
  const { rig } = facts.rig;
  const xs = [
    ...facts.panels.flatMap(p => p.facets.map(f => f.frame.origin[0])),
    ...facts.rig.components.flatMap(c => c.footprint.map(q => q[0])),
  ];
  const from = Math.min(-rig.tyreRadius, -rig.frontOverhang * 0.8, ...xs) - 60;
  const to = Math.max(rig.wheelbase + rig.tyreRadius, ...xs) + 60;
  const far = Math.max(
    0,
    ...facts.plates.flatMap(p => flatsFromAbove(p).flatMap(f => f.map(q => Math.abs(q[1])))),
  );
  const short = Math.max(0, LONG * (2 * far + 60) - (to - from));
  return { from: from - short / 2, to: to + short / 2, yMid: 0 };
}

/** The scale of a drawing sheet; see `useSheet`, which keeps one for as long as nothing of it changes. */
export function sheetScale(stretch: Stretch, width: number, side: Side): SheetScale {
  const k = width / (stretch.to - stretch.from);
  const frontAtLeft = side !== 'head-rear';
  const rightAtTop = side !== 'head-front';
  return {
    k,
    width,
    stretch,
    side,
    frontAtLeft,
    X: x => (frontAtLeft ? x - stretch.from : stretch.to - x) * k,
    Y: (y, height) => height / 2 + (rightAtTop ? stretch.yMid - y : y - stretch.yMid) * k,
    rightAtTop,
    yAt: (px, height) => stretch.yMid + ((height / 2 - px) / k) * (rightAtTop ? 1 : -1),
    xAt: px => (frontAtLeft ? stretch.from + px / k : stretch.to - px / k),
  };
}

/** The stretch after zooming by `factor` about a place along the vehicle, never beyond the whole or below 300 mm. */
export function zoomed(s: Stretch, whole: Stretch, factor: number, about: number): Stretch {
  const span = Math.min(whole.to - whole.from, Math.max(300, (s.to - s.from) / factor));
  const part = (about - s.from) / (s.to - s.from);
  return moved({ ...s, from: about - part * span, to: about + (1 - part) * span }, whole, 0, 0);
}

/** The stretch moved along and across, kept on the vehicle. */
export function moved(s: Stretch, whole: Stretch, dx: number, dy: number): Stretch {
  const span = s.to - s.from;
  const from = Math.max(whole.from, Math.min(whole.to - span, s.from + dx));
  const reach = Math.max(0, 900 - span / 5);
  return { from, to: from + span, yMid: Math.max(-reach, Math.min(reach, s.yMid + dy)) };
}
