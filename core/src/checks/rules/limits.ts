import { buildName } from '../../plan';
import { sentence } from '../../units';
import { plateName, type Rule } from '../finding';

export const limits: Rule = {
  id: 'limits',
  why: 'Your limits for this plan.',
  find: (facts, words) => {
    const { budget, minClearance } = facts.document.plan.limits;
    const over = budget !== undefined && facts.weight.cost > budget;
    const low =
      minClearance !== undefined && facts.lowest.z < minClearance && facts.lowest.panel !== undefined;
    return [
      ...(over
        ? [
            {
              severity: 'fix' as const,
              where: 'weigh' as const,
              about: [facts.build.id],
              text: `${sentence(buildName(facts.build))} costs ${Math.round(facts.weight.cost - budget)} $ more than the ${budget} $ you set (${facts.weight.rates.note}).`,
              remedy: 'Choose cheaper sheet for a plate, or raise the budget.',
            },
          ]
        : []),
      ...(low
        ? [
            {
              severity: 'fix' as const,
              where: 'cover' as const,
              about: [facts.lowest.panel as string],
              text: `${plateName(facts, facts.lowest.panel as string)} hangs ${words.length(facts.lowest.z)} above the ground; your limit is ${words.length(minClearance)}.`,
              remedy: 'Raise the plate if the clearance above it allows.',
            },
          ]
        : []),
    ];
  },
};
