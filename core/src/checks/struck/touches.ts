import type { Facts } from '../../derive';
import { partName, plateWord } from '../finding';
import type { StruckRule } from './rule';

/** A strike that takes less than this of a gap has no part in it, mm. */
const TAKES = 0.5;

/** What a strike leaves to a part is what was left at rest: the plate hardly moves there. */
export const asAtRest = (
  { gaps }: Pick<Facts, 'gaps'>,
  panel: string,
  gap: { readonly component: string; readonly gapMm: number },
): boolean => {
  const rest = gaps.find(g => g.panel === panel && g.component === gap.component);
  return rest !== undefined && rest.gapMm - gap.gapMm < TAKES;
};

export const touches: StruckRule = {
  id: 'touches',
  why: 'A plate that touches a part under load does not protect it.',
  find: (facts, struck, words) => {
    const tight = struck.gaps.flatMap(g => {
      const part = facts.rig.components.find(c => c.id === g.component);
      // what crowds or touches at rest already is told there
      const tightens = part && g.gapMm < part.keepOut - 0.05 && !asAtRest(facts, struck.panel, g);
      return tightens ? [{ ...g, part }] : [];
    });
    // the worst of them tells the tale; the others stand in the table
    const [worst] = [...tight].sort((a, b) => a.gapMm - a.part.keepOut - b.gapMm + b.part.keepOut);
    if (!worst) return [];
    const plate = plateWord(facts, struck.panel);
    const more = tight.length > 1 ? ` So do ${tight.length - 1} more.` : '';
    return [
      {
        severity: worst.gapMm < 0 ? 'stop' : 'fix',
        where: 'strike',
        about: [struck.panel, worst.component, ...tight.filter(t => t !== worst).map(t => t.component)],
        text:
          worst.gapMm < 0
            ? `Struck with ${words.load(struck.forceN)}, ${plate} reaches ${partName(facts, worst.component)} by ${words.length(-worst.gapMm)}.`
            : `Struck with ${words.load(struck.forceN)}, ${plate} leaves ${words.length(worst.gapMm)} to ${partName(facts, worst.component)}; ${words.length(worst.part.keepOut)} is needed.${more}`,
        remedy: 'Try a thicker sheet, a crossbar, or a turned-up edge.',
      },
    ];
  },
};
