import type { CatchEdge } from '../../cover';
import type { Facts } from '../../derive';
import { inPlan, lowered, panelMoved, tiedTo } from '../../plan';
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
    mend: doc => {
      const up = panelMoved(doc, c.panel, [0, 0, lift]);
      const outer = (ids: readonly string[]): readonly string[] =>
        ids.includes(c.panel) && ids.includes(c.behind)
          ? [c.behind, ...ids.filter(id => id !== c.behind)]
          : ids;
      return inPlan(up, {
        seams: up.plan.seams.map(s =>
          s.front === c.behind && s.rear === c.panel ? { ...s, outside: c.behind } : s,
        ),
        joints: up.plan.joints.map(j => ({ ...j, panels: outer(j.panels) })),
      });
    },
  };
  if (tied.includes(c.panel)) return lifted;
  const down: Remedy = {
    remedy: `Lower ${plateWord(facts, c.behind)} by ${words.tape(c.heightMm)}, on spacers.`,
    mend: doc => lowered(doc, tied, c.heightMm),
  };
  return { ...down, more: [lifted] };
}

export const catchEdge: Rule = {
  id: 'catch-edge',
  why: 'A forward-facing edge below the plate ahead hangs the vehicle up on rock.',
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
