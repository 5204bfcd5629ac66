import { fixed } from '../../units';
import { plateName } from '../finding';
import type { StruckRule } from './rule';

export const givesWay: StruckRule = {
  id: 'gives-way',
  why: 'A plate that collapses folds up; its other figures no longer apply.',
  find: (facts, struck) => {
    const at = struck.gaveWayAt ?? (struck.reached < 1 ? struck.reached : undefined);
    if (at === undefined) return [];
    const plate = plateName(facts, struck.panel);
    return [
      {
        severity: struck.reached < 1 ? 'stop' : 'fix',
        where: 'strike',
        about: [struck.panel],
        text:
          struck.reached < 1
            ? `${plate} collapses at ${fixed(at * 100, 0)} % of the force where it was struck.`
            : `${plate} collapses at ${fixed(at * 100, 0)} % of the force, then carries the full load in its folded shape.`,
        remedy: 'Bolt that edge, turn it up, add a crossbar, or use thicker sheet.',
      },
    ];
  },
};
