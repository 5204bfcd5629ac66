import type { Vec3 } from '../geometry';
import type { Picture } from '../survey';
import { boxOfMesh, gridOver, type Heights, lowestOf, type Mesh, type Placing } from './heights';

/** A way to look at a scan: what is to the right, what is down, and where one looks, in its own axes. */
export interface View {
  readonly id: string;
  readonly right: Vec3;
  readonly down: Vec3;
  readonly ahead: Vec3;
}

/** The six sides of a scan that one can look at, named by where one looks. */
export const VIEWS: readonly View[] = [
  { id: 'up +y', right: [1, 0, 0], down: [0, 0, -1], ahead: [0, 1, 0] },
  { id: 'up +z', right: [1, 0, 0], down: [0, 1, 0], ahead: [0, 0, 1] },
  { id: 'up −y', right: [1, 0, 0], down: [0, 0, 1], ahead: [0, -1, 0] },
  { id: 'up −z', right: [1, 0, 0], down: [0, -1, 0], ahead: [0, 0, -1] },
  { id: 'up +x', right: [0, 0, -1], down: [0, 1, 0], ahead: [1, 0, 0] },
  { id: 'up −x', right: [0, 0, 1], down: [0, 1, 0], ahead: [-1, 0, 0] },
];

const rowOf = (v: Vec3): Placing[0] => [v[0], v[1], v[2], 0];

/** A scan seen from one side, `pixels` along its longer side: heights are how far ahead the nearest surface is, in its own unit. Undefined for an empty mesh. */
export function seenFrom(mesh: Mesh, view: View, pixels: number): Heights | undefined {
  const placing: Placing = [rowOf(view.right), rowOf(view.down), rowOf(view.ahead)];
  const box = boxOfMesh(mesh, placing);
  if (!box) return undefined;
  const size = Math.max(box.high[0] - box.low[0], box.high[1] - box.low[1]);
  if (!(size > 0)) return undefined;
  return lowestOf(
    mesh,
    placing,
    gridOver([box.low[0], box.low[1]], [box.high[0], box.high[1]], size / pixels),
  );
}

/** The place on a scan, in its own axes, that a view has at a pixel; undefined where nothing is seen. */
export function placeSeen(h: Heights, view: View, [u, v]: readonly [number, number]): Vec3 | undefined {
  const [i, j] = [Math.floor(u), Math.floor(v)];
  if (i < 0 || j < 0 || i >= h.width || j >= h.height) return undefined;
  const z = h.z[j * h.width + i] as number;
  if (Number.isNaN(z)) return undefined;
  // a pixel's middle is its height's place
  const [a, b] = [h.from[0] + (u - 0.5) * h.step, h.from[1] + (v - 0.5) * h.step];
  return [0, 1, 2].map(
    k => a * (view.right[k] as number) + b * (view.down[k] as number) + z * (view.ahead[k] as number),
  ) as unknown as Vec3;
}

/** Light falls from the upper left; steps of height of this many pixels are as dark as it gets. */
const STEEP = 2.5;

/** Heights as a picture: what lies nearer is lighter, slopes are shaded, nothing is clear. */
export function relief({ z, width, height, step }: Heights): Picture {
  let [low, high] = [Infinity, -Infinity];
  for (const v of z) {
    if (v < low) low = v;
    if (v > high) high = v;
  }
  const span = high - low || 1;
  const rgba = new Uint8ClampedArray(4 * width * height);
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const k = j * width + i;
      const here = z[k] as number;
      if (Number.isNaN(here)) continue;
      const left = i > 0 ? (z[k - 1] as number) : here;
      const up = j > 0 ? (z[k - width] as number) : here;
      const slope = ((Number.isNaN(left) ? 0 : left - here) + (Number.isNaN(up) ? 0 : up - here)) / step;
      const shade = 1 + 0.55 * Math.max(-1, Math.min(1, slope / STEEP));
      const tone = (215 - 150 * ((here - low) / span)) * shade;
      rgba.set([tone * 0.96, tone, tone * 1.04, 255], 4 * k);
    }
  return { width, height, rgba };
}
