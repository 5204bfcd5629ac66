import { type JointCapacity, jointCapacity, type ResolvedJoint, resolveJoint } from '../../bolt';
import type { Facts } from '../../derive';
import { type BoltClass, callOf, changeJoints } from '../../plan';
import type { StrikeReaction } from '../../strike';
import { fixed } from '../../units';
import { plateWord } from '../finding';
import type { StruckRule } from './rule';

/** Share of what a joint bears that a strike asks of it, pull and shear together (elliptical interaction, RCSC Specification). */
export const jointShare = (
  r: Pick<StrikeReaction, 'boltN' | 'shearN'>,
  { pull, shear }: JointCapacity,
): number => Math.hypot(r.boltN / pull.force, r.shearN / shear.force);

/** The class above: sold beside the usual one in the same sizes. */
const STRONGER: Partial<Readonly<Record<BoltClass, BoltClass>>> = { '8.8': '10.9', 'grade-5': 'grade-8' };

interface Asked {
  readonly joint: ResolvedJoint;
  readonly r: StrikeReaction;
  readonly bears: JointCapacity;
  readonly share: number;
}

/** The class that would bear what is asked of a joint; undefined where none does. */
function classThatBears(facts: Facts, { joint, r }: Asked): BoltClass | undefined {
  const stronger = STRONGER[joint.joint.fastener.class];
  if (!stronger || joint.joint.lock) return undefined;
  const other = { ...joint.joint, fastener: { ...joint.joint.fastener, class: stronger } };
  const made = resolveJoint(other, facts.rig, new Map(facts.panels.map(p => [p.panel.id, p])));
  return made && jointShare(r, jointCapacity(made, facts.panels)) <= 1 ? stronger : undefined;
}

export const jointLoad: StruckRule = {
  id: 'joint-load',
  why: 'A joint that fails drops the plate.',
  find: (facts, struck, words) => {
    const over = struck.reactionsN.flatMap((r): readonly Asked[] => {
      const joint = facts.joints.find(j => j.id === r.joint);
      if (!joint) return [];
      const bears = jointCapacity(joint, facts.panels);
      const share = jointShare(r, bears);
      return share > 1 ? [{ joint, r, bears, share }] : [];
    });
    const [worst] = [...over].sort((a, b) => b.share - a.share);
    if (!worst) return [];
    const { pull, shear } = worst.bears;
    const { r } = worst;
    const weakest = (r.boltN / pull.force > r.shearN / shear.force ? pull : shear).what;
    const pried = r.boltN - r.tensionN;
    const classes = over.map(o => classThatBears(facts, o));
    return [
      {
        severity: 'stop',
        where: 'strike',
        about: [struck.panel, ...over.map(o => o.r.joint)],
        text: `Struck, ${plateWord(facts, struck.panel)} uses ${fixed(worst.share * 100, 0)} % of the strength of joint ${r.joint} (${weakest}): pulled with ${words.load(r.boltN)}${
          pried > 0.95 * r.boltN
            ? ', all of it prying'
            : pried > 0.1 * r.boltN
              ? `, ${words.load(pried)} of it prying`
              : ''
        }, sheared with ${words.load(r.shearN)}.`,
        ...(classes.every(c => c !== undefined)
          ? {
              remedy: `${[...new Set(classes)].map(c => c?.replace('grade-', 'Grade ').replace(/^1/, 'Class 1')).join(' and ')} bolts there.`,
              mend: callOf(changeJoints, {
                joints: over.map((o, i) => ({
                  joint: o.r.joint,
                  fastener: { class: classes[i] ?? o.joint.joint.fastener.class },
                })),
              }),
            }
          : {
              remedy:
                'Use a larger bolt, a stronger nut (nut plate, flange nut behind), or add a joint beside it.',
            }),
      },
    ];
  },
};
