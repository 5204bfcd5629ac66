import { type FoldedPanel, facetInSpace } from '../fold';
import { type Box, boxesMeet, boxOf, type Vec3 } from '../geometry';
import { topPlateOf } from '../plan';
import type { PresentRig } from '../rig';
import type { ResolvedJoint } from './joint';
import { looksDown } from './outward';

/** What stands around a joint and may be in a ratchet's way. */
export interface Around {
  readonly panels: readonly FoldedPanel[];
  readonly rig: PresentRig;
}

/** Socket extensions as sold, mm: common practice, no source. */
export const EXTENSIONS = [75, 150, 250] as const;
/** Half the width a ratchet's head and a hand's knuckles take, and how deep a socket alone reaches, mm: common practice. */
const RATCHET = { around: 45, socket: 30 } as const;

/** The lowest a flat polygon in space comes within a box seen from above, mm; undefined where it does not meet it. */
function lowestWithin(points: readonly Vec3[], box: Box): number | undefined {
  const inside = [0, 1].reduce<readonly Vec3[]>(
    (poly, axis) =>
      [-1, 1].reduce<readonly Vec3[]>((p, side) => {
        const edge = (side < 0 ? box.min : box.max)[axis] as number;
        const over = (q: Vec3): number => side * ((q[axis] as number) - edge);
        return p.flatMap((a, i) => {
          const b = p[(i + 1) % p.length] as Vec3;
          const [fa, fb] = [over(a), over(b)];
          const cut: Vec3[] = fa <= 0 ? [a] : [];
          if (fa <= 0 !== fb <= 0) {
            const k = fa / (fa - fb);
            cut.push([a[0] + k * (b[0] - a[0]), a[1] + k * (b[1] - a[1]), a[2] + k * (b[2] - a[2])]);
          }
          return cut;
        });
      }, poly),
    points,
  );
  return inside.length === 0 ? undefined : Math.min(...inside.map(p => p[2]));
}

/** What lies between a hole's face and the head that looks down from it. */
const STANDS: ReadonlySet<string> = new Set(['washer', 'plate', 'bar', 'spacer']);

/**
 * How deep the turned end of a joint lies behind what hangs lower right beside it (a folded lip, another plate, a rail), mm,
 * 0 where it stands free, and where it does not look down: what stands beside such a head is not known. The plate the bolt goes through is
 * not in its own way.
 */
export function recessMm(j: ResolvedJoint, { panels, rig }: Around): number {
  if (!looksDown(j.mount)) return 0;
  const [x, y, z] = j.at;
  const r = RATCHET.around;
  const box: Box = { min: [x - r, y - r], max: [x + r, y + r] };
  const lowest: number[] = [];
  for (const p of panels)
    for (const f of p.facets) {
      if (f.id === 'base' && j.joint.panels.includes(p.panel.id)) continue;
      const points = facetInSpace(f);
      if (!boxesMeet(boxOf(points.map(q => [q[0], q[1]])), box)) continue;
      const low = lowestWithin(points, box);
      if (low !== undefined) lowest.push(low);
    }
  for (const m of rig.members) {
    if (m.id === j.member?.id) continue;
    const low = lowestWithin(
      m.footprint.map(([u, v]): Vec3 => [u, v, m.zBottom]),
      box,
    );
    if (low !== undefined) lowest.push(low);
  }
  const top = topPlateOf(j.joint);
  const under = j.layers.reduce(
    (s, l) => s + (STANDS.has(l.kind) && (top === undefined || l.ref !== top) ? l.thickness : 0),
    0,
  );
  return Math.max(0, z - under - Math.min(z, ...lowest));
}

/** The shortest extension that brings a ratchet out of the recess, mm; undefined where the socket alone does. */
export function extensionFor(j: ResolvedJoint, around: Around): number | undefined {
  const needed = recessMm(j, around) - RATCHET.socket;
  if (needed <= 0) return undefined;
  return EXTENSIONS.find(e => e >= needed) ?? EXTENSIONS.at(-1);
}
