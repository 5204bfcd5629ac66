import { undersideAt } from '../../cover';
import { clearDiameter } from '../../fold';
import { underGround } from '../../geometry';
import { freshId, withPanel } from '../../plan';
import type { Rule } from '../finding';

/** Which kinds are reached so seldom that dropping the plate is no hardship: common practice, no source. */
const SELDOM = new Set(['fuel-tank-straps', 'transfer-fill', 'differential-fill']);

export const serviceBlocked: Rule = {
  id: 'service-blocked',
  why: 'Without an opening every oil change drops the plate.',
  find: (facts, words) =>
    facts.rig.servicePoints.flatMap(s => {
      const below = facts.panels.filter(
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
              ? `${s.name}: the opening in plate ${p.panel.mark} is ${words.length(clearDiameter(door))}, hand and tool need ${words.length(s.opening)}.`
              : `${s.name} is behind plate ${p.panel.mark}: the plate comes down for it.`,
            remedy: `Give plate ${p.panel.mark} an opening of ${words.length(s.opening)} there.`,
            mend: doc =>
              withPanel(doc, p.panel.id, panel => {
                const base = p.facets[0];
                if (!base) return panel;
                const at = underGround(base.frame, s.at[0], s.at[1]);
                const hole = {
                  id: freshId('drain', panel.openings),
                  kind: 'drain',
                  at,
                  shape: { circle: s.opening },
                  serves: s.id,
                } as const;
                return { ...panel, openings: [...panel.openings.filter(o => o !== door), hole] };
              }),
          },
        ];
      });
    }),
};
