import { cross3, length3, scale3, sub3, type Vec3 } from './vector';

/** A convex body: its corners, the normals of its faces and the directions of its edges (neither repeated nor signed). */
export interface Convex {
  readonly points: readonly Vec3[];
  readonly normals: readonly Vec3[];
  readonly edges: readonly Vec3[];
}

const unit = (v: Vec3): Vec3 => scale3(v, 1 / (length3(v) || 1));

/** A prism's normals and edges are made when they are asked for: most pairs are apart by the other's. */
class Prism implements Convex {
  readonly points: readonly Vec3[];
  #edges: readonly Vec3[] | undefined;
  #normals: readonly Vec3[] | undefined;
  constructor(
    private readonly polygon: readonly Vec3[],
    private readonly by: Vec3,
  ) {
    this.points = [...polygon, ...polygon.map((p): Vec3 => [p[0] + by[0], p[1] + by[1], p[2] + by[2]])];
  }
  get edges(): readonly Vec3[] {
    const { polygon } = this;
    this.#edges ??= [
      ...polygon.map((p, i) => unit(sub3(polygon[(i + 1) % polygon.length] as Vec3, p))),
      unit(this.by),
    ];
    return this.#edges;
  }
  get normals(): readonly Vec3[] {
    if (!this.#normals) {
      const sides = this.edges.slice(0, -1);
      const axis = this.edges.at(-1) as Vec3;
      this.#normals = [
        unit(cross3(sides[0] as Vec3, sides[1] as Vec3)),
        ...sides.map(s => unit(cross3(s, axis))),
      ];
    }
    return this.#normals;
  }
}

/** A straight prism: a convex polygon (any winding) carried along `by`, mm. */
export const prism = (polygon: readonly Vec3[], by: Vec3): Convex => new Prism(polygon, by);

/**
 * How deep two convex bodies reach into one another, mm: the least shift that parts them; zero or less when they are apart
 * (theorem of the separating axis). Stops at the first axis that parts them by more than `enough`.
 */
export function penetration(a: Convex, b: Convex, enough = 0): number {
  let least = Number.POSITIVE_INFINITY;
  const apart = ([x, y, z]: Vec3): boolean => {
    let a0 = Infinity;
    let a1 = -Infinity;
    let b0 = Infinity;
    let b1 = -Infinity;
    for (const p of a.points) {
      const d = p[0] * x + p[1] * y + p[2] * z;
      if (d < a0) a0 = d;
      if (d > a1) a1 = d;
    }
    for (const p of b.points) {
      const d = p[0] * x + p[1] * y + p[2] * z;
      if (d < b0) b0 = d;
      if (d > b1) b1 = d;
    }
    least = Math.min(least, a1 - b0, b1 - a0);
    return least <= enough;
  };
  for (const n of a.normals) if (apart(n)) return least;
  for (const n of b.normals) if (apart(n)) return least;
  for (const e of a.edges)
    for (const f of b.edges) {
      const axis = cross3(e, f);
      const l = length3(axis);
      if (l > 1e-6 && apart(scale3(axis, 1 / l))) return least;
    }
  return least;
}
