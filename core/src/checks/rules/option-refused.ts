import { holds } from '../../rig';
import type { Rule } from '../finding';

export const optionRefused: Rule = {
  id: 'option-refused',
  why: 'Some options do not go together.',
  find: facts => {
    const { rig } = facts.document;
    return (rig.misfits ?? [])
      .filter(m => holds(m.when, rig.selected))
      .map(m => {
        const chosen = Object.keys(m.when)
          .map(o => {
            const option = rig.options.find(x => x.id === o);
            const choice = option?.choices.find(c => c.id === rig.selected[o]);
            return `${option?.name ?? o}: ${choice?.name ?? ''}`;
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
