import type { FoldedPanel } from '../../fold';
import type { Environment, FastenerFinish, PlanDocument } from '../../plan';
import type { Rule } from '../finding';

/** Anodic index of a fastener's surface, V. */
const INDEX: Readonly<Record<FastenerFinish, number>> = { plain: 0.85, zinc: 1.25, stainless: 0.5 };
/**
 * Greatest difference of two metals that touch, V, by where they are used: outdoors and in salt, in normal use, in a controlled room.
 * Engineering practice (often credited to MIL-STD-889); the index itself is in no standard.
 */
export const MOST_APART: Readonly<Record<Environment, number>> = {
  salt: 0.15,
  normal: 0.25,
  controlled: 0.5,
};

/** An underbody is outdoors and salted unless its owner says otherwise. */
export const environmentOf = (doc: PlanDocument): Environment => doc.plan.environment ?? 'salt';

const SAID: Readonly<Record<Environment, string>> = {
  salt: 'outdoors and in salt',
  normal: 'in normal use',
  controlled: 'in a dry room',
};

const surfaceIndex = ({ sheet, material }: FoldedPanel): number =>
  sheet.finish === 'zinc' ? INDEX.zinc : (material.anodicIndex ?? 0);

/** How far a bare or plated plate and a fastener are apart on the anodic index, V; undefined where a coat keeps them apart. */
export function metalsApart(p: FoldedPanel, finish: FastenerFinish): number | undefined {
  const { sheet, material } = p;
  if (material.anodicIndex === undefined || sheet.finish === 'powder' || sheet.finish === 'paint')
    return undefined;
  return Math.abs(surfaceIndex(p) - INDEX[finish]);
}

export const dissimilarMetals: Rule = {
  id: 'dissimilar-metals',
  why: 'Dissimilar metals corrode where salt water joins them.',
  find: facts => {
    const where = environmentOf(facts.document);
    const most = MOST_APART[where];
    const worst = new Map<
      string,
      { panel: string; mark: string; text: string; ids: string[]; plateIsCathode: boolean }
    >();
    for (const j of facts.joints)
      for (const id of j.joint.panels) {
        const p = facts.panels.find(x => x.panel.id === id);
        const difference = p && metalsApart(p, j.joint.fastener.finish);
        if (!p || difference === undefined || difference <= most + 1e-9) continue;
        const key = `${id}|${j.joint.fastener.finish}`;
        const known = worst.get(key);
        if (known) known.ids.push(j.id);
        else
          worst.set(key, {
            panel: id,
            mark: p.panel.mark,
            ids: [j.id],
            // the nobler of the two has the lower index; coated, it drives nothing
            plateIsCathode: surfaceIndex(p) < INDEX[j.joint.fastener.finish],
            text: `${j.joint.fastener.finish} bolts in bare ${p.material.short}, ${difference.toFixed(2)} V apart on the anodic index`,
          });
      }
    return [...worst.values()].map(w => ({
      severity: 'note',
      where: 'bolt',
      about: [w.panel, ...w.ids],
      text: `Plate ${w.mark}: ${w.text}; ${most.toFixed(2)} V is the limit ${SAID[where]}.`,
      remedy: w.plateIsCathode
        ? 'Coat the plate: it corrodes the bolt.'
        : 'Coat the bolts, heads and washers: they corrode the plate around them. Coating only the plate makes it worse once scratched.',
    }));
  },
};
