import { holds } from '../../rig';
import { nameIn } from '../../units';
import type { Rule } from '../finding';

export const optionRefused: Rule = {
  id: 'option-refused',
  why: 'Some options do not go together.',
  find: (facts, words) => {
    const { rig } = facts.document;
    return (rig.misfits ?? [])
      .filter(m => holds(m.when, rig.selected))
      .map(m => {
        const chosen = Object.keys(m.when)
          .map(o => {
            const option = rig.options.find(x => x.id === o);
            const choice = option?.choices.find(c => c.id === rig.selected[o]);
            return nameIn(`${option?.name ?? o}: ${choice?.name ?? ''}`, words.units);
          })
          .join(', ');
        return {
          severity: 'stop' as const,
          where: 'cover' as const,
          about: Object.keys(m.when),
          text: `These options do not go together (${chosen}). ${m.reason}`,
          remedy: 'Choose another option.',
        };
      });
  },
};
