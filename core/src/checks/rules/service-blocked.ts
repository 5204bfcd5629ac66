import { undersideAt } from '../../cover';
import type { Facts } from '../../derive';
import { clearDiameter, type FoldedPanel } from '../../fold';
import { underGround } from '../../geometry';
import { freshId } from '../../plan';
import type { ServicePoint } from '../../rig';
import type { Rule, Unsigned } from '../finding';
import { openingsTried, placesAbout } from '../openings-near';

/** Which kinds are reached so seldom that dropping the plate is no hardship: common practice, no source. */
const SELDOM = new Set(['fuel-tank-straps', 'transfer-fill', 'differential-fill']);

/** An opening under a point, or as far aside as a hand still gets at it, where plate, bolts and bends leave room. */
function opened(
  facts: Facts,
  p: FoldedPanel,
  s: ServicePoint,
  instead: string | undefined,
  remedy: string,
): Pick<Unsigned, 'remedy' | 'mend' | 'more'> {
  const base = p.facets[0];
  if (!base) return { remedy };
  const hole = {
    id: instead ?? freshId('drain', p.panel.openings),
    kind: 'drain',
    shape: { circle: s.opening },
    serves: s.id,
  } as const;
  const places = placesAbout(underGround(base.frame, s.at[0], s.at[1]), 24, 8);
  const [first, ...more] = openingsTried(facts.document, p.panel.id, hole, places, 9);
  return {
    remedy: first
      ? remedy
      : `${remedy.slice(0, -1)}: there is no room for it unless the plate’s edge moves out.`,
    ...(first ? { mend: first } : {}),
    more: more.map(mend => ({ remedy, mend })),
  };
}

export const serviceBlocked: Rule = {
  id: 'service-blocked',
  why: 'Without an opening the plate comes down for every service.',
  find: (facts, words) =>
    facts.rig.servicePoints.flatMap(s => {
      const below = facts.plates.filter(
        p => (undersideAt(p, s.at[0], s.at[1]) ?? Number.POSITIVE_INFINITY) < s.at[2],
      );
      return below.flatMap(p => {
        const door = p.panel.openings.find(o => o.serves === s.id);
        if (door && clearDiameter(door) >= s.opening) return [];
        const seldom = SELDOM.has(s.kind);
        return [
          {
            severity: seldom ? ('note' as const) : ('fix' as const),
            where: 'cover' as const,
            about: [p.panel.id, s.id],
            text: door
              ? `${s.name}: the opening in plate ${p.panel.mark} is ${words.length(clearDiameter(door))}; hand and tool need ${words.length(s.opening)}.`
              : `${s.name}: behind plate ${p.panel.mark}, which comes down for it.`,
            ...opened(
              facts,
              p,
              s,
              door?.id,
              `Give plate ${p.panel.mark} an opening of ${words.tape(s.opening)} there.`,
            ),
          },
        ];
      });
    }),
};
