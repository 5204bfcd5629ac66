import { contains, scale3, sub3, type Vec2, type Vec3 } from '../geometry';
import { type Crossbar, underBar } from '../plan';
import type { Member } from '../rig';
import { MATERIALS } from '../sheet';
import { barElement } from './bar';
import type { Contact } from './contact';
import type { ExtraElement } from './model';
import { DOF_PER_NODE } from './sparse';

/** What stands over a plate and may back it up. */
export interface Backing {
  readonly crossbars: readonly Crossbar[];
  /** members the plate may come up against; none where it is not to rest on them */
  readonly members: readonly Member[];
}
export const NO_BACKING: Backing = { crossbars: [], members: [] };

/** A mesh wants a node under a bar every so many mm; pieces of the bar itself are about so long. */
const UNDER = 60;
const EDGE = 25;
const PIECE = 20;
/** Stiffness of steel on sheet where they touch, N/mm a node: stiff beside any plate, not so stiff that it upsets the solution. */
const TOUCH = 100_000;
/** What lies on a bar bears once the two near each other by so much, mm, and over so many mm comes to bear: at rest it presses with nothing. */
const REST = 0.004;
const MEETS = 0.0005;
/** Gaps wider than this are never closed by a plate that is any good, mm. */
const FAR = 80;

/** Underside of a bar, mm; `from` and `to` are its axis. */
export const undersideOf = (c: Crossbar, share: number): number =>
  c.from[2] + share * (c.to[2] - c.from[2]) - c.section.height / 2;

/** Places along bars and members where a mesh wants nodes no further apart than `h`. */
export const backedPlaces = ({ crossbars, members }: Backing): readonly { at: Vec3; h: number }[] => [
  ...crossbars.flatMap(c => {
    const d = sub3(c.to, c.from);
    const n = Math.max(2, Math.round(Math.hypot(...d) / UNDER));
    return Array.from({ length: n + 1 }, (_, i) => ({
      at: [c.from[0] + (d[0] * i) / n, c.from[1] + (d[1] * i) / n, undersideOf(c, i / n)] as Vec3,
      h: Math.max(20, c.section.width / 1.5),
    }));
  }),
  ...members.flatMap(m => m.footprint.map(([x, y]) => ({ at: [x, y, m.zBottom] as Vec3, h: 45 }))),
];

/** Places in plan along both edges of every bar: a plate that bends bears there first. */
export const barEdges = ({ crossbars }: Backing): readonly Vec2[] =>
  crossbars.flatMap(c => {
    const [dx, dy] = [c.to[0] - c.from[0], c.to[1] - c.from[1]];
    const length = Math.hypot(dx, dy);
    const n = Math.max(2, Math.round(length / EDGE));
    const half = c.section.width / 2 / (length || 1);
    return Array.from({ length: n + 1 }, (_, i) => i / n).flatMap((t): readonly Vec2[] =>
      [half, -half].map(s => [c.from[0] + t * dx - s * dy, c.from[1] + t * dy + s * dx]),
    );
  });

export interface Backed {
  /** nodes of the bars, x y z after those of the mesh */
  readonly nodes: readonly Vec3[];
  readonly extra: readonly ExtraElement[];
  readonly contacts: readonly Contact[];
  /** node and freedom of what is held */
  readonly held: readonly number[];
}

/**
 * Bars as beams between their ends (each held there against moving and twisting, free to bend), and the contacts of a plate's nodes
 * with them and with members: `top` gives the place of the plate's upper face over every node. Plates press on bars from below.
 */
export function backed(
  { crossbars, members }: Backing,
  plateNodes: number,
  top: (node: number) => Vec3,
): Backed {
  const nodes: Vec3[] = [];
  const extra: ExtraElement[] = [];
  const contacts: Contact[] = [];
  const held: number[] = [];
  for (const c of crossbars) {
    const over: { node: number; t: number; gap: number }[] = [];
    for (let n = 0; n < plateNodes; n++) {
      const p = top(n);
      const t = underBar(c, p);
      if (t === undefined) continue;
      const gap = undersideOf(c, t) - p[2];
      if (gap > -c.section.height && gap < FAR) over.push({ node: n, t, gap: Math.max(0, gap) });
    }
    if (over.length === 0) continue;
    const d = sub3(c.to, c.from);
    const pieces = Math.max(4, Math.round(Math.hypot(...d) / PIECE));
    const first = plateNodes + nodes.length;
    for (let i = 0; i <= pieces; i++)
      nodes.push([
        c.from[0] + (d[0] * i) / pieces,
        c.from[1] + (d[1] * i) / pieces,
        c.from[2] + (d[2] * i) / pieces,
      ]);
    const m = MATERIALS[c.material];
    const { width, height, wall } = c.section;
    const bar = {
      width,
      depth: height,
      ...(wall === 'solid' ? {} : { wall }),
      side: [0, 0, 1] as Vec3,
      elastic: { E: m.E, nu: m.nu },
    };
    for (let i = 0; i < pieces; i++)
      extra.push(
        barElement(
          [first + i, first + i + 1],
          nodes[first - plateNodes + i] as Vec3,
          nodes[first - plateNodes + i + 1] as Vec3,
          bar,
          // on its own axis, no arm
          -height,
        ),
      );
    const along = scale3(d, 1 / Math.hypot(...d));
    for (const end of [first, first + pieces]) {
      held.push(DOF_PER_NODE * end, DOF_PER_NODE * end + 1, DOF_PER_NODE * end + 2);
      // against twisting: about the fixed axis that is nearest to the bar's own
      held.push(DOF_PER_NODE * end + 3 + (Math.abs(along[0]) > Math.abs(along[1]) ? 0 : 1));
    }
    for (const o of over)
      contacts.push({
        node: o.node,
        other: first + Math.round(o.t * pieces),
        gap: o.gap + REST,
        meets: MEETS,
        stiffness: TOUCH,
      });
  }
  for (const m of members)
    for (let n = 0; n < plateNodes; n++) {
      const p = top(n);
      const gap = m.zBottom - p[2];
      if (gap < -10 || gap > FAR || !contains(m.footprint, [p[0], p[1]])) continue;
      contacts.push({ node: n, gap: Math.max(0, gap) + REST, meets: MEETS, stiffness: TOUCH });
    }
  return { nodes, extra, contacts, held };
}
