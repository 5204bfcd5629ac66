import { type Convex, penetration, prism, scale3, toSpace } from '../geometry';
import type { FoldedPanel } from './folded-panel';
import { type Pose, pose } from './pose';
import { flatRegions, triangulated } from './solid';

/** A flat of a plate as convex bodies, of the sheet's thickness. */
export interface FlatBody {
  readonly facet: string;
  readonly bodies: readonly Convex[];
}

type Triangles = ReturnType<typeof triangulated>;
/** By what is laid flat: a plate and the same plate drilled share it. */
const cut = new WeakMap<object, readonly (readonly [string, Triangles])[]>();

/**
 * The flats of a plate where a pose puts them, openings and reliefs left in: a tool or a flange that passes through one is
 * no plan. Flats without area are left out; `only`: this flat alone.
 */
export function flatBodies(f: FoldedPanel, posed: Pose, only?: string): readonly FlatBody[] {
  const flats =
    cut.get(f.blank.pieces) ?? [...flatRegions(f)].map(([id, r]) => [id, triangulated(r)] as const);
  cut.set(f.blank.pieces, flats);
  const t = f.sheet.thickness;
  return flats.flatMap(([facet, triangles]): readonly FlatBody[] => {
    const frame = only === undefined || only === facet ? posed.frames.get(facet) : undefined;
    if (!frame || triangles.length === 0) return [];
    const up = scale3(frame.n, t);
    return [
      {
        facet,
        bodies: triangles.map(tri =>
          prism(
            tri.map(q => toSpace(frame, q)),
            up,
          ),
        ),
      },
    ];
  });
}

/** Two flats of one plate that would run into one another when folded. */
export interface FoldCollision {
  readonly panel: string;
  readonly between: readonly [string, string];
  /** the least shift that would part them, mm */
  readonly depthMm: number;
}

/** Shallower than this, mm, flats are taken to touch. */
const TOUCH = 0.2;

const known = new WeakMap<object, readonly FoldCollision[]>();

/** The flats of a finished plate that run into one another; a flat and the one it hangs on cannot. */
export function foldCollisions(f: FoldedPanel): readonly FoldCollision[] {
  const hit = known.get(f.blank.pieces);
  if (hit) return hit;
  const flats = flatBodies(f, pose(f));
  const parent = new Map(f.facets.map(x => [x.id, x.parent]));
  const found = flats.flatMap((a, i) =>
    flats.slice(i + 1).flatMap((b): readonly FoldCollision[] => {
      if (parent.get(a.facet) === b.facet || parent.get(b.facet) === a.facet) return [];
      let depth = 0;
      for (const p of a.bodies) for (const q of b.bodies) depth = Math.max(depth, penetration(p, q, TOUCH));
      return depth > TOUCH ? [{ panel: f.panel.id, between: [a.facet, b.facet], depthMm: depth }] : [];
    }),
  );
  known.set(f.blank.pieces, found);
  return found;
}
