import { LONGEST_SPACER } from '../../bolt';
import { hangInstead } from '../../bracket';
import { callOf, stackedIn } from '../../plan';
import { plateName, type Rule, type Unsigned } from '../finding';

export const spacerLong: Rule = {
  id: 'spacer-long',
  why: 'A bolt on a tall spacer bends when the plate is pushed sideways.',
  find: (facts, words) => {
    const long = facts.joints.filter(j => j.joint.spacer > LONGEST_SPACER + 0.5);
    // a crossbar's own bolts hold no plate: each is told by itself
    const of = (j: (typeof long)[number]): string => stackedIn(j.joint).at(-1) ?? j.id;
    return [...new Set(long.map(of))].map((about): Unsigned => {
      const mine = long.filter(j => of(j) === about);
      const plate = facts.panels.some(p => p.panel.id === about);
      const most = Math.max(...mine.map(j => j.joint.spacer));
      return {
        severity: 'fix',
        where: 'bolt',
        about: plate ? [about, ...mine.map(j => j.id)] : [about],
        text: `${plate ? `${plateName(facts, about)} needs` : `Bolt ${about} of a crossbar needs`} spacers of ${words.tape(most)}${plate ? ` at ${mine.length === 1 ? `bolt ${mine[0]?.id}` : `${mine.length} bolts`}` : ''}; ${words.tape(LONGEST_SPACER)} is the limit.`,
        remedy: 'Fold the plate up to the crossmember, bolt it to a lower one, or add a crossbar between.',
        ...(plate
          ? {
              more: [
                {
                  remedy: `Hang it by ${mine.length === 1 ? 'a bracket from that hole' : 'brackets from those holes'} instead.`,
                  mend: callOf(hangInstead, { joints: mine.map(j => j.id) }),
                },
              ],
            }
          : {}),
      };
    });
  },
};
