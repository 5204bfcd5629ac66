import { freshId, withPanel } from '../../plan';
import { partName, plateName, type Rule, type Unsigned } from '../finding';

/** Surface temperature from which a shielded part wants air: common practice, no source. */
const HOT = 200;

export const hotPart: Rule = {
  id: 'hot-part',
  why: 'Heat that cannot leave cooks what it is shut in with; plastic sags long before.',
  find: facts =>
    facts.gaps.flatMap((g): readonly Unsigned[] => {
      const part = facts.rig.components.find(c => c.id === g.component);
      const plate = facts.panels.find(p => p.panel.id === g.panel);
      const surface = part?.surfaceC ?? 0;
      if (!part || !plate || g.gapMm > 150) return [];
      if (plate.material.family === 'plastic' && surface > plate.material.maxServiceC)
        return [
          {
            severity: 'stop',
            where: 'cover',
            about: [g.panel, g.component],
            text: `${plateName(facts, g.panel)} is plastic, good to ${plate.material.maxServiceC} \u00b0C, under ${partName(facts, g.component)} at ${surface} \u00b0C.`,
            remedy: 'Choose metal for this plate.',
          },
        ];
      const airy = plate.panel.openings.some(o => o.kind === 'louvers');
      if (surface < HOT || airy || !plate.panel.guards.includes(part.id)) return [];
      return [
        {
          severity: 'fix',
          where: 'cover',
          about: [g.panel, g.component],
          text: `${plateName(facts, g.panel)} shuts in ${partName(facts, g.component)} (${surface} \u00b0C) without louvers.`,
          remedy: 'Add louvers under it.',
          mend: doc =>
            withPanel(doc, g.panel, p => {
              const [x, y] = part.footprint.reduce(
                ([sx, sy], [a, b]) =>
                  [sx + a / part.footprint.length, sy + b / part.footprint.length] as const,
                [0, 0] as readonly [number, number],
              );
              const at = [x - p.base.origin[0], y - p.base.origin[1]] as const;
              const louvers = {
                id: freshId('louvers', p.openings),
                kind: 'louvers',
                at,
                shape: { rect: [120, 60] },
                openFraction: 0.3,
              } as const;
              return { ...p, openings: [...p.openings, louvers] };
            }),
        },
      ];
    }),
};
