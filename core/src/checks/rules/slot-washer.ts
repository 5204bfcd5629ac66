import { callOf, changeJoints } from '../../plan';
import type { Rule, Unsigned } from '../finding';

const COVERS: ReadonlySet<string> = new Set(['flat', 'fender', 'cup', 'tapered', 'half-moon']);
/** Nuts with no flange of their own. */
const BARE_NUTS: ReadonlySet<string> = new Set(['hex', 'nylon-lock', 'all-metal-lock']);

export const slotWasher: Rule = {
  id: 'slot-washer',
  why: 'A head over a slot has little sheet under it: it sinks in and slides.',
  find: facts =>
    facts.joints.flatMap((j): readonly Unsigned[] => {
      const { joint, mount } = j;
      const outer = joint.panels[joint.headSide === 'below' ? 0 : joint.panels.length - 1];
      const plate = facts.panels.find(p => p.panel.id === outer);
      const underHead =
        outer !== undefined && joint.slots?.[outer] !== undefined && !COVERS.has(joint.washers[0] ?? '');
      // the last of two washers lies at the nut
      const underNut =
        mount?.hole.kind === 'slot' &&
        BARE_NUTS.has(joint.nut) &&
        !(joint.washers.length > 1 && COVERS.has(joint.washers.at(-1) ?? ''));
      if (!underHead && !underNut) return [];
      const kind = plate?.material.family === 'steel' ? 'flat' : 'fender';
      const first = underHead ? [kind, ...joint.washers] : joint.washers;
      const washers = underNut ? [...(first.length === 0 ? [kind] : first), 'flat'] : first;
      return [
        {
          severity: 'fix',
          where: 'bolt',
          about: [j.id],
          text: underHead
            ? `${j.id}: its head is on a slot of plate ${plate?.panel.mark ?? outer} without a washer.`
            : `${j.id}: its nut is on the slot of the crossmember without a washer.`,
          remedy: 'Add a washer over the slot.',
          mend: callOf(changeJoints, {
            joints: [{ joint: j.id, part: { washers: washers as typeof joint.washers } }],
          }),
        },
      ];
    }),
};
