import type { ResolvedJoint } from '../../bolt';
import type { Facts } from '../../derive';
import { facetInSpace } from '../../fold';
import { topPlateOf } from '../../plan';
import { memberName } from '../../rig';
import { plateName, type Rule, type Unsigned } from '../finding';

/** How much a top plate lacks of reaching over both sides of a member, mm; nought where it does. */
function lacks(facts: Facts, j: ResolvedJoint): number {
  const p = facts.panels.find(x => x.panel.id === topPlateOf(j.joint));
  const base = p?.facets[0];
  if (!base || !j.member) return 0;
  const { footprint, wall } = j.member;
  const of = (k: 0 | 1): readonly number[] => footprint.map(q => q[k]);
  const long = (v: readonly number[]): number => Math.max(...v) - Math.min(...v);
  const across = long(of(0)) <= long(of(1)) ? 0 : 1;
  const own = facetInSpace(base).map(q => q[across]);
  const [low, high] = [Math.min(...of(across)) + wall, Math.max(...of(across)) - wall];
  return Math.max(0, Math.min(...own) - low, high - Math.max(...own));
}

/** Less is what a tape reads wrong, mm. */
const HAIR = 1;

export const topPlate: Rule = {
  id: 'top-plate',
  why: 'A bolt right through a hollow member squeezes it: only its sides bear that, its wall between them folds in.',
  find: (facts, words) => {
    const narrow = facts.joints.filter(j => topPlateOf(j.joint) !== undefined && lacks(facts, j) > HAIR);
    return [...new Set(narrow.flatMap(j => topPlateOf(j.joint) ?? []))].map((panel): Unsigned => {
      const mine = narrow.filter(j => topPlateOf(j.joint) === panel);
      const most = Math.max(...mine.map(j => lacks(facts, j)));
      return {
        severity: 'fix',
        where: 'bolt',
        about: [panel, ...mine.map(j => j.id)],
        text: `${plateName(facts, panel)} does not reach over both sides of the ${memberName(facts.rig, mine[0]?.member?.id ?? '')}: it lacks ${words.tape(most)}.`,
        remedy: 'Make it as wide as the member.',
      };
    });
  },
};
