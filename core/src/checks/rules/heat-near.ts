import type { Facts } from '../../derive';
import { type FoldedPanel, facetInSpace } from '../../fold';
import { boxOf, outlinesApart, type Vec2 } from '../../geometry';
import type { Component } from '../../rig';
import { besideHot, MATERIALS, type Shone, yieldKept } from '../../sheet';
import { partName, plateName, type Unsigned, type Words } from '../finding';

/** Parts cooler than this heat nothing beside them worth a word, °C; further off than this likewise, mm. */
const WARM = 120;
const FAR = 400;
/** A sheet that keeps less of its yield than this is told of; less than that is mended first. */
const KEEPS = 0.9;
const WEAK = 0.75;

const shone = (p: FoldedPanel): Shone => ({
  material: p.material,
  thickness: p.sheet.thickness,
  coated: p.sheet.finish !== 'raw',
});

/** How near a sheet comes to a part, mm: plan and height apart taken together, flat by flat. */
function apartFrom(p: FoldedPanel, part: Component): number {
  return Math.min(
    ...p.facets.map(f => {
      const points = facetInSpace(f);
      const plan = points.map((q): Vec2 => [q[0], q[1]]);
      const zs = points.map(q => q[2]);
      const up = Math.max(0, part.zBottom - Math.max(...zs) - p.sheet.thickness, Math.min(...zs) - part.zTop);
      return Math.hypot(outlinesApart(plan, part.footprint), up);
    }),
  );
}

/** The distance at which a sheet would stay as strong as it should be, mm; undefined where none within reach does. */
function enough(p: FoldedPanel, part: Component, a: number, b: number): number | undefined {
  for (let d = 10; d <= FAR; d += 5)
    if (yieldKept(p.material, besideHot(part.surfaceC ?? 0, d, a, b, shone(p))) >= KEEPS) return d;
  return undefined;
}

const hotParts = (facts: Facts): readonly Component[] =>
  facts.rig.components.filter(c => (c.surfaceC ?? 0) >= WARM);

/** Plates that lose their strength beside a hot part, whether they lie under it or not. */
export const heatNear = (facts: Facts, words: Words): readonly Unsigned[] =>
  facts.panels.flatMap(p =>
    p.material.family !== 'aluminum' && p.material.family !== 'plastic'
      ? []
      : hotParts(facts).flatMap((part): readonly Unsigned[] => {
          const apart = apartFrom(p, part);
          if (apart > FAR) return [];
          const { min, max } = boxOf(part.footprint);
          const [a, b] = [(max[0] - min[0]) / 2, (max[1] - min[1]) / 2];
          const celsius = besideHot(part.surfaceC ?? 0, apart, a, b, shone(p));
          const kept = yieldKept(p.material, celsius);
          if (kept >= KEEPS) return [];
          const plastic = p.material.family === 'plastic';
          const room = enough(p, part, a, b);
          return [
            {
              severity: plastic ? 'stop' : kept < WEAK ? 'fix' : 'note',
              where: 'cover',
              about: [p.panel.id, part.id],
              text: plastic
                ? `${plateName(facts, p.panel.id)} is plastic, rated to ${words.temperature(p.material.maxServiceC)}; ${words.tape(apart)} from ${partName(facts, part.id)} at ${words.temperature(part.surfaceC ?? 0)} it reaches about ${words.temperature(Math.round(celsius / 5) * 5)} (an estimate).`
                : `${plateName(facts, p.panel.id)} reaches about ${words.temperature(Math.round(celsius / 5) * 5)}, ${words.tape(apart)} from ${partName(facts, part.id)} at ${words.temperature(part.surfaceC ?? 0)} (an estimate); ${p.material.short} keeps ${Math.round(kept * 100)} % of its yield there.`,
              remedy: `A heat shield with air on both sides between them${room === undefined ? '' : `, a gap of ${words.tape(room)}`}, or ${MATERIALS['steel-hr36'].family} for this plate.`,
            },
          ];
        }),
  );
