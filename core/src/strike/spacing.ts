import { dot3, length3, sub3, type Vec3 } from '../geometry';

/** How fine a mesh is to be somewhere on a flat, mm between nodes. */
export type Spacing = (x: number, y: number) => number;

/** A place that is meshed finely: elements of `h` up to `from` off it, growing from there, and slower over the first `slowly`, mm. */
export interface Fine {
  readonly at: Vec3;
  readonly from: number;
  readonly h: number;
  readonly slowly?: number;
}

/** Spacing of nodes in space, mm; on a flat, where it is asked for some ten thousand times a mesh, by its two axes alone. */
export interface SpaceSpacing {
  (p: Vec3): number;
  /** the same at x, y mm from the origin along two axes of length one that stand square */
  readonly on?: (plane: { readonly origin: Vec3; readonly u: Vec3; readonly v: Vec3 }) => Spacing;
}

/** Numbers of a fine place: where it is, how far off one is its own flat squared, and what it asks for. */
const PER_PLACE = 6;

/**
 * The spacing of nodes that fine places leave, at most `most` mm: what grows by `growth` with every mm off them, by `slow` over the first
 * of them where these say so.
 */
export function graded(fine: readonly Fine[], most: number, growth: number, slow = growth): SpaceSpacing {
  // the finest first: from the first that is coarser than what was found none is finer
  const sorted = [...fine].sort((a, b) => a.h - b.h);
  const grown = (off: number, slowly: number): number => {
    const near = Math.min(Math.max(0, off), slowly);
    return slow * near + growth * (Math.max(0, off) - near);
  };
  const on: NonNullable<SpaceSpacing['on']> = ({ origin, u, v }) => {
    const f = Float64Array.from(
      sorted.flatMap(({ at, from, h, slowly = 0 }) => {
        const d = sub3(at, origin);
        const [x, y] = [dot3(d, u), dot3(d, v)];
        return [x, y, Math.max(0, dot3(d, d) - x * x - y * y), from, h, slowly];
      }),
    );
    return (x, y) => {
      let h = most;
      for (let i = 0; i < f.length; i += PER_PLACE) {
        const least = f[i + 4] as number;
        if (least >= h) break;
        const dx = x - (f[i] as number);
        const dy = y - (f[i + 1] as number);
        const off = Math.sqrt(dx * dx + dy * dy + (f[i + 2] as number)) - (f[i + 3] as number);
        h = Math.min(h, least + grown(off, f[i + 5] as number));
      }
      return h;
    };
  };
  const at = (p: Vec3): number => {
    let h = most;
    for (const { at: q, from, h: least, slowly = 0 } of sorted) {
      if (least >= h) break;
      h = Math.min(h, least + grown(length3(sub3(p, q)) - from, slowly));
    }
    return h;
  };
  return Object.assign(at, { on });
}
