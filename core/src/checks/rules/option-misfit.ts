import { callOf, removeJoint } from '../../plan';
import { nameIn } from '../../units';
import { partName, type Rule } from '../finding';

export const optionMisfit: Rule = {
  id: 'option-misfit',
  why: 'The underside differs with the vehicle’s options.',
  find: (facts, words) => {
    const { rig, plan } = facts.document;
    const here = new Set(facts.rig.mounts.map(m => m.id));
    const parts = new Set(facts.rig.components.map(c => c.id));
    const lost = plan.joints.filter(j => j.mount !== undefined && !here.has(j.mount));
    const chosen = rig.options
      .map(o => nameIn(o.choices.find(c => c.id === rig.selected[o.id])?.name ?? '', words.units))
      .join(', ');
    return [
      ...lost.map(j => ({
        severity: 'stop' as const,
        where: 'bolt' as const,
        about: [j.id],
        text: `bolt ${j.id}: this vehicle has no such hole (${chosen}).`,
        remedy: 'Move the bolt to another hole, or delete it.',
        mend: callOf(removeJoint, { joint: j.id }),
      })),
      ...plan.panels.flatMap(p => {
        const gone = p.guards.filter(g => !parts.has(g));
        return gone.length > 0 && gone.length === p.guards.length
          ? [
              {
                severity: 'note' as const,
                where: 'cover' as const,
                about: [p.id],
                text: `Plate ${p.mark} protects ${gone.map(g => partName(facts, g)).join(', ')}, which this vehicle does not have (${chosen}).`,
                remedy: 'Delete the plate from this set.',
              },
            ]
          : [];
      }),
    ];
  },
};
