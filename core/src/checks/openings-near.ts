import type { Vec2 } from '../geometry';
import { type Call, callOf, type Opening, openingFault, type PlanDocument, setOpening } from '../plan';

/** Places about one, nearest first: rings of eight, mm apart. */
export function placesAbout([u, v]: Vec2, far: number, step: number): readonly Vec2[] {
  const out: Vec2[] = [[u, v]];
  for (let r = step; r <= far; r += step)
    for (let i = 0; i < 8; i++) {
      const a = (i * Math.PI) / 4;
      out.push([u + r * Math.cos(a), v + r * Math.sin(a)]);
    }
  return out;
}

/** An opening put into a plate at each of some places where it lies within it: what may be tried, in that order. */
export const openingsTried = (
  doc: PlanDocument,
  panel: string,
  opening: Omit<Opening, 'at'>,
  places: readonly Vec2[],
  most = 6,
): readonly Call[] => {
  const outline = doc.plan.panels.find(p => p.id === panel)?.base.outline ?? [];
  return places
    .map((at): Opening => ({ ...opening, at }))
    .filter(o => openingFault(outline, o) === undefined)
    .slice(0, most)
    .map(opening => callOf(setOpening, { panel, opening }));
};
