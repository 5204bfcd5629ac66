import type { Flange } from '../../plan';
import { withPanel } from '../../plan';
import type { Rule } from '../finding';

/** Die opening in thicknesses and least flange as its share: air bending rule V = 8 t, b = 0.7 V. */
const LEAST_FLANGE = 0.7 * 8;
/** Largest sheet commonly stocked, mm: 4 × 8 ft. */
const SHEET = [1219, 2438] as const;

const everywhere = (
  flanges: readonly Flange[],
  id: string,
  change: (f: Flange) => Flange,
): readonly Flange[] =>
  flanges.map(f => {
    const deep = f.flanges ? { ...f, flanges: everywhere(f.flanges, id, change) } : f;
    return f.id === id ? change(deep) : deep;
  });

export const bend: Rule = {
  id: 'bend',
  why: 'Too tight a bend cracks; too short a flange falls into the die; too large a blank is not for sale.',
  find: (facts, words) =>
    facts.panels.flatMap(p => {
      const { id, mark } = p.panel;
      const t = p.sheet.thickness;
      const tight = p.bends
        .filter(b => !b.ok)
        .map(b => {
          const cold = Number.isFinite(b.minRadiusMm);
          return {
            severity: cold ? ('fix' as const) : ('stop' as const),
            where: 'fold' as const,
            about: [id, b.id],
            text: cold
              ? `Plate ${mark}, bend ${b.id}: inside radius ${words.length(b.insideRadius)} is tighter than ${words.length(b.minRadiusMm)}, the least for ${p.material.name}.`
              : `Plate ${mark}, bend ${b.id}: ${p.material.name} is not folded cold.`,
            remedy: cold
              ? `Use ${words.length(b.minRadiusMm)}.`
              : 'Leave it flat, heat-form it, or choose metal.',
            mend: cold
              ? (doc: Parameters<typeof withPanel>[0]) =>
                  withPanel(doc, id, panel => ({
                    ...panel,
                    flanges: everywhere(panel.flanges, b.id, f => ({
                      ...f,
                      insideRadius: Math.ceil(b.minRadiusMm * 10) / 10,
                    })),
                  }))
              : undefined,
          };
        });
      const short = p.facets.flatMap(f => {
        const inUse = f.flange && f.flange.angle !== 0 && (f.flange.flanges ?? []).length === 0;
        return inUse && f.flange && f.flange.length < LEAST_FLANGE * t
          ? [
              {
                severity: 'fix' as const,
                where: 'fold' as const,
                about: [id, f.id],
                text: `Plate ${mark}, flange ${f.id} is ${words.length(f.flange.length)}; a die for this sheet holds ${words.length(LEAST_FLANGE * t)} or more.`,
                remedy: 'Lengthen it, or leave it off.',
              },
            ]
          : [];
      });
      const [w, h] = [...p.blank.size].sort((a, b) => a - b);
      const large =
        (w ?? 0) > SHEET[0] || (h ?? 0) > SHEET[1]
          ? [
              {
                severity: 'fix' as const,
                where: 'fold' as const,
                about: [id],
                text: `Plate ${mark}: its blank is ${words.length(h ?? 0)} \u00d7 ${words.length(w ?? 0)}, larger than a ${words.length(SHEET[1])} \u00d7 ${words.length(SHEET[0])} sheet.`,
                remedy: 'Split the plate.',
              },
            ]
          : [];
      return [...tight, ...short, ...large];
    }),
};
