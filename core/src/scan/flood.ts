import { contours } from 'd3-contour';
import { type Polygon, signedArea, simplified, type Vec2 } from '../geometry';
import { err, ok, type Result } from '../units';
import type { Heights } from './heights';

/** What belongs to one part on a scan: its outline from below, and its lowest and highest place, mm. */
export interface Region {
  readonly outline: Polygon;
  readonly zBottom: number;
  readonly zTop: number;
}

/** From one place to the next a part rises or falls by no more than this, mm; a step of its own is an edge. */
export const JUMP = 6;
/** Beyond a place round which heights differ by more than this many such steps nothing hangs together: a ragged edge bridges no step. */
const RAGGED = 1.5;
/** An outline is simplified within this, mm. */
const WITHIN = 2;
/** Fewer places than this are a speck. */
const SPECK = 12;

/** How much the heights round a place differ, itself and the eight beside it, mm. */
function rangeRound({ width, height, z }: Heights, i: number, j: number): number {
  let [low, high] = [Infinity, -Infinity];
  for (let b = Math.max(0, j - 1); b <= Math.min(height - 1, j + 1); b++)
    for (let a = Math.max(0, i - 1); a <= Math.min(width - 1, i + 1); a++) {
      const v = z[b * width + a] as number;
      if (v < low) low = v;
      if (v > high) high = v;
    }
  return high - low;
}

/**
 * The part under a place of a scan: all places that hang together with it by steps of at most `jump` mm of height, as one outline (marching squares),
 * simplified within 2 mm; holes in it are filled. Faults: nothing there, no more than a speck.
 */
export function regionAt(h: Heights, [x, y]: Vec2, jump = JUMP): Result<Region> {
  const { width, height, z, from, step } = h;
  const [i0, j0] = [Math.round((x - from[0]) / step), Math.round((y - from[1]) / step)];
  const start = j0 * width + i0;
  if (i0 < 0 || j0 < 0 || i0 >= width || j0 >= height || Number.isNaN(z[start] as number))
    return err('the scan shows nothing at that place');
  // one row of nothing all round, so that the outline closes
  const [w, hh] = [width + 2, height + 2];
  const inside = new Uint8Array(w * hh);
  const stack = [start];
  inside[(j0 + 1) * w + i0 + 1] = 1;
  let [low, high, count] = [Infinity, -Infinity, 0];
  for (let k = stack.pop(); k !== undefined; k = stack.pop()) {
    const here = z[k] as number;
    count++;
    if (here < low) low = here;
    if (here > high) high = here;
    const i = k % width;
    const j = (k - i) / width;
    if (rangeRound(h, i, j) > RAGGED * jump) continue;
    for (const [a, b] of [
      [i - 1, j],
      [i + 1, j],
      [i, j - 1],
      [i, j + 1],
    ] as const) {
      if (a < 0 || b < 0 || a >= width || b >= height) continue;
      const at = (b + 1) * w + a + 1;
      if (inside[at] || !(Math.abs((z[b * width + a] as number) - here) <= jump)) continue;
      inside[at] = 1;
      stack.push(b * width + a);
    }
  }
  if (count < SPECK) return err('the part there is no more than a speck: press its middle');
  // a ragged edge is evened out: each place is the mean of the five by five round it
  const even = new Float64Array(w * hh);
  for (let j = 0; j < hh; j++)
    for (let i = 0; i < w; i++) {
      let sum = 0;
      for (let b = Math.max(0, j - 2); b <= Math.min(hh - 1, j + 2); b++)
        for (let a = Math.max(0, i - 2); a <= Math.min(w - 1, i + 2); a++) sum += inside[b * w + a] as number;
      even[j * w + i] = i === 0 || j === 0 || i === w - 1 || j === hh - 1 ? 0 : sum / 25;
    }
  const [shape] = contours().size([w, hh]).thresholds([0.5])(Array.from(even));
  const rings = (shape?.coordinates ?? []).map(([outer]) => (outer ?? []).slice(0, -1) as [number, number][]);
  // a place is the middle of its cell, and the cells stand one in from the row of nothing
  const outlines = rings.map(r =>
    r.map(([u, v]): Vec2 => [from[0] + (u - 1.5) * step, from[1] + (v - 1.5) * step]),
  );
  const [largest] = outlines.sort((p, q) => Math.abs(signedArea(q)) - Math.abs(signedArea(p)));
  if (!largest) return err('the part there is no more than a speck: press its middle');
  const [outline = largest] = simplified([largest], WITHIN);
  return ok({ outline, zBottom: low, zTop: high });
}
