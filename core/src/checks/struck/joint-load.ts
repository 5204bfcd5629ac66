import { type JointCapacity, jointCapacity } from '../../bolt';
import type { StrikeReaction } from '../../strike';
import { fixed } from '../../units';
import { plateWord } from '../finding';
import type { StruckRule } from './rule';

/** Share of what a joint bears that a strike asks of it, pull and shear together (elliptical interaction, RCSC Specification). */
export const jointShare = (r: StrikeReaction, { pull, shear }: JointCapacity): number =>
  Math.hypot(r.tensionN / pull.force, r.shearN / shear.force);

export const jointLoad: StruckRule = {
  id: 'joint-load',
  why: 'A joint that lets go drops the plate on the next rock.',
  find: (facts, struck, words) => {
    const over = struck.reactionsN.flatMap(r => {
      const joint = facts.joints.find(j => j.id === r.joint);
      if (!joint) return [];
      const bears = jointCapacity(joint, facts.panels);
      const share = jointShare(r, bears);
      return share > 1 ? [{ r, bears, share }] : [];
    });
    const [worst] = [...over].sort((a, b) => b.share - a.share);
    if (!worst) return [];
    const { pull, shear } = worst.bears;
    const weakest = (worst.r.tensionN / pull.force > worst.r.shearN / shear.force ? pull : shear).what;
    return [
      {
        severity: 'stop',
        where: 'strike',
        about: [struck.panel, ...over.map(o => o.r.joint)],
        text: `Struck, ${plateWord(facts, struck.panel)} asks ${fixed(worst.share * 100, 0)} % of what joint ${worst.r.joint} bears (${weakest}): pulled with ${words.load(worst.r.tensionN)}, sheared with ${words.load(worst.r.shearN)}.`,
        remedy: 'A larger or stronger bolt, a better nut element, or one more joint beside it.',
      },
    ];
  },
};
