import { plateName } from '../finding';
import type { StruckRule } from './rule';

/** Dents below this are not seen, mm: common practice, no source. */
const SEEN = 1;

export const yields: StruckRule = {
  id: 'yields',
  why: 'A dent uses up clearance. It can be hammered out a few times before the sheet cracks.',
  find: (facts, struck, words) =>
    struck.dentMm !== undefined && struck.dentMm >= SEEN
      ? [
          {
            severity: 'note',
            where: 'strike',
            about: [struck.panel],
            text: `${plateName(facts, struck.panel)} keeps a dent of ${words.length(struck.dentMm)}.`,
          },
        ]
      : [],
};
