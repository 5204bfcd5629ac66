import type { FoldedPanel } from '../fold';
import { openingOutline } from '../fold';
import { boxOf, contains, distance2, distanceToOutline, toSpace, type Vec2, type Vec3 } from '../geometry';
import type { Support } from './step';

/** Standard gravity, m/s². */
const G = 9.80665;
/** Half the block between jack and plate, mm: common practice, no source. */
const BLOCK = 50;

const places = new WeakMap<FoldedPanel, Vec3>();

/**
 * Where the block of the jack touches a plate: on its base, as near to under its center of mass as the block finds whole sheet, off its
 * edges and openings. Vehicle frame, mm. The base's middle where no such place is found.
 */
export function jackPlace(p: FoldedPanel): Vec3 {
  const known = places.get(p);
  if (known) return known;
  const found = findPlace(p);
  places.set(p, found);
  return found;
}

function findPlace(p: FoldedPanel): Vec3 {
  const base = p.facets[0];
  if (!base) return p.centroid;
  const { frame, outline } = base;
  const { min, max } = boxOf(outline);
  const openings = p.panel.openings.map(openingOutline);
  const free = (q: Vec2): boolean =>
    contains(outline, q) &&
    distanceToOutline(outline, q) >= BLOCK &&
    openings.every(o => !contains(o, q) && distanceToOutline(o, q) >= BLOCK);
  const step = 20;
  const places: { readonly q: Vec2; readonly at: Vec3; readonly off: number }[] = [];
  for (let u = min[0] + step; u < max[0]; u += step)
    for (let v = min[1] + step; v < max[1]; v += step) {
      const at = toSpace(frame, [u, v]);
      places.push({ q: [u, v], at, off: distance2([at[0], at[1]], [p.centroid[0], p.centroid[1]]) });
    }
  // most plates are whole near there: few places are looked at
  const best = places.sort((a, b) => a.off - b.off).find(({ q }) => free(q));
  return best?.at ?? toSpace(frame, [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2]);
}

/**
 * What a jack and two bolts carry of a plate that hangs level, N: equilibrium of vertical forces and of moments about both axes, so
 * three supports that do not stand in one line. Undefined where they do. Positive holds up, negative is pushed up and holds down.
 */
export function sharedLoads(
  weightN: number,
  center: Vec2,
  jack: Vec2,
  bolts: readonly [Vec2, Vec2],
): readonly [jackN: number, firstN: number, secondN: number] | undefined {
  const [a, b] = bolts;
  const cross = (o: Vec2, p: Vec2, q: Vec2): number =>
    (p[0] - o[0]) * (q[1] - o[1]) - (p[1] - o[1]) * (q[0] - o[0]);
  const whole = cross(jack, a, b);
  // less than a square of 10 mm spanned between the three: in one line for hands
  if (Math.abs(whole) < 100) return undefined;
  // barycentric coordinates of the center of mass in the triangle of the supports
  const jackShare = cross(center, a, b) / whole;
  const firstShare = cross(jack, center, b) / whole;
  const secondShare = cross(jack, a, center) / whole;
  return [weightN * jackShare, weightN * firstShare, weightN * secondShare];
}

/** How a plate is held until its bolts do: the jack's place, and the loads once its first two bolts are in. */
export function supportOf(
  p: FoldedPanel,
  firstBolts: readonly { readonly id: string; readonly x: number; readonly y: number }[],
): Support {
  const jackAt = jackPlace(p);
  const aloneN = p.massKg * G;
  const [a, b] = firstBolts;
  const loads =
    a && b
      ? sharedLoads(
          aloneN,
          [p.centroid[0], p.centroid[1]],
          [jackAt[0], jackAt[1]],
          [
            [a.x, a.y],
            [b.x, b.y],
          ],
        )
      : undefined;
  return {
    massKg: p.massKg,
    jackAt,
    aloneN,
    // where one of them would have to pull down, the figures say nothing that hands could use
    ...(loads && a && b && loads.every(f => f >= 0)
      ? {
          shared: {
            jackN: loads[0],
            bolts: [
              { joint: a.id, forceN: loads[1] },
              { joint: b.id, forceN: loads[2] },
            ],
          },
        }
      : {}),
  };
}
