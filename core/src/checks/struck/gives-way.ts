import { fixed } from '../../units';
import { plateName } from '../finding';
import type { StruckRule } from './rule';

export const givesWay: StruckRule = {
  id: 'gives-way',
  why: 'A plate that gives way folds up; no further figure of it means anything.',
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
            ? `${plate} gives way at ${fixed(at * 100, 0)} % of the force where it was struck.`
            : `${plate} gives way at ${fixed(at * 100, 0)} % of the force, and bears the whole of it only after that.`,
        remedy: 'Bolt the struck edge, turn it up, add a crossbar, or choose thicker sheet.',
      },
    ];
  },
};
