import { holding, type JointSeat, type ResolvedJoint } from '../bolt';
import type { FoldedPanel } from '../fold';
import type { Vec2 } from '../geometry';
import { isBracket, type PlanDocument, underBar } from '../plan';
import type { PresentRig } from '../rig';
import { toVehicle } from './condensed';
import { screensOf } from './screens';
import type { Hold, StrikeWish } from './strike-wish';

/**
 * The brackets that a plate's joints hang on, those that these hang on in turn, and the plates it is bolted to itself (a wing to its
 * shield) with their brackets. What else hangs on any of them is left out: by that it gives more than it would.
 */
function bracketsUnder(
  of: {
    readonly joints: readonly ResolvedJoint[];
    readonly seats: ReadonlyMap<string, JointSeat>;
    readonly panels: readonly FoldedPanel[];
  },
  panel: string,
  joints: readonly ResolvedJoint[],
): NonNullable<StrikeWish['brackets']> {
  const out = new Map<string, { folded: FoldedPanel; joints: readonly ResolvedJoint[] }>();
  const from = [...joints];
  for (let j = from.pop(); j; j = from.pop()) {
    if (toVehicle(j)) continue;
    for (const p of of.panels) {
      const { id } = p.panel;
      const hangs = isBracket(p.panel) || (id !== panel && j.joint.panels.includes(panel));
      if (!hangs || !j.joint.panels.includes(id) || out.has(id)) continue;
      const own = holding(id, of.joints, of.seats, [p]);
      // a plate that hangs on the struck one alone does not hold it
      if (!isBracket(p.panel) && own.every(o => o.joint.panels.includes(panel))) continue;
      out.set(id, { folded: p, joints: own });
      from.push(...own);
    }
  }
  return [...out.values()];
}

/** What strikes one plate of a build, from all that was computed of it: joints that hold nothing do not hold it, nor those to what hangs on it. `rests`: it may come up against its members. */
export function wishOf(
  of: {
    readonly rig: PresentRig;
    readonly joints: readonly ResolvedJoint[];
    readonly seats: ReadonlyMap<string, JointSeat>;
    readonly document: PlanDocument;
    readonly panels: readonly FoldedPanel[];
  },
  folded: FoldedPanel,
  force: number,
  how: {
    readonly at?: Vec2;
    readonly rests?: boolean;
    readonly hold?: Hold;
    readonly fallMm?: number;
    readonly drag?: number;
  } = {},
): StrikeWish {
  const { at, rests = false, hold, fallMm, drag } = how;
  const { id } = folded.panel;
  const { crossbars } = of.document.plan;
  const all = holding(id, of.joints, of.seats, [folded]);
  const brackets = bracketsUnder(of, id, all);
  const joints = all.filter(
    j =>
      toVehicle(j) ||
      !j.joint.panels.some(p => p !== id) ||
      brackets.some(b => j.joint.panels.includes(b.folded.panel.id)) ||
      crossbars.some(c => underBar(c, j.at) !== undefined),
  );
  const screens = screensOf(of.panels, folded);
  return {
    folded,
    joints,
    ...(screens.length > 0 ? { screens } : {}),
    ...(brackets.length > 0 ? { brackets } : {}),
    components: of.rig.components,
    force,
    backing: { crossbars, members: rests ? of.rig.rig.members : [] },
    ...(at ? { at } : {}),
    ...(hold ? { hold } : {}),
    ...(fallMm === undefined ? {} : { fallMm }),
    ...(drag === undefined ? {} : { drag }),
  };
}
