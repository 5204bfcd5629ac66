import { type ResolvedJoint, STRENGTH, wrenchRange } from '../../bolt';
import { callOf, changeJoints } from '../../plan';
import type { Rule, Unsigned } from '../finding';

/** Share of proof load over which a bolt is no longer reused, and an entered torque is refused (Shigley Eq. 8-31: 0.90 for permanent joints). */
export const MOST_OF_PROOF = 0.9;

/** What of a joint an entered torque overdoes; undefined where it holds. */
export function overdone(
  j: ResolvedJoint,
):
  | { readonly by: string; readonly bearsN: number; readonly proof?: number; readonly gives: string }
  | undefined {
  if (j.joint.torque === 'auto') return undefined;
  const proofN = STRENGTH[j.joint.fastener.class].proof * j.thread.stressArea;
  const strip = j.nut?.stripTorque;
  if (strip !== undefined && j.torqueNm > strip)
    return { by: j.nut?.name ?? 'nut', bearsN: (strip * 1000) / (j.kFactor * j.thread.d), gives: 'strips' };
  const first = [...j.pulls].sort((a, b) => a.force - b.force)[0];
  if (first && first.by !== 'bolt' && j.askedN > first.force)
    return { by: first.by, bearsN: first.force, gives: first.by === 'head' ? 'shears off' : 'gives' };
  return j.askedN > MOST_OF_PROOF * proofN
    ? { by: 'bolt', bearsN: proofN, proof: j.askedN / proofN, gives: 'stretches' }
    : undefined;
}

export const torqueEntered: Rule = {
  id: 'torque-entered',
  why: 'A wrong unit or digit in a typed torque breaks the bolt.',
  find: (facts, words) =>
    facts.joints.flatMap((j): readonly Unsigned[] => {
      if (j.joint.torque === 'auto') return [];
      const torque = words.torque(j.torqueNm);
      const mend = callOf(changeJoints, { joints: [{ joint: j.id, part: { torque: 'auto' } }] });
      const over = overdone(j);
      if (over)
        return [
          {
            severity: 'stop',
            where: 'bolt',
            about: [j.id],
            text:
              over.by === 'bolt'
                ? `${j.id}: ${torque} as entered pulls ${words.load(j.askedN)}, ${Math.round((over.proof ?? 0) * 100)} % of the bolt\u2019s proof load; it will stretch.`
                : `${j.id}: ${torque} as entered is more than the ${over.by} holds: it ${over.gives}.`,
            remedy: 'Use the computed torque, or enter the maker\u2019s value again with its unit.',
            mend,
          },
        ];
      if (wrenchRange(j.torqueNm)) return [];
      return [
        {
          severity: 'note',
          where: 'bolt',
          about: [j.id],
          text: `bolt ${j.id}: no common torque wrench reads ${torque}.`,
          remedy: 'Check the unit of the value, or use the computed torque.',
          mend,
        },
      ];
    }),
};
