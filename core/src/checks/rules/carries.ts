import { distanceToSegment } from '../../geometry';
import { callOf, changeCrossbar } from '../../plan';
import { besideOld } from '../../weigh';
import { partName, type Rule, type Unsigned } from '../finding';

/** A crossbar this near to where a factory part was may be what takes its place, mm: a guess. */
const NEAR = 300;
/** Less of the old section modulus than this is said: what is left to a measured tube wall. */
const WEAKER = 0.95;

export const carries: Rule = {
  id: 'carries',
  why: 'What a factory part carried must be carried by something else, or it hangs on hoses and mounts.',
  find: facts => {
    const out: Unsigned[] = [];
    const { crossbars } = facts.document.plan;
    for (const f of facts.rig.factoryParts) {
      const bar = crossbars.find(c => c.replaces === f.id);
      if (f.carries !== undefined && !bar) {
        const near = crossbars.filter(
          c =>
            c.replaces === undefined &&
            distanceToSegment([f.at[0], f.at[1]], [c.from[0], c.from[1]], [c.to[0], c.to[1]]) < NEAR,
        );
        const [only] = near.length === 1 ? near : [];
        out.push({
          severity: 'stop',
          where: 'cover',
          about: [f.id],
          text: `The ${f.name} comes off and nothing carries ${partName(facts, f.carries)} in its place.`,
          ...(only
            ? {
                remedy: `The ${only.name} takes its place, if it is made to.`,
                mend: callOf(changeCrossbar, { bar: only.id, part: { replaces: f.id } }),
              }
            : { remedy: 'Add a crossbar that takes its place, or leave the part on.' }),
        });
      }
      if (!bar) continue;
      const { modulus } = besideOld(bar, f);
      if (modulus !== undefined && modulus < WEAKER)
        out.push({
          severity: 'fix',
          where: 'cover',
          about: [bar.id, f.id],
          text: `The ${bar.name} has ${Math.round(100 * modulus)} % of the section modulus of the ${f.name} it replaces: it bends sooner.`,
          remedy: 'Make it higher or thicker in the wall.',
        });
    }
    return out;
  },
};
