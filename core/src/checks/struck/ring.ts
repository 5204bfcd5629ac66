import { fixed } from '../../units';
import { plateName } from '../finding';
import type { StruckRule } from './rule';

/** A plate whose lowest note is below this is shaken by road and engine, Hz: common practice, no source. */
export const HEARD_BELOW = 40;

export const ring: StruckRule = {
  id: 'ring',
  why: 'A plate with a low natural frequency drums on the road and works its bolts loose.',
  find: (facts, struck) =>
    struck.ringHz < HEARD_BELOW
      ? [
          {
            severity: 'note',
            where: 'strike',
            about: [struck.panel],
            text: `${plateName(facts, struck.panel)} vibrates at ${fixed(struck.ringHz, 0)} Hz; below ${HEARD_BELOW} Hz it may drum.`,
            remedy: 'Add a bolt or a crossbar in its longest span, or turn up an edge.',
          },
        ]
      : [],
};
