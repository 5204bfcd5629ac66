import type { Vec2, Vec3 } from '../geometry';
import { presentRig, type Rig } from '../rig';
import type { Mesh } from '../scan';
import { normalFrom, numbersFrom } from '../units';

/** From one place so far to another. */
const lerp3 = (a: Vec3, b: Vec3, t: number): Vec3 => [
  a[0] + (b[0] - a[0]) * t,
  a[1] + (b[1] - a[1]) * t,
  a[2] + (b[2] - a[2]) * t,
];

/** How a scan's own axes lie: a place of the vehicle, mm, as the scan has it. */
export type Own = (p: Vec3) => Vec3;

/** As a phone has it: meters, y up, turned about it and moved. */
export const phoneAxes =
  (turn: number, shift: Vec3 = [0.4, 0.1, -1.2]): Own =>
  ([x, y, z]) => {
    const [a, b] = [x / 1000, y / 1000];
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    // right of the vehicle, up, rearward is a right-handed set
    return [c * b + s * a + shift[0], z / 1000 + shift[1], -s * b + c * a + shift[2]];
  };

/**
 * A vehicle's underside as a scanner would mesh it: undersides and sides of its members and parts in squares of about `size` mm, every place off by `noise` mm
 * (one standard deviation), in the scan's own axes.
 */
export function scannedUnderside(rig: Rig, own: Own, { size = 12, noise = 0.8, seed = 5 } = {}): Mesh {
  const next = numbersFrom(seed);
  const positions: number[] = [];
  const index: number[] = [];
  const put = (p: Vec3): void => {
    const q = own(p.map(v => v + noise * normalFrom(next)) as unknown as Vec3);
    positions.push(...q);
  };
  /** a flat of four corners, in squares */
  const quad = (a: Vec3, b: Vec3, c: Vec3, d: Vec3): void => {
    const far = (p: Vec3, q: Vec3): number => Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);
    const n = Math.max(1, Math.round(Math.max(far(a, b), far(d, c)) / size));
    const m = Math.max(1, Math.round(Math.max(far(a, d), far(b, c)) / size));
    const first = positions.length / 3;
    for (let j = 0; j <= m; j++) {
      for (let i = 0; i <= n; i++) {
        const [s, t] = [i / n, j / m];
        const [p, q] = [lerp3(a, b, s), lerp3(d, c, s)];
        put(lerp3(p, q, t));
      }
    }
    for (let j = 0; j < m; j++)
      for (let i = 0; i < n; i++) {
        const p = first + j * (n + 1) + i;
        const [q, u, r] = [p + 1, p + n + 1, p + n + 2];
        index.push(p, q, r, p, r, u);
      }
  };
  const { members, components } = presentRig(rig);
  for (const s of [...members, ...components]) {
    const f = s.footprint;
    const at = (i: number, z: number): Vec3 => [...(f[i % f.length] as Vec2), z] as unknown as Vec3;
    if (f.length === 4) quad(at(0, s.zBottom), at(1, s.zBottom), at(2, s.zBottom), at(3, s.zBottom));
    else
      for (let i = 1; i + 1 < f.length; i++)
        quad(at(0, s.zBottom), at(i, s.zBottom), at(i + 1, s.zBottom), at(0, s.zBottom));
    for (let i = 0; i < f.length; i++)
      quad(at(i, s.zBottom), at(i + 1, s.zBottom), at(i + 1, s.zTop), at(i, s.zTop));
  }
  return { positions: Float32Array.from(positions), index: Uint32Array.from(index) };
}

/** A mesh as binary STL. */
export function stlOf({ positions, index }: Mesh): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(84 + (50 * index.length) / 3);
  const view = new DataView(bytes.buffer);
  view.setUint32(80, index.length / 3, true);
  index.forEach((v, i) => {
    const at = 84 + 50 * Math.floor(i / 3) + 12 + 12 * (i % 3);
    for (let k = 0; k < 3; k++) view.setFloat32(at + 4 * k, positions[3 * v + k] as number, true);
  });
  return bytes;
}
