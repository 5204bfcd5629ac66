import { leastRadius, MOST_ANGLE, runsAlongGrain } from '../../fold';
import { type Call, callOf, changeFlanges } from '../../plan';
import { fixed, spoken } from '../../units';
import { plateName, type Rule, type Unsigned } from '../finding';

/** A radius a shop can set: up to the next tenth of a millimeter. */
const roundUp = (mm: number): number => Math.ceil(mm * 10 - 1e-6) / 10;

export const bend: Rule = {
  id: 'bend',
  why: 'A bend that is too tight cracks, along the grain first.',
  find: (facts, words) =>
    facts.panels.flatMap(p => {
      const { id } = p.panel;
      return p.facets.flatMap(({ flange, hinge }): readonly Unsigned[] => {
        const b = p.bends.find(x => x.id === flange?.id);
        if (!flange || !hinge || !b) return [];
        const name = `${plateName(facts, id)}, bend ${spoken(b.id)}`;
        const about = [id, b.id];
        const at = { where: 'fold', about } as const;
        const set = (part: Parameters<typeof changeFlanges.run>[1]['part']): Call =>
          callOf(changeFlanges, { panel: id, flanges: [b.id], part });
        const opened = (radius: number): Call => set({ insideRadius: roundUp(radius) });
        if (hinge.width <= 0)
          return [
            {
              ...at,
              severity: 'stop',
              text: `${name}: its insets use up the whole edge.`,
              remedy: 'Make the insets smaller, or take the flange off.',
              mend: set({ inset: [0, 0] }),
            },
          ];
        if (flange.angle === 0) return [];
        const out: Unsigned[] = [];
        if (Math.abs(flange.angle) > MOST_ANGLE)
          out.push({
            ...at,
            severity: 'stop',
            text: `${name}: ${fixed(Math.abs(flange.angle), 0)}° is more than the ${MOST_ANGLE}° a brake can bend; it is drawn at ${MOST_ANGLE}°.`,
            remedy: `Fold it by ${MOST_ANGLE}° or less.`,
            mend: set({ angle: Math.sign(flange.angle) * MOST_ANGLE }),
          });
        if (!Number.isFinite(b.minRadiusMm))
          return [
            ...out,
            {
              ...at,
              severity: 'stop',
              text: `${name}: ${p.material.name} cannot be bent cold.`,
              remedy: 'Leave it flat, heat-form it, or choose metal.',
            },
          ];
        const radius = flange.insideRadius ?? b.insideRadius;
        if (radius <= 0)
          out.push({
            ...at,
            severity: 'stop',
            text: `${name}: an inside radius of ${words.length(radius)} cannot be made; it is drawn sharp.`,
            remedy: `Use ${words.length(b.minRadiusMm)}.`,
            mend: opened(b.minRadiusMm),
          });
        else if (radius < b.minRadiusMm - 1e-6)
          out.push({
            ...at,
            severity: 'fix',
            text: `${name}: inside radius ${words.length(radius)} is tighter than ${words.length(b.minRadiusMm)}, the least for ${p.material.name}.`,
            remedy: `Use ${words.length(b.minRadiusMm)}.`,
            mend: opened(b.minRadiusMm),
          });
        else if (runsAlongGrain(p, b.id) && radius < leastRadius(p, b.id) - 1e-6)
          out.push({
            ...at,
            severity: 'note',
            text: `${name} runs along the grain: inside radius ${words.length(radius)}; ${words.length(leastRadius(p, b.id))} is safer (estimate).`,
            remedy: `Use ${words.length(leastRadius(p, b.id))}, or turn the grain on Fold.`,
            mend: opened(leastRadius(p, b.id)),
          });
        return out;
      });
    }),
};
