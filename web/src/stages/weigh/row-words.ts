import { hardwareChange } from '@plate-fold/core/compare';
import type { Facts } from '@plate-fold/core/derive';
import { fixed, type UnitSystem } from '@plate-fold/core/units';
import { sheetName } from '../../ui/names';
import type { Column } from './use-columns';

/** Blanks by sheet: `3 of 3/16 in steel, 2 of 1/4 in 5052`. */
export function kinds(c: Column): string {
  const counts = new Map<string, number>();
  for (const p of c.facts.panels) {
    const name = sheetName(p.sheet);
    counts.set(name, (counts.get(name) ?? 0) + 1);
  }
  return [...counts].map(([name, n]) => `${n} of ${name}`).join(', ');
}

/** The changes of hardware in a few words, the most frequent first. */
export function hardwareWords(from: Facts, to: Facts, units: UnitSystem): string {
  const changes = hardwareChange(from, to, units);
  if (changes.length === 0) return 'none';
  const said = changes.slice(0, 2).map(x => `${x.joints.length} \u00d7 ${x.from} \u2192 ${x.to}`);
  return said.join('; ') + (changes.length > 2 ? `; ${changes.length - 2} other changes` : '');
}

/** What a build's price has in it besides making: an offer, shipping, tax. */
export function paidWords({ build, weight: { costs } }: Facts): string {
  return [
    ...(build.offer ? [`plates offered at $${fixed(costs.plates, 0)}`] : []),
    ...(costs.shipping > 0 ? [`shipping $${fixed(costs.shipping, 0)}`] : []),
    ...(costs.tax > 0 ? [`tax $${fixed(costs.tax, 0)}`] : []),
  ].join(', ');
}
