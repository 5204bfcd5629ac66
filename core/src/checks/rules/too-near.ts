import type { Facts } from '../../derive';
import { callOf, isBracket, lowerPlates, tiedTo } from '../../plan';
import { listed } from '../../units';
import { partName, plateName, type Remedy, type Rule, type Words } from '../finding';

const lower = (keepOut: number, gap: number): number => Math.ceil(keepOut - gap);

/** A plate let down on spacers, and with it those that share its bolts. */
export function lowering(facts: Facts, panel: string, by: number, words: Words): Remedy {
  const tied = tiedTo(facts.document, panel);
  const all = facts.document.plan.panels.filter(p => tied.includes(p.id));
  const [marks, hung] = [false, true].map(b => all.filter(p => isBracket(p) === b).map(p => p.mark)) as [
    string[],
    string[],
  ];
  const under = hung.length === 0 ? '' : ` with bracket${hung.length === 1 ? '' : 's'} ${listed(hung)}`;
  const which =
    marks.length === 1 ? `the plate${under}` : `plates ${listed(marks)}${under}, which share bolts,`;
  return {
    remedy: `Lower ${which} by ${words.tape(by)}, on spacers.`,
    mend: callOf(lowerPlates, { panels: tied, by }),
  };
}

export const tooNear: Rule = {
  id: 'too-near',
  why: 'Too close rattles, and a dent reaches the part.',
  find: (facts, words) =>
    facts.gaps.flatMap(g => {
      const part = facts.rig.components.find(c => c.id === g.component);
      if (!part || part.moves || g.gapMm >= part.keepOut - 0.05) return [];
      const plate = plateName(facts, g.panel);
      return [
        {
          severity: g.gapMm < 0 ? ('stop' as const) : ('fix' as const),
          where: 'cover',
          about: [g.panel, g.component],
          text:
            g.gapMm < 0
              ? `${plate} reaches into ${partName(facts, g.component)} by ${words.length(-g.gapMm)}.`
              : `${plate} leaves ${words.length(g.gapMm)} to ${partName(facts, g.component)}; ${words.length(part.keepOut)} is needed at rest.`,
          ...lowering(facts, g.panel, lower(part.keepOut, g.gapMm), words),
        },
      ];
    }),
};
