import type { FoldedPanel } from '../../fold';
import type { FastenerFinish } from '../../plan';
import type { Rule } from '../finding';

/** Anodic index of a fastener's surface, V. */
const INDEX: Readonly<Record<FastenerFinish, number>> = { plain: 0.85, zinc: 1.25, stainless: 0.5 };
/** Greatest difference for sheltered, salted use: engineering practice; the index itself is in no standard. */
const NORMAL = 0.25;

/** How far a bare or plated plate and a fastener are apart on the anodic index, V; undefined where a coat keeps them apart. */
export function metalsApart({ sheet, material }: FoldedPanel, finish: FastenerFinish): number | undefined {
  if (material.anodicIndex === undefined || sheet.finish === 'powder' || sheet.finish === 'paint')
    return undefined;
  const surface = sheet.finish === 'zinc' ? INDEX.zinc : material.anodicIndex;
  return Math.abs(surface - INDEX[finish]);
}

export const dissimilarMetals: Rule = {
  id: 'dissimilar-metals',
  why: 'Two metals far apart on the anodic index corrode where salt water joins them.',
  find: facts => {
    const worst = new Map<string, { panel: string; mark: string; text: string; ids: string[] }>();
    for (const j of facts.joints)
      for (const id of j.joint.panels) {
        const p = facts.panels.find(x => x.panel.id === id);
        const difference = p && metalsApart(p, j.joint.fastener.finish);
        if (!p || difference === undefined || difference <= NORMAL + 1e-9) continue;
        const key = `${id}|${j.joint.fastener.finish}`;
        const known = worst.get(key);
        if (known) known.ids.push(j.id);
        else
          worst.set(key, {
            panel: id,
            mark: p.panel.mark,
            ids: [j.id],
            text: `${j.joint.fastener.finish} bolts in bare ${p.material.short}, ${difference.toFixed(2)} V apart on the anodic index`,
          });
      }
    return [...worst.values()].map(w => ({
      severity: 'note',
      where: 'bolt',
      about: [w.panel, ...w.ids],
      text: `Plate ${w.mark}: ${w.text} (0.25 V is the usual limit).`,
      remedy: 'Coat the plate, or put grease and a coated washer between.',
    }));
  },
};
