import { type FoldedPanel, facetInSpace, openingOutline, removesMetal } from '../fold';
import { boxesMeet, boxOf, toSpace, type Vec2, type Vec3 } from '../geometry';
import { isBracket } from '../plan';
import { onPlate } from './on-plate';
import type { Flat3 } from './shell-mesh';
import { PATCH } from './strike-wish';

/** A sheet that lies lower than another by this is met first, mm. */
const LOWER = 0.5;

const inPlan = (f: Flat3): readonly Vec2[] => f.polygon.map((q): Vec2 => [q[0], q[1]]);

/** Flats as the rock meets them, with their openings: nothing is cut for a mesh. Read once for each plate, since the page asks often. */
const met = new WeakMap<FoldedPanel, readonly Flat3[]>();
function metFlats(p: FoldedPanel): readonly Flat3[] {
  const known = met.get(p);
  if (known) return known;
  const made = p.facets.map(
    (f): Flat3 => ({
      name: f.id,
      polygon: facetInSpace(f),
      holes:
        f.parent === undefined
          ? p.panel.openings.filter(removesMetal).map(o => openingOutline(o).map(q => toSpace(f.frame, q)))
          : [],
    }),
  );
  met.set(p, made);
  return made;
}

const found = new WeakMap<readonly FoldedPanel[], WeakMap<FoldedPanel, readonly Flat3[]>>();
/** The flats of other plates that lie under one in plan somewhere. */
export function screensOf(panels: readonly FoldedPanel[], folded: FoldedPanel): readonly Flat3[] {
  const known = found.get(panels)?.get(folded);
  if (known) return known;
  const own = metFlats(folded);
  const box = boxOf(own.flatMap(inPlan));
  const made = panels
    .filter(p => p.panel.id !== folded.panel.id && !isBracket(p.panel))
    .flatMap(metFlats)
    .filter(f => boxesMeet(boxOf(inPlan(f)), box) && lowerSomewhere(f, own, box));
  const of = found.get(panels) ?? new WeakMap<FoldedPanel, readonly Flat3[]>();
  found.set(panels, of.set(folded, made));
  return made;
}

/** Whether a flat lies under others somewhere in a box: asked at places a fourth of the rock's width apart at most. */
function lowerSomewhere(f: Flat3, others: readonly Flat3[], box: ReturnType<typeof boxOf>): boolean {
  const own = boxOf(inPlan(f));
  const low = [0, 1].map(k => Math.max(own.min[k as 0], box.min[k as 0])) as [number, number];
  const wide = [0, 1].map(k => Math.min(own.max[k as 0], box.max[k as 0]) - (low[k] as number));
  const [nx, ny] = wide.map(w => Math.max(1, Math.ceil(w / (PATCH / 4)))) as [number, number];
  for (let i = 0; i < nx; i++)
    for (let k = 0; k < ny; k++) {
      const p: Vec2 = [
        low[0] + ((i + 0.5) / nx) * (wide[0] as number),
        low[1] + ((k + 0.5) / ny) * (wide[1] as number),
      ];
      const at = onPlate([f], p);
      const over = at && onPlate(others, p);
      if (over && at[2] < over[2] - LOWER) return true;
    }
  return false;
}

/**
 * How much of a rock's square, at a place of a plate stands under no sheet that lies lower: the share of its force that reaches
 * the plate. What a rock of some width does where two sheets lap: the lower takes what bears on it (an estimate: the rock is flat and stiff).
 */
export function reaching(screens: readonly Flat3[] | undefined, flats: readonly Flat3[], at: Vec3): number {
  if (!screens || screens.length === 0) return 1;
  const n = 9;
  let open = 0;
  for (let i = 0; i < n; i++)
    for (let k = 0; k < n; k++) {
      const p: Vec2 = [at[0] + ((i + 0.5) / n - 0.5) * PATCH, at[1] + ((k + 0.5) / n - 0.5) * PATCH];
      const own = onPlate(flats, p) ?? at;
      const lower = onPlate(screens, p);
      if (!lower || lower[2] > own[2] - LOWER) open++;
    }
  return open / n ** 2;
}
