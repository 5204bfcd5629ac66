import {
  bendingForce,
  brakeOrder,
  dieFor,
  LEAST_V_OVER_T,
  leastFlange,
  longestBend,
  shopOf,
} from '../../fold';
import { callOf, changeFlanges } from '../../plan';
import { spoken } from '../../units';
import { plateName, type Rule, type Unsigned } from '../finding';

/** How the parts of a brake are called in a sentence. */
const TOOL = {
  punch: 'the punch',
  beam: 'the beam above the punch',
  die: 'the die',
  bed: 'the bed below the die',
} as const;

export const brake: Rule = {
  id: 'brake',
  why: 'A short flange falls into the die; a bend that is too long, too heavy or blocked by the tools cannot be made.',
  find: (facts, words) => {
    const shop = shopOf(facts.document.plan);
    const [longest, widest] = shop.sheets.reduce(
      ([l, w], s) => (s[0] * s[1] > l * w ? [Math.max(...s), Math.min(...s)] : [l, w]),
      [0, 0],
    );
    return facts.panels.flatMap(p => {
      const { id } = p.panel;
      const plate = plateName(facts, id);
      const t = p.sheet.thickness;
      const die = dieFor(t, shop.dies);
      const narrow = die !== undefined && die < LEAST_V_OVER_T * t - 1e-9 && p.bends.some(b => b.angle !== 0);
      const cold = p.bends.every(b => Number.isFinite(b.minRadiusMm));
      const bends = p.facets.flatMap(({ flange, hinge }): readonly Unsigned[] => {
        if (!flange || !hinge || flange.angle === 0 || !cold) return [];
        const at = { severity: 'fix', where: 'fold', about: [id, flange.id] } as const;
        const out: Unsigned[] = [];
        if (die && (flange.flanges ?? []).length === 0 && flange.length < leastFlange(die))
          out.push({
            ...at,
            text: `${plate}, flange ${spoken(flange.id)} is ${words.length(flange.length)}; the ${words.length(die)} die for this sheet needs ${words.length(leastFlange(die))} or more.`,
            remedy: 'Make it longer, or delete it.',
            mend: callOf(changeFlanges, {
              panel: id,
              flanges: [flange.id],
              part: { length: Math.ceil(leastFlange(die)) },
            }),
          });
        if (hinge.width > shop.brake.length)
          out.push({
            ...at,
            text: `${plate}, bend ${spoken(flange.id)} is ${words.length(hinge.width)} long; the brake at ${shop.name} takes ${words.length(shop.brake.length)}.`,
            remedy: 'Split the plate, make its edge shorter, or choose another shop.',
          });
        else if (die && bendingForce(p.material.ultimate, t, hinge.width, die) > shop.brake.force)
          out.push({
            ...at,
            text: `${plate}, bend ${spoken(flange.id)} takes ${words.force(bendingForce(p.material.ultimate, t, hinge.width, die))}; the brake at ${shop.name} gives ${words.force(shop.brake.force)}.`,
            remedy: `${words.length(longestBend(shop, p.material.ultimate, t))} is the longest bend in this sheet: thinner sheet, a shorter bend, or another shop.`,
          });
        return out;
      });
      const bent = cold ? brakeOrder(p, shop) : undefined;
      const none = bent?.gaveUp ? 'no bend order found (not every order was tried)' : 'no bend order works';
      const blocked = bent
        ? bent.blocked.map(
            (b): Unsigned => ({
              severity: 'fix',
              where: 'fold',
              about: [id, b.bend, b.by],
              text: `${plate}: ${none}. Bend ${spoken(b.bend)} is left, and ${b.by === 'base' ? 'the base' : `flange ${spoken(b.by)}`} hits ${TOOL[b.tool]} (estimate, tools as entered for ${shop.name}).`,
              remedy:
                'Shorten the flange in the way, split the plate, or use a shop with a taller or slimmer punch.',
            }),
          )
        : [];
      const [w, h] = [...p.blank.size].sort((a, b) => a - b) as [number, number];
      const large: readonly Unsigned[] =
        shop.sheets.length > 0 && !shop.sheets.some(s => w <= Math.min(...s) && h <= Math.max(...s))
          ? [
              {
                severity: 'fix',
                where: 'fold',
                about: [id],
                text: `${plate}: its blank is ${words.length(h)} \u00d7 ${words.length(w)}, larger than a ${words.length(longest)} \u00d7 ${words.length(widest)} sheet.`,
                remedy: 'Split the plate.',
              },
            ]
          : [];
      const tooNarrow: readonly Unsigned[] =
        narrow && cold
          ? [
              {
                severity: 'fix',
                where: 'fold',
                about: [id, 'die'],
                text: `${plate}: the widest die at ${shop.name} opens ${words.fine(die)}; ${words.fine(t)} sheet needs ${words.fine(LEAST_V_OVER_T * t)} or more, or it marks and may crack.`,
                remedy: 'Choose a shop with a wider die, or thinner sheet.',
              },
            ]
          : [];
      return [...bends, ...blocked, ...large, ...tooNarrow];
    });
  },
};
