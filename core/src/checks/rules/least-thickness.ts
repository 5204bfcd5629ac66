import { callOf, isBracket, type Limits, type Panel, setSheets } from '../../plan';
import type { Component } from '../../rig';
import {
  EXPOSURES,
  type Exposure,
  LEAST_STEEL,
  leastThickness,
  MATERIALS,
  stockOf,
  stockThicknesses,
} from '../../sheet';
import type { Rule, Unsigned } from '../finding';

/** A sheet this much thinner than the limit is still it: what is sold as 16 gauge in millimeters. */
const AS_GOOD = 0.98;
/** Parts that are kept from hands and stones; a rock that a plate under them takes is not what it is for. */
const DETERRED: ReadonlySet<Component['kind']> = new Set<Component['kind']>([
  'catalytic-converter',
  'exhaust',
  'lines',
]);

/** What a plate is there for by what it guards. */
export function exposureOf(panel: Pick<Panel, 'guards'>, components: readonly Component[]): Exposure {
  const kinds = components.filter(c => panel.guards.includes(c.id)).map(c => c.kind);
  if (kinds.includes('fuel-tank')) return 'tank';
  return kinds.every(k => DETERRED.has(k)) ? 'deters' : 'hits';
}

/** The least steel for each exposure as a plan's limits have it, mm; nought where there is no limit. */
export const leastSteelOf = ({ least }: Limits): Readonly<Record<Exposure, number>> =>
  Object.fromEntries(EXPOSURES.map(d => [d, least?.off ? 0 : (least?.[d] ?? LEAST_STEEL[d])])) as Record<
    Exposure,
    number
  >;

const THERE: Readonly<Record<Exposure, string>> = {
  tank: 'under a fuel tank',
  hits: 'where it takes hits',
  deters: 'even where it only deters',
};

export const leastThin: Rule = {
  id: 'least-thickness',
  why: 'Thinner sheet has held in a sum and been torn by a sharp rock: practice keeps a least thickness (your limit on Weigh).',
  find: (facts, words) => {
    const least = leastSteelOf(facts.document.plan.limits);
    return facts.panels.flatMap((p): readonly Unsigned[] => {
      if (isBracket(p.panel)) return [];
      const exposure = exposureOf(p.panel, facts.document.rig.components);
      const limit = leastThickness(least[exposure], p.material.family);
      if (limit === undefined || p.sheet.thickness >= AS_GOOD * limit) return [];
      const { material } = p.sheet;
      const thicker = stockThicknesses(material, stockOf(material, p.sheet.thickness)).find(
        s => s.thickness >= AS_GOOD * limit,
      );
      return [
        {
          severity: 'fix',
          where: 'cover',
          about: [p.panel.id],
          text: `Plate ${p.panel.mark} is ${words.fine(p.sheet.thickness)} ${MATERIALS[material].family}; by practice it is ${words.fine(limit)} or thicker ${THERE[exposure]}.`,
          remedy: thicker
            ? `Use ${thicker.gauge}, or change the limit on Weigh.`
            : 'Use another metal, or change the limit on Weigh.',
          ...(thicker
            ? {
                mend: callOf(setSheets, {
                  build: facts.build.id,
                  sheets: { [p.panel.id]: { ...p.sheet, ...thicker } },
                }),
              }
            : {}),
        },
      ];
    });
  },
};
