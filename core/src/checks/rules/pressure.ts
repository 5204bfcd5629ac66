import { type Pressed, pressures, washerFor } from '../../bolt';
import { callOf, changeJoints } from '../../plan';
import { fixed } from '../../units';
import { plateWord, type Rule, type Unsigned } from '../finding';

const UNDER: Readonly<Record<Pressed['by'], string>> = {
  head: 'bolt head',
  washer: 'washer',
  spacer: 'spacer',
  nut: 'nut',
};

/** Pressure over the limit by less than this is none: the clamp itself is not known better. */
const TELLS = 1.05;

export const pressure: Rule = {
  id: 'pressure',
  why: 'Sheet that yields under a head lets the bolt go loose.',
  find: (facts, words) =>
    facts.joints.flatMap((j): readonly Unsigned[] => {
      const [worst] = [...pressures(j, facts.panels)]
        .filter(p => p.mpa > TELLS * p.limit)
        .sort((a, b) => b.mpa / b.limit - a.mpa / a.limit);
      const plate = worst && facts.panels.find(p => p.panel.id === worst.panel);
      if (!worst || !plate) return [];
      const washer = worst.by === 'head' || worst.by === 'washer' ? washerFor(j, plate) : undefined;
      const first = j.joint.washers[0];
      const other = washer !== undefined && washer !== first && j.joint.fastener.head !== 'countersunk';
      return [
        {
          severity: 'fix',
          where: 'bolt',
          about: [j.id],
          text: `bolt ${j.id}: the ${UNDER[worst.by]} presses ${plateWord(facts, worst.panel)} with ${words.stress(worst.mpa)} at ${words.torque(j.torqueNm)}; ${plate.material.short} takes ${fixed((100 * worst.limit) / worst.mpa, 0)} % of that.`,
          ...(other
            ? {
                remedy: `A ${washer} washer under the head.`,
                mend: callOf(changeJoints, {
                  joints: [
                    {
                      joint: j.id,
                      part: {
                        washers: [
                          washer,
                          ...(first === 'flat' || first === 'fender'
                            ? j.joint.washers.slice(1)
                            : j.joint.washers),
                        ],
                      },
                    },
                  ],
                }),
              }
            : { remedy: 'Less torque, a bolt of the usual class, or thicker hardened washers.' }),
        },
      ];
    }),
};
