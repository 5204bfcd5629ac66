import type { FoldedPanel } from '../fold';
import type { Joint } from '../plan';
import type { Member } from '../rig';
import { MATERIALS } from '../sheet';
import { type NutElement, type NutSize, washerSize } from './elements';
import type { HeadSize } from './heads';
import { SPACER } from './spacer';
import { class8Proof, REUSED_PRELOAD, STRENGTH } from './strength';
import { internalShearArea, type Thread } from './thread';

/** A bolt right through a member presses on its two sides over so many walls more than what it bears on: AISC 360-16 J10-2, from memory. */
const SPREADS = 5;

/**
 * What a member bears that a bolt goes right through: its two sides, which yield in a strip under the bolt, where plates lie over both of them; else
 * its wall, which folds in round the spacer in a fan of yield lines (Johansen: 4π·m, m = Sy·t²/4).
 */
export function throughLimit({ wall }: Member, t: Thread, spread: boolean): ClampLimit {
  if (!spread) {
    const fan = Math.PI * MATERIALS['steel-hr36'].yield * wall * wall;
    return { by: 'wall of the member', force: REUSED_PRELOAD * fan, bears: fan };
  }
  const strip = SPREADS * wall + 2 * t.d;
  const force = 2 * MATERIALS['steel-hr36'].yield * wall * strip;
  return { by: 'sides of the member', force: REUSED_PRELOAD * force, bears: force };
}

const SELF_TAPPING = new Set(['thread-cutting', 'self-drilling']);

/** What a spacer is of, as it is called. */
export const SPACER_NAMES = { steel: 'steel', aluminium: 'aluminum', plastic: 'plastic' } as const;
/** Band of a tube clamp, mild steel at yield, mm: common practice, no source. */
export const BAND = { width: 25, thickness: 3, tube: 45 } as const;
/** Proof of the legs of a strap, MPa: class 4.8 (ISO 898-1, from memory), since nothing better is told of a bent rod. */
const LEG_PROOF = 310;
export const disc = (d: number): number => (Math.PI * d * d) / 4;

/** What an element of a joint can take along the bolt, N. */
export interface Limit {
  readonly by: string;
  readonly force: number;
}

/** An element as a torque is chosen by it. */
interface ClampLimit extends Limit {
  /** what it bears before it gives, N; `force` is what it is tightened to */
  readonly bears: number;
}

/**
 * Share of the torque at which a rivet, clip, spring or clinch nut strips that it is tightened to, where its maker's value is not entered:
 * common practice, no source.
 */
export const INSTALL_SHARE = 2 / 3;

/** Clamp force each element of a joint can take, N. */
export function clampLimits(
  joint: Joint,
  t: Thread,
  head: HeadSize,
  nut: NutSize | undefined,
  panels: readonly FoldedPanel[],
  /** of what is tapped, the member or a bracket, mm */
  wall: number | undefined,
  element: NutElement | undefined,
): ClampLimit[] {
  const { proof } = STRENGTH[joint.fastener.class];
  const strap = element === 'axle-strap';
  const bolt = REUSED_PRELOAD * (strap ? LEG_PROOF : proof) * t.stressArea;
  const all: ClampLimit[] = [
    { by: strap ? 'leg of the strap' : 'bolt', force: bolt, bears: bolt / REUSED_PRELOAD },
  ];
  /** tightened to all that it bears */
  const whole = (by: string, force: number): void => void all.push({ by, force, bears: force });
  // button, countersunk and tamper-resistant heads carry 80 % of their class (ISO 7380-1, ISO 10642; from memory)
  if (['button', 'countersunk', 'tamper-5', 'tamper-6'].includes(joint.fastener.head))
    all.push({ by: 'head', force: 0.8 * bolt, bears: (0.8 * bolt) / REUSED_PRELOAD });
  if (nut?.stripTorque !== undefined) {
    const strips = (nut.stripTorque * 1000) / (0.2 * t.d);
    all.push({ by: nut.name, force: INSTALL_SHARE * strips, bears: strips });
  }
  if (element === 'captive-nut')
    all.push({
      by: 'captive nut',
      force: REUSED_PRELOAD * STRENGTH['8.8'].proof * t.stressArea,
      bears: class8Proof(t.d) * t.stressArea,
    });
  const tapped = element === 'threaded' || (!element && SELF_TAPPING.has(joint.fastener.head));
  if (tapped && wall !== undefined) {
    const engaged = Math.min(wall, 1.5 * t.d);
    // half the strip load of mild steel: common practice
    whole('tapped sheet', 0.5 * MATERIALS['steel-hr36'].shear * internalShearArea(t) * engaged);
  }
  if (element === 'nut-strip' || element === 'nut-plate' || element === 'post' || element === 'tube-clamp')
    // a strip, post or foot of mild steel tapped over its own depth, by the same half of its strip load
    whole(
      nut?.name ?? element,
      0.5 * MATERIALS['steel-hr36'].shear * internalShearArea(t) * (nut?.height ?? t.d),
    );
  if (element === 'tube-clamp')
    whole('clamp band', MATERIALS['steel-hr36'].yield * BAND.width * BAND.thickness);
  if (joint.spacer > 0 && joint.spacerOf !== undefined && joint.spacerOf !== 'steel') {
    const of = MATERIALS[SPACER.of[joint.spacerOf]];
    // a ring is crushed at yield; plastic at half of it, since it creeps: common practice
    const share = joint.spacerOf === 'plastic' ? 0.5 : 1;
    whole(
      `${SPACER_NAMES[joint.spacerOf]} spacer`,
      share * of.yield * (disc(SPACER.outer * t.d) - disc(1.05 * t.d)),
    );
  }
  const plastic = panels.find(p => p.material.family === 'plastic');
  if (plastic) {
    const first = joint.washers[0];
    const under = first && first !== 'lock' ? washerSize(first, t).outer : head.bearing;
    // a spacer presses on the other face
    const outer = joint.spacer > 0 ? Math.min(under, SPACER.outer * t.d) : under;
    // half the yield, since plastic creeps: common practice
    whole('plastic sheet', 0.5 * plastic.material.yield * (disc(outer) - disc(t.clearance)));
  }
  return all;
}
