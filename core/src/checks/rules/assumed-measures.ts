import { assumedFirst } from '../../rig';
import type { Rule } from '../finding';

/** Measures that are named before the rest is counted. */
const NAMED = 4;

export const assumedMeasures: Rule = {
  id: 'assumed-measures',
  why: 'Plates cut to assumed numbers do not fit.',
  find: facts => {
    const { rig, plan } = facts.document;
    const open = assumedFirst(rig);
    if (open.length === 0 || plan.panels.length === 0) return [];
    const names = open.slice(0, NAMED).map(m => m.name.toLowerCase());
    const more = open.length > NAMED ? ` and ${open.length - NAMED} more` : '';
    return [
      {
        severity: 'note',
        where: 'cover',
        about: [],
        text: `${open.length} of the 12 main measurements ${open.length === 1 ? 'is' : 'are'} assumed, not measured: ${names.join(', ')}${more}.`,
        remedy: 'Measure them on Rig before anything is cut.',
      },
    ];
  },
};
