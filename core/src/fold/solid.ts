import earcut from 'earcut';
import {
  contains,
  difference,
  intersection,
  type Polygon,
  type Region,
  rectangle,
  regionOf,
  signedArea,
  toSpace,
  union,
  type Vec2,
  type Vec3,
} from '../geometry';
import type { FoldedPanel } from './folded-panel';
import { cutHoles } from './holes';
import { openingOutline, removesMetal } from './openings';
import { onBend, type Pose, pose } from './pose';

export type Triangle = readonly [Vec3, Vec3, Vec3];

/** Chords of a bend's arc stay this near to it, mm. */
const ARC_TOLERANCE = 0.1;

/** A piece of the blank that moves as one: a flat, or one band of a bend's arc in (past its start, along it). */
interface BlankPart {
  readonly facet: string;
  readonly kind: 'flat' | 'band';
  readonly rings: Region;
  readonly triangles: readonly (readonly [Vec2, Vec2, Vec2])[];
  /** lines across a bend on which the next band goes on: no wall stands there */
  readonly open: readonly number[];
}

/** Triangles of a region, counter-clockwise. */
export function triangulated(region: Region): readonly (readonly [Vec2, Vec2, Vec2])[] {
  const outers = region.filter(p => signedArea(p) > 0);
  return outers.flatMap(outer => {
    const holes = region.filter(p => signedArea(p) < 0 && contains(outer, p[0] as Vec2));
    const rings = [outer, ...holes];
    const starts: number[] = [];
    let n = 0;
    for (const r of rings) {
      starts.push(n);
      n += r.length;
    }
    const points = rings.flat();
    const ids = earcut(
      points.flatMap(q => [q[0], q[1]]),
      starts.slice(1),
    );
    const out: [Vec2, Vec2, Vec2][] = [];
    for (let i = 0; i + 2 < ids.length; i += 3) {
      const [a, b, c] = [ids[i], ids[i + 1], ids[i + 2]].map(k => points[k as number] as Vec2) as [
        Vec2,
        Vec2,
        Vec2,
      ];
      out.push(signedArea([a, b, c]) < 0 ? [a, c, b] : [a, b, c]);
    }
    return out;
  });
}

const partOf = (
  facet: string,
  kind: BlankPart['kind'],
  rings: Region,
  open: readonly number[] = [],
): BlankPart => ({ facet, kind, rings, triangles: triangulated(rings), open });

const flatsOf = new WeakMap<object, ReadonlyMap<string, Region>>();

/**
 * What stays flat of every facet, in the blank: its outline, less the strips of the bends that leave it and the sheet
 * they take along. Openings, holes and reliefs are not taken off.
 */
export function flatRegions(f: FoldedPanel): ReadonlyMap<string, Region> {
  const { pieces, developed } = f.blank;
  // what is laid flat does not know the holes: a plate and the same plate drilled share its pieces
  const hit = flatsOf.get(pieces);
  if (hit) return hit;
  const made = new Map(
    developed.map(({ facet: { id } }) => {
      const flat = regionOf(pieces.find(p => p.id === id && p.kind === 'flat')?.outline ?? []);
      const away = developed.flatMap(c => {
        if (c.facet.parent !== id || !c.bend || c.bend.angle === 0) return [];
        return [
          beyond(c),
          ...pieces.filter(p => p.kind === 'bend' && p.id === c.facet.id).map(p => p.outline),
        ];
      });
      return [id, away.length > 0 ? difference(flat, union(away)) : flat] as const;
    }),
  );
  flatsOf.set(pieces, made);
  return made;
}

function blankParts(f: FoldedPanel): readonly BlankPart[] {
  const { developed, reliefs } = f.blank;
  const t = f.sheet.thickness;
  const cut = reliefs.flatMap(r => r.outlines);
  const flats = flatRegions(f);
  const holes = cutHoles(f);
  return developed.flatMap((d): readonly BlankPart[] => {
    const { id } = d.facet;
    const away = [
      ...holes,
      ...(d.facet.parent === undefined ? f.panel.openings.filter(removesMetal).map(openingOutline) : []),
      ...cut,
    ];
    const flat = flats.get(id) ?? [];
    const parts = [partOf(id, 'flat', away.length > 0 ? difference(flat, union(away)) : flat)];
    const { bend } = d;
    const width = d.facet.hinge?.width ?? 0;
    if (!bend || bend.angle === 0 || width <= 0) return parts;
    const from = bend.setbackMm - bend.allowanceMm;
    /** in the strip's own coordinates: past its start, along it */
    const local = (q: Vec2): Vec2 => {
      const [x, y] = [q[0] - d.origin[0], q[1] - d.origin[1]];
      return [x * d.u[0] + y * d.u[1] - from, x * d.v[0] + y * d.v[1]];
    };
    const cuts = cut.map(o => o.map(local));
    const whole = regionOf(rectangle(0, 0, bend.allowanceMm, width));
    const strip = cuts.length > 0 ? difference(whole, union(cuts)) : whole;
    const angle = (Math.abs(bend.angle) * Math.PI) / 180;
    const steps = Math.max(
      2,
      Math.ceil(angle / (2 * Math.acos(1 - ARC_TOLERANCE / (bend.insideRadius + t)))),
    );
    const lines = Array.from({ length: steps + 1 }, (_, i) => (bend.allowanceMm * i) / steps);
    const bands = lines.slice(1).map((b, i): Region => {
      const a = lines[i] as number;
      return cuts.length > 0
        ? intersection(strip, regionOf(rectangle(a, -1, b, width + 1)))
        : regionOf(rectangle(a, 0, b, width));
    });
    const inner = lines.slice(1, -1);
    return [
      ...parts,
      ...stitched(bands, inner).map((rings, i) =>
        partOf(
          id,
          'band',
          rings,
          inner.filter((_, k) => k === i - 1 || k === i),
        ),
      ),
    ];
  });
}

/** Corners nearer than this are one: what cutting rounds to, mm. */
const ONE = 1e-3;

/** Bands with the corners that lie on a line between two of them made the same in both, so that no edge meets half an edge. */
function stitched(bands: readonly Region[], lines: readonly number[]): readonly Region[] {
  return lines.reduce<readonly Region[]>((done, line, i) => {
    const on = ([x]: Vec2): boolean => Math.abs(x - line) < ONE;
    const heights = [...(done[i] ?? []), ...(done[i + 1] ?? [])]
      .flat()
      .filter(on)
      .map(q => q[1])
      .sort((a, b) => a - b)
      .filter((y, k, all) => k === 0 || y - (all[k - 1] as number) > ONE);
    const snap = (q: Vec2): Vec2 =>
      on(q) ? [line, heights.find(y => Math.abs(y - q[1]) <= 2 * ONE) ?? q[1]] : q;
    const mend = (ring: Polygon): Polygon =>
      ring
        .flatMap((q, k): readonly Vec2[] => {
          const [a, b] = [snap(q), snap(ring[(k + 1) % ring.length] as Vec2)];
          if (!on(q) || !on(ring[(k + 1) % ring.length] as Vec2)) return [a];
          const between = heights
            .filter(y => y > Math.min(a[1], b[1]) + ONE && y < Math.max(a[1], b[1]) - ONE)
            .map((y): Vec2 => [line, y]);
          return [a, ...(a[1] < b[1] ? between : between.reverse())];
        })
        .filter((q, k, all) => {
          const next = all[(k + 1) % all.length] as Vec2;
          return q[0] !== next[0] || q[1] !== next[1];
        });
    return done.map((r, k) => (k === i || k === i + 1 ? r.map(mend).filter(p => p.length > 2) : r));
  }, bands);
}

/** What lies past the line where a bend begins, over its width and as deep as its set-back: no flat of the parent. */
function beyond(c: FoldedPanel['blank']['developed'][number]): Polygon {
  const bend = c.bend as NonNullable<typeof c.bend>;
  const from = bend.setbackMm - bend.allowanceMm;
  const put = (d: number, s: number): Vec2 => [
    c.origin[0] + c.u[0] * d + c.v[0] * s,
    c.origin[1] + c.u[1] * d + c.v[1] * s,
  ];
  const w = c.facet.hinge?.width ?? 0;
  const deep = from + bend.setbackMm + 1;
  return [put(from, 0), put(deep, 0), put(deep, w), put(from, w)];
}

const known = new WeakMap<FoldedPanel, readonly BlankPart[]>();
const partsOf = (f: FoldedPanel): readonly BlankPart[] => {
  const made = known.get(f) ?? blankParts(f);
  known.set(f, made);
  return made;
};

/**
 * A plate as triangles in the vehicle's frame, mm, finished unless posed otherwise: every flat, cut back to where its bends
 * begin and cut out at its openings and reliefs, and every bend as a true arc. Each flat and each bend is a closed solid;
 * neighbors share their end faces.
 */
export function foldedSolid(f: FoldedPanel, posed: Pose = pose(f)): readonly Triangle[] {
  const t = f.sheet.thickness;
  return partsOf(f).flatMap(part => {
    const frame = posed.frames.get(part.facet);
    const bend = posed.bends.find(b => b.id === part.facet);
    const at = (q: Vec2, w: number): Vec3 => {
      if (part.kind === 'band' && bend) return onBend(bend, q[0], q[1], w, t);
      if (!frame) throw new Error(`no frame for ${part.facet}`);
      return toSpace(frame, q, w);
    };
    const faces = part.triangles.flatMap(([a, b, c]): Triangle[] => [
      [at(a, t), at(b, t), at(c, t)],
      [at(a, 0), at(c, 0), at(b, 0)],
    ]);
    const walls = part.rings.flatMap(ring =>
      ring.flatMap((a, i): Triangle[] => {
        const b = ring[(i + 1) % ring.length] as Vec2;
        if (part.open.some(d => Math.abs(a[0] - d) < 1e-3 && Math.abs(b[0] - d) < 1e-3)) return [];
        return [
          [at(a, 0), at(b, 0), at(b, t)],
          [at(a, 0), at(b, t), at(a, t)],
        ];
      }),
    );
    return [...faces, ...walls];
  });
}

/** Volume enclosed by closed triangles wound outward, mm³ (divergence theorem). */
export const enclosedVolume = (triangles: readonly Triangle[]): number =>
  triangles.reduce(
    (sum, [a, b, c]) =>
      sum +
      (a[0] * (b[1] * c[2] - b[2] * c[1]) -
        a[1] * (b[0] * c[2] - b[2] * c[0]) +
        a[2] * (b[0] * c[1] - b[1] * c[0])) /
        6,
    0,
  );
