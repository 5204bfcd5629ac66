import type { Facts } from '@plate-fold/core/derive';
import type { FoldedPanel } from '@plate-fold/core/fold';
import { boxOf, type Vec2 } from '@plate-fold/core/geometry';
import { wingsOf } from '@plate-fold/core/plan';
import type { Component } from '@plate-fold/core/rig';
import type { Step } from '@plate-fold/core/sequence';
import { flatsFromAbove } from './paths';

/** The side one looks from, as the view has it. */
export type LookedFrom = 'above' | 'head-front' | 'head-rear';

/** What of the vehicle a step shows, and how it lies on the screen. */
export interface StepLayout {
  readonly shown: readonly FoldedPanel[];
  /** the whole vehicle, with its wheels: raising it, letting it down */
  readonly whole: boolean;
  readonly put: (p: Vec2) => Vec2;
  /** pixels a millimeter */
  readonly scale: number;
  /** front of the vehicle lies toward this edge of the picture */
  readonly front: 'left' | 'right' | 'top' | 'bottom';
  readonly driver: 'left' | 'right' | 'top' | 'bottom';
  /** the part above a spot, where the step is about a place */
  readonly part?: Component;
}

/** What has a corner this near to a spot is drawn with it, mm. */
const NEARBY = 420;
/** Least that is shown across, mm: a hole alone says not where it is. */
const LEAST = 420;

const contains = (c: Component, [x, y]: Vec2): boolean => {
  const { min, max } = boxOf(c.footprint);
  return x >= min[0] - 40 && x <= max[0] + 40 && y >= min[1] - 40 && y <= max[1] + 40;
};

/** Whether a step is about the vehicle as a whole. */
const aboutWhole = (s: Step): boolean =>
  s.stage === 'safety' || s.whole === true || (s.asks?.includes('fenders') ?? false);

/**
 * Fits what a step is about into a picture: its plates, its bolts, its spot. `upright`: the front is up, else at the left, as one looks
 * from; lying with the head to the rear it is turned about.
 */
export function stepLayout(
  facts: Facts,
  step: Step,
  side: LookedFrom,
  width: number,
  height: number,
  margin: number,
  upright = height > width * 0.92,
): StepLayout {
  const bolts = step.joints.flatMap(id => facts.joints.find(j => j.id === id) ?? []);
  const spot: Vec2 | undefined = step.at && [step.at[0], step.at[1]];
  const whole = aboutWhole(step);
  const named = facts.panels.filter(p => step.panels.includes(p.panel.id));
  const near =
    named.length > 0 ? named : facts.panels.filter(p => bolts.some(b => b.joint.panels.includes(p.panel.id)));
  const round = spot
    ? facts.panels.filter(p =>
        flatsFromAbove(p).some(f => f.some(q => Math.hypot(q[0] - spot[0], q[1] - spot[1]) < NEARBY)),
      )
    : [];
  // a hole alone fills the picture with what is next to it
  const single = bolts.length === 1 && step.torques === undefined;
  const shown = whole ? facts.panels : near.length > 0 ? near : round.length > 0 ? round : facts.panels;
  // a wing that is bolted to its plate fills the picture, not the plate
  const joined = named.filter(
    p => step.stage === 'bench' && step.torques !== undefined && wingsOf(facts.document.plan).has(p.panel.id),
  );
  const part = spot && facts.rig.components.find(c => contains(c, spot));
  const { wheelbase, trackWidth, tyreRadius } = facts.rig.rig;
  const points: Vec2[] = whole
    ? [
        [-tyreRadius * 1.3, -trackWidth / 2 - 160],
        [wheelbase + tyreRadius * 1.3, trackWidth / 2 + 160],
      ]
    : single
      ? bolts.flatMap((b): Vec2[] => [
          [b.at[0] - NEARBY, b.at[1] - NEARBY * 0.8],
          [b.at[0] + NEARBY, b.at[1] + NEARBY * 0.8],
        ])
      : [
          ...(spot && !named.length
            ? []
            : (joined.length > 0 ? joined : shown).flatMap(p => flatsFromAbove(p).flat())),
          ...bolts.map((b): Vec2 => [b.at[0], b.at[1]]),
          ...(spot ? [spot, ...(part ? part.footprint : [])] : []),
        ];
  const box = boxOf(points.length > 0 ? points : [[0, 0]]);
  const grow = (k: 0 | 1): readonly [number, number] => {
    const short = Math.max(0, LEAST - (box.max[k] - box.min[k])) / 2;
    return [box.min[k] - short, box.max[k] + short];
  };
  const [x, y] = [grow(0), grow(1)];
  const [across, along] = upright ? [y[1] - y[0], x[1] - x[0]] : [x[1] - x[0], y[1] - y[0]];
  const scale = Math.min((width - 2 * margin) / across, (height - 2 * margin - 14) / along);
  const frontFirst = side !== 'head-rear';
  // seen from below right and left change over
  const mirrored = side !== 'above';
  const flip = frontFirst ? 1 : -1;
  const [cx, cy] = [(x[0] + x[1]) / 2, (y[0] + y[1]) / 2];
  const put = ([px, py]: Vec2): Vec2 => {
    const [dx, dy] = [(px - cx) * scale * flip, (py - cy) * scale * flip * (mirrored ? -1 : 1)];
    return upright
      ? [width / 2 + dy, (height - 14) / 2 + dx]
      : // turned a quarter to the left: front left, what was at the right is at the top
        [width / 2 + dx, (height - 14) / 2 - dy];
  };
  const driverRight = facts.rig.rig.driverSide === 'right';
  // where the vehicle's right lies: on the screen's right in an upright picture, at its top in a lying one
  const rightFirst = (flip === 1) !== mirrored;
  const sides = upright
    ? ({ right: rightFirst ? 'right' : 'left', left: rightFirst ? 'left' : 'right' } as const)
    : ({ right: rightFirst ? 'top' : 'bottom', left: rightFirst ? 'bottom' : 'top' } as const);
  return {
    shown,
    whole,
    put,
    scale,
    front: upright ? (frontFirst ? 'top' : 'bottom') : frontFirst ? 'left' : 'right',
    driver: driverRight ? sides.right : sides.left,
    ...(part ? { part } : {}),
  };
}
