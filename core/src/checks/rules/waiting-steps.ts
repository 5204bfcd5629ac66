import { agreeLaps } from '../../bolt';
import type { Facts } from '../../derive';
import { callOf } from '../../plan';
import { hangingOrder } from '../../sequence';
import { listed } from '../../units';
import { plateWord, type Rule } from '../finding';

/** How low each plate lies, mm. */
const lowOf = (facts: Facts): Readonly<Record<string, number>> =>
  Object.fromEntries(facts.panels.map(p => [p.panel.id, Math.min(...p.facets.map(f => f.frame.origin[2]))]));

export const waitingSteps: Rule = {
  id: 'waiting-steps',
  why: 'Plates that each need the other up first cannot be installed.',
  find: facts => {
    const { stuck } = hangingOrder(facts.document, facts.panels);
    if (stuck.length === 0) return [];
    const names = stuck.map(p => plateWord(facts, p.panel.id));
    const said = listed(names);
    return [
      {
        severity: 'stop',
        where: 'run',
        about: stuck.map(p => p.panel.id),
        text: `${said} overlap in a circle, each outside the next: none can go up first.`,
        remedy: 'Set which plate is outside from how they sit now.',
        mend: callOf(agreeLaps, { under: lowOf(facts) }),
      },
    ];
  },
};
