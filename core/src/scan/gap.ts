import type { FoldedPanel } from '../fold';
import { contains, distanceToOutline, heightAt, underGround, type Vec2 } from '../geometry';
import type { Member } from '../rig';
import { type Heights, heightOver } from './heights';

/** Where a plate lies on a member it is meant to touch: only what reaches into it by more than this counts there, mm. */
const INTO = 3;
/** A member counts as under a place within this of its footprint, mm. */
const BESIDE = 10;
/** Flats steeper than this have nothing over them that is seen from below, by the upright part of their normal. */
const FLAT = 0.3;

type Seats = readonly Pick<Member, 'footprint'>[];
const seatedAt = (members: Seats, at: Vec2): boolean =>
  members.some(m => contains(m.footprint, at) || distanceToOutline(m.footprint, at) < BESIDE);

export interface ScanGap {
  /** from the plate's upper side up to what the scan shows, mm; below nought where they run into each other */
  readonly gapMm: number;
  readonly at: Vec2;
}

/**
 * The least gap between a folded plate's upper side and what a scan shows over it, over every height of the grid; undefined where the scan shows nothing over
 * it. Where it lies under a member it is bolted to, it is meant to touch: there only what reaches into it counts.
 */
export function scanGap(
  h: Heights,
  plate: Pick<FoldedPanel, 'facets' | 'sheet'>,
  members: Seats,
): ScanGap | undefined {
  let best: ScanGap | undefined;
  for (const f of plate.facets) {
    if (f.frame.n[2] < FLAT) continue;
    const corners = f.outline.map(
      ([a, b]): Vec2 => [
        f.frame.origin[0] + a * f.frame.u[0] + b * f.frame.v[0],
        f.frame.origin[1] + a * f.frame.u[1] + b * f.frame.v[1],
      ],
    );
    const [xs, ys] = [corners.map(c => c[0]), corners.map(c => c[1])];
    const first = (v: readonly number[], o: number, most: number): number =>
      Math.min(most, Math.max(0, Math.ceil((Math.min(...v) - o) / h.step)));
    const last = (v: readonly number[], o: number, most: number): number =>
      Math.min(most, Math.floor((Math.max(...v) - o) / h.step));
    const through = plate.sheet.thickness / f.frame.n[2];
    for (let j = first(ys, h.from[1], h.height); j <= last(ys, h.from[1], h.height - 1); j++)
      for (let i = first(xs, h.from[0], h.width); i <= last(xs, h.from[0], h.width - 1); i++) {
        const z = h.z[j * h.width + i] as number;
        if (Number.isNaN(z)) continue;
        const at: Vec2 = [h.from[0] + i * h.step, h.from[1] + j * h.step];
        const gapMm = z - heightAt(f.frame, at[0], at[1]) - through;
        if (best && gapMm >= best.gapMm) continue;
        if (!contains(f.outline, underGround(f.frame, at[0], at[1]))) continue;
        const seated = members.some(
          m => contains(m.footprint, at) || distanceToOutline(m.footprint, at) < BESIDE,
        );
        if (seated && gapMm > -INTO) continue;
        best = { gapMm, at };
      }
  }
  return best;
}

/**
 * The same for a plate as a strike has moved it, over the nodes of its mesh: `coordinates` in the middle of the sheet at rest and `moves`, both x y z a node, mm.
 */
export function scanGapStruck(
  h: Heights,
  picture: { readonly coordinates: Float32Array; readonly moves: Float32Array },
  thickness: number,
  members: Seats,
): ScanGap | undefined {
  const { coordinates: c, moves: m } = picture;
  let best: ScanGap | undefined;
  for (let n = 0; n < c.length; n += 3) {
    const at: Vec2 = [(c[n] as number) + (m[n] as number), (c[n + 1] as number) + (m[n + 1] as number)];
    const z = heightOver(h, at);
    if (z === undefined) continue;
    const gapMm = z - (c[n + 2] as number) - (m[n + 2] as number) - thickness / 2;
    if ((best && gapMm >= best.gapMm) || (gapMm > -INTO && seatedAt(members, at))) continue;
    best = { gapMm, at };
  }
  return best;
}
