import { type FoldedPanel, flatRegions, onBend, openOf, pose, triangulated } from '../fold';
import {
  type Convex,
  difference,
  penetration,
  prism,
  scale3,
  toSpace,
  union,
  type Vec2,
  type Vec3,
} from '../geometry';
import type { Component, Member, PresentRig } from '../rig';

/** Two solids that want the same space. */
export interface SolidClash {
  readonly panel: string;
  readonly with: { readonly kind: 'plate' | 'member' | 'part' | 'ground'; readonly id: string };
  /** the least shift that would part them, mm; under ground how deep it reaches */
  readonly depthMm: number;
  /** about where */
  readonly at: Vec3;
}

/** Solids that reach less than this into one another are taken to touch, mm: paint, and what a seat is let off. */
export const SOLID_TOUCH = 0.5;
/** Pieces a bend's arc is taken in. */
const ARC_PIECES = 4;

export interface Body {
  readonly convex: Convex;
  readonly min: Vec3;
  readonly max: Vec3;
}

export function bodyOf(convex: Convex): Body {
  const min: [number, number, number] = [Infinity, Infinity, Infinity];
  const max: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (const p of convex.points)
    for (const k of [0, 1, 2] as const) {
      min[k] = Math.min(min[k], p[k]);
      max[k] = Math.max(max[k], p[k]);
    }
  return { convex, min, max };
}

const apart = (a: Omit<Body, 'convex'>, b: Omit<Body, 'convex'>): boolean =>
  ([0, 1, 2] as const).some(k => a.min[k] >= b.max[k] - SOLID_TOUCH || b.min[k] >= a.max[k] - SOLID_TOUCH);

const boxes = new WeakMap<readonly Body[], Omit<Body, 'convex'>>();
/** The box round some bodies, kept with them. */
function boxRound(all: readonly Body[]): Omit<Body, 'convex'> {
  const hit = boxes.get(all);
  if (hit) return hit;
  const k3 = [0, 1, 2] as const;
  const made = {
    min: k3.map(k => Math.min(...all.map(b => b.min[k]))) as unknown as Vec3,
    max: k3.map(k => Math.max(...all.map(b => b.max[k]))) as unknown as Vec3,
  };
  boxes.set(all, made);
  return made;
}

const ofPlate = new WeakMap<FoldedPanel, readonly Body[]>();

/** A folded plate as convex bodies: its flats cut back to their bends and cut out at its openings, and every bend in pieces of its arc. */
export function plateBodies(f: FoldedPanel): readonly Body[] {
  const hit = ofPlate.get(f);
  if (hit) return hit;
  const t = f.sheet.thickness;
  const posed = pose(f);
  const base = f.facets[0]?.id;
  const open = base === undefined ? [] : openOf({ ...f, holes: [] }, base);
  const flats = [...flatRegions(f)].flatMap(([id, region]) => {
    const frame = posed.frames.get(id);
    if (!frame) return [];
    const cut = id === base && open.length > 0 ? difference(region, open) : region;
    return triangulated(cut).map(tri =>
      prism(
        tri.map(q => toSpace(frame, q)),
        scale3(frame.n, t),
      ),
    );
  });
  const bends = posed.bends.flatMap(b => {
    if (!(b.width > 0) || b.angle === 0) return [];
    return Array.from({ length: ARC_PIECES }, (_, i) => {
      const [d0, d1] = [(b.allowanceMm * i) / ARC_PIECES, (b.allowanceMm * (i + 1)) / ARC_PIECES];
      const corners = [
        onBend(b, d0, 0, 0, t),
        onBend(b, d1, 0, 0, t),
        onBend(b, d1, 0, t, t),
        onBend(b, d0, 0, t, t),
      ];
      return prism(corners, scale3(b.along, b.width));
    });
  });
  const made = [...flats, ...bends].map(bodyOf);
  ofPlate.set(f, made);
  return made;
}

const ofBlock = new WeakMap<object, readonly Body[]>();
/** A member or part: its outline on the ground plane carried from its lower to its upper height. */
export function blockBodies(b: Pick<Member | Component, 'footprint' | 'zBottom' | 'zTop'>): readonly Body[] {
  const hit = ofBlock.get(b);
  if (hit) return hit;
  const made = triangulated(union([b.footprint])).map(tri =>
    bodyOf(
      prism(
        tri.map(([x, y]: Vec2): Vec3 => [x, y, b.zBottom]),
        [0, 0, b.zTop - b.zBottom],
      ),
    ),
  );
  ofBlock.set(b, made);
  return made;
}

/** How deep two lots of bodies reach into one another, and where; undefined where they do not. */
export function reach(a: readonly Body[], b: readonly Body[]): { depth: number; at: Vec3 } | undefined {
  let worst: { depth: number; at: Vec3 } | undefined;
  if (apart(boxRound(a), boxRound(b))) return undefined;
  for (const p of a)
    for (const q of b) {
      if (apart(p, q)) continue;
      const depth = penetration(p.convex, q.convex, Math.max(SOLID_TOUCH, worst?.depth ?? 0));
      if (depth > Math.max(SOLID_TOUCH, worst?.depth ?? 0))
        worst = {
          depth,
          at: [0, 1, 2].map(
            k =>
              (Math.max(p.min[k] as number, q.min[k] as number) +
                Math.min(p.max[k] as number, q.max[k] as number)) /
              2,
          ) as unknown as Vec3,
        };
    }
  return worst;
}

const pairs = new WeakMap<object, WeakMap<object, { readonly hit: ReturnType<typeof reach> }>>();
/** As `reach`, kept for as long as neither of the two changes. */
function keptReach(f: FoldedPanel, other: FoldedPanel | Member | Component): ReturnType<typeof reach> {
  const mine = pairs.get(f) ?? new WeakMap<object, { readonly hit: ReturnType<typeof reach> }>();
  pairs.set(f, mine);
  const known = mine.get(other);
  if (known) return known.hit;
  const hit = reach(plateBodies(f), 'facets' in other ? plateBodies(other) : blockBodies(other));
  mine.set(other, { hit });
  return hit;
}

/** Where one plate reaches into others, a member, a part or the ground, as solids with their thickness. */
export function clashesOf(
  rig: Pick<PresentRig, 'members' | 'components'>,
  f: FoldedPanel,
  others: readonly FoldedPanel[],
): readonly SolidClash[] {
  const panel = f.panel.id;
  const found = (
    kind: SolidClash['with']['kind'],
    id: string,
    hit: ReturnType<typeof reach>,
  ): readonly SolidClash[] => (hit ? [{ panel, with: { kind, id }, depthMm: hit.depth, at: hit.at }] : []);
  const low = Math.min(...plateBodies(f).map(b => b.min[2]));
  const lowest = plateBodies(f).find(b => b.min[2] === low);
  return [
    ...others.flatMap(o => found('plate', o.panel.id, keptReach(f, o))),
    ...rig.members.flatMap(m => found('member', m.id, keptReach(f, m))),
    ...rig.components.flatMap(c => found('part', c.id, keptReach(f, c))),
    ...(low < 0 && lowest
      ? [{ panel, with: { kind: 'ground' as const, id: 'ground' }, depthMm: -low, at: lowest.min }]
      : []),
  ];
}

/**
 * Plates that reach into a plate, a member, a part or the ground, as solids with their thickness, whatever way their flats stand
 * (theorem of the separating axis on convex pieces).
 */
export const solidClashes = (
  rig: Pick<PresentRig, 'members' | 'components'>,
  panels: readonly FoldedPanel[],
): readonly SolidClash[] => panels.flatMap((f, i) => clashesOf(rig, f, panels.slice(i + 1)));
