import type { CatchEdge } from '../../cover';
import type { Facts } from '../../derive';
import { callOf, lapPlate, lowerPlates, tiedTo } from '../../plan';
import { plateName, plateWord, type Remedy, type Rule, type Unsigned, type Words } from '../finding';

/** The front plate let down to the edge, or the rear plate lifted behind it; whichever holds under all the checks. */
function laidOutside(
  facts: Facts,
  c: CatchEdge,
  lift: number,
  words: Words,
): Pick<Unsigned, 'remedy' | 'mend' | 'more'> {
  const tied = tiedTo(facts.document, c.behind);
  const lifted: Remedy = {
    remedy: `Lift ${plateWord(facts, c.panel)} by ${words.tape(lift)} and lap ${plateWord(facts, c.behind)} over it.`,
    mend: callOf(lapPlate, { front: c.behind, rear: c.panel, lift }),
  };
  if (tied.includes(c.panel)) return lifted;
  const down: Remedy = {
    remedy: `Lower ${plateWord(facts, c.behind)} by ${words.tape(c.heightMm)}, on spacers.`,
    mend: callOf(lowerPlates, { panels: tied, by: c.heightMm }),
  };
  return { ...down, more: [lifted] };
}

export const catchEdge: Rule = {
  id: 'catch-edge',
  why: 'A front edge that hangs below the plate ahead catches on rock.',
  find: (facts, words) =>
    facts.catches.map(c => {
      const front = facts.panels.find(p => p.panel.id === c.behind);
      const lift = c.heightMm + (front?.sheet.thickness ?? 0);
      return {
        severity: 'fix',
        where: 'cover',
        about: [c.panel, c.behind],
        text: `${plateName(facts, c.panel)} catches: its front edge hangs ${words.length(c.heightMm)} below the rear of ${plateName(facts, c.behind)}.`,
        ...laidOutside(facts, c, lift, words),
      };
    }),
};
