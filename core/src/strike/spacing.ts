import type { Vec3 } from '../geometry';

/** A place that is meshed finely: elements of `h` up to `from` off it, growing from there, and slower over the first `slowly`, mm. */
export interface Fine {
  readonly at: Vec3;
  readonly from: number;
  readonly h: number;
  readonly slowly?: number;
}

/**
 * The spacing of nodes that fine places leave, at most `most` mm: what grows by `growth` with every mm off them, by `slow` over the first
 * of them where these say so. It is asked for some ten thousand times a mesh.
 */
export function graded(
  fine: readonly Fine[],
  most: number,
  growth: number,
  slow = growth,
): (p: Vec3) => number {
  // the finest first: from the first that is coarser than what was found none is finer
  const f = Float64Array.from(
    [...fine].sort((a, b) => a.h - b.h).flatMap(({ at, from, h, slowly = 0 }) => [...at, from, h, slowly]),
  );
  return ([x, y, z]) => {
    let h = most;
    for (let i = 0; i < f.length; i += 6) {
      const least = f[i + 4] as number;
      if (least >= h) break;
      const dx = x - (f[i] as number);
      const dy = y - (f[i + 1] as number);
      const dz = z - (f[i + 2] as number);
      const off = Math.max(0, Math.sqrt(dx * dx + dy * dy + dz * dz) - (f[i + 3] as number));
      const near = Math.min(off, f[i + 5] as number);
      h = Math.min(h, least + slow * near + growth * (off - near));
    }
    return h;
  };
}
