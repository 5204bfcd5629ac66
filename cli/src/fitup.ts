import { boltUp, boltUpWords } from '@plate-fold/core/compare';
import {
  assumedWords,
  fitOf,
  fitRemedyWords,
  ifMeasured,
  KNOWN,
  measuredWords,
  remediesOf,
} from '@plate-fold/core/fitup';
import { fixed, formatLength, formatPercent } from '@plate-fold/core/units';
import { rows, type Verb } from './answer';

/**
 * Whether it will bolt up: the chance of every plate, the bolts that refuse, and remedies tried out; where it is asked for, which holes
 * together bring it about.
 */
export const fitupVerb: Verb = (facts, units, { trials, together = false } = {}) => {
  const fit = fitOf(facts, trials);
  const remedies = remediesOf(facts, fit);
  const measured = ifMeasured(facts, fit);
  const ups = together ? [false, true].map(measured => boltUp(facts, { measured })) : [];
  const mark = (id: string): string => facts.panels.find(p => p.panel.id === id)?.panel.mark ?? id;
  const finite = (mm: number): number | null => (Number.isFinite(mm) ? mm : null);
  return {
    json: {
      trials: fit.trials,
      all: fit.all,
      groups: fit.groups.map(({ panels, chance }) => ({ panels, chance })),
      panels: fit.panels.map(({ id, chance }) => ({ id, chance })),
      joints: fit.joints.map(j => ({ ...j, clearanceMm: finite(j.clearanceMm) })),
      remedies: remedies.map(({ mend: _, ...r }) => r),
      ...(together ? { together: ups.map(({ mend: _, ...u }) => u) } : {}),
    },
    text: [
      `All bolts start with a chance of ${formatPercent(fit.all.chance)} (give or take ${fixed(100 * fit.all.error, 1)} %, ${fit.trials} trials).`,
      rows([
        ['plate', 'chance'],
        ...fit.panels.map(p => [mark(p.id), formatPercent(p.chance)]),
        ...fit.groups
          .filter(g => g.panels.length > 1)
          .map(g => [g.panels.map(mark).join(' '), formatPercent(g.chance)]),
      ]),
      ...(fit.joints.some(j => j.refuses > 0)
        ? [
            rows([
              ['bolt', 'refuses', 'room', 'doubt'],
              ...[...fit.joints]
                .filter(j => j.refuses > 0)
                .sort((a, b) => b.refuses - a.refuses)
                .slice(0, 8)
                .map(j => [
                  j.id,
                  formatPercent(j.refuses),
                  formatLength(j.clearanceMm, units, true),
                  formatLength(j.sigmaMm, units, true),
                ]),
            ]),
          ]
        : []),
      ...remedies
        .filter(r => r.chance > fit.all.chance + 2 * fit.all.error)
        .slice(0, 4)
        .map(r => `${formatPercent(r.chance)} with this: ${fitRemedyWords(r, units)}`),
      ...(measured === undefined ? [] : [measuredWords(measured, units)]),
      ...assumedWords(facts, units),
      ...ups.flatMap(u => [
        u.measured
          ? `With every hole measured to ${formatLength(KNOWN, units, true)} first:`
          : 'With the holes known as they are now:',
        ...boltUpWords(u, units).map(w => `  ${w}`),
      ]),
    ].join('\n'),
    code: 0,
  };
};
