import { add3, type Convex, penetration, prism, scale3, toRadians, type Vec3 } from '../geometry';
import type { Shop } from '../plan';
import { dieFor } from './brake';
import { flatBodies } from './collision';
import type { FoldedPanel } from './fold';
import { baseCorners, LEAST_TURN } from './mitre';
import { type PosedBend, pose } from './pose';

/** The envelope of a brake's tools, mm: straight punch over a V-die, both cut to the bend, beam and bed all along. */
export interface BrakeTools {
  /** from the punch's tip to the beam that holds it */
  readonly punchHeight: number;
  /** thickness of the punch's body */
  readonly punchWidth: number;
  /** from the die's shoulders to the bed */
  readonly dieHeight: number;
  /** thickness of the beam above and of the bed below */
  readonly beam: number;
}

/** Tools where a shop tells none: common sizes of upper and lower tools, no source. */
export const TOOLS: BrakeTools = { punchHeight: 120, punchWidth: 26, dieHeight: 80, beam: 80 };
/** Half the included angle of the usual punch and of the acute one, degrees. */
const WEDGE = { usual: 42.5, acute: 14 } as const;
/** How far beam, bed and machine are followed up, down and sideways, mm. */
const FAR = 4000;
/** Tools and sheet closer than this count as touching, mm. */
const CLEAR = 1;
/** Shares of a bend at which the part is held against the tools. */
const WATCHED = [0.02, 0.35, 0.7, 1] as const;

export type ToolPart = 'punch' | 'beam' | 'die' | 'bed';
/** A flat that would run into a tool while a bend is made. */
export interface Blocked {
  readonly bend: string;
  readonly by: string;
  readonly tool: ToolPart;
}
export interface BrakeOrder {
  /** every bend once; where none works through, as far as it goes and then tips first */
  readonly order: readonly string[];
  /** why the next bend cannot be made, one entry for each bend that is left; empty when the order works */
  readonly blocked: readonly Blocked[];
}

/** What of a bend's width the tools press: walls that stand at its ends already need the rest, mm from its start. */
function pressed(f: FoldedPanel, b: PosedBend): readonly [number, number] {
  let [from, to] = [0, b.width];
  for (const { turn, ends } of baseCorners(f.panel)) {
    const [before, after] = ends;
    if (turn < LEAST_TURN || !before || !after) continue;
    const back = (id: string): number => f.bends.find(x => x.id === id)?.setbackMm ?? 0;
    if (after.flange.id === b.id) from = Math.max(from, back(before.flange.id) - after.inset);
    if (before.flange.id === b.id) to = Math.min(to, b.width - back(after.flange.id) + before.inset);
  }
  return to - from > 1 ? [from, to] : [0, b.width];
}

/** The tools round a bend on its way, in the vehicle's frame: the punch on the inner face, the die on the outer one. */
function toolsAt(
  b: PosedBend,
  [from, to]: readonly [number, number],
  thickness: number,
  die: number,
  tools: BrakeTools,
): readonly [ToolPart, Convex][] {
  const a = Math.abs(toRadians(b.angle));
  const up = b.angle > 0 ? 1 : -1;
  const r = Number.isFinite(b.insideRadius) ? b.insideRadius : FAR;
  // from the middle of the arc: z towards the bend's axis, y across the bend line, x along it
  const half = a / 2;
  const away = scale3(b.up, up);
  const z = add3(scale3(away, Math.cos(half)), scale3(b.out, -Math.sin(half)));
  const y = add3(scale3(b.out, Math.cos(half)), scale3(away, Math.sin(half)));
  const foot = up > 0 ? thickness : 0;
  const middle = add3(b.start, scale3(b.along, (from + to) / 2));
  const apex = Number.isFinite(b.insideRadius)
    ? add3(
        add3(middle, scale3(b.out, Math.sin(half) * r)),
        scale3(b.up, foot + up * (1 - Math.cos(half)) * r),
      )
    : add3(add3(middle, scale3(b.out, b.allowanceMm / 2)), scale3(b.up, foot));
  const body = (section: readonly (readonly [number, number])[], length: number): Convex =>
    prism(
      section.map(
        ([sy, sz]): Vec3 =>
          add3(add3(apex, scale3(b.along, -length / 2)), add3(scale3(y, sy), scale3(z, sz))),
      ),
      scale3(b.along, length),
    );
  const box = (h: number, from: number, to: number, length: number): Convex =>
    body(
      [
        [-h, from],
        [h, from],
        [h, to],
        [-h, to],
      ],
      length,
    );
  const finished = 90 - Math.abs(b.angle) / 2;
  const wedge = toRadians(finished - 1 >= WEDGE.usual ? WEDGE.usual : WEDGE.acute);
  const w = tools.punchWidth / 2;
  const shoulder = Math.min(w / Math.tan(wedge), tools.punchHeight);
  // the outer face of a leg over the die's shoulder
  const rest = Number.isFinite(b.insideRadius)
    ? r - (r + thickness) / Math.cos(half) + (Math.tan(half) * die) / 2
    : -thickness;
  const top = Math.min(rest, -thickness) - CLEAR;
  return [
    [
      'punch',
      body(
        [
          [0, CLEAR],
          [w, CLEAR + shoulder],
          [w, tools.punchHeight],
          [-w, tools.punchHeight],
          [-w, CLEAR + shoulder],
        ],
        to - from,
      ),
    ],
    ['beam', box(tools.beam / 2, tools.punchHeight, FAR, FAR)],
    ['die', box(die / 2 + 10, top - tools.dieHeight, top, to - from)],
    ['bed', box(tools.beam / 2, -FAR, top - tools.dieHeight, FAR)],
  ];
}

/** The first flat that a tool meets while a bend is made, with `made` already finished; undefined when it goes. */
function blockedBy(
  f: FoldedPanel,
  bend: string,
  made: ReadonlySet<string>,
  die: number,
  tools: BrakeTools,
): Blocked | undefined {
  const t = f.sheet.thickness;
  for (const share of WATCHED) {
    const posed = pose(f, id => (id === bend ? share : made.has(id) ? 1 : 0));
    const at = posed.bends.find(b => b.id === bend);
    if (!at) return undefined;
    const around = toolsAt(at, pressed(f, at), t, die, tools);
    const flats = flatBodies(f, posed);
    for (const [tool, solid] of around)
      for (const { facet, bodies } of flats) {
        if (bodies.some(q => penetration(solid, q, CLEAR) > CLEAR)) return { bend, by: facet, tool };
      }
  }
  return undefined;
}

/** Bends from the tips of the flange tree to its root: the order that mostly works, and the first one tried. */
function tipsFirst(f: FoldedPanel): readonly string[] {
  const parent = new Map(f.facets.map(x => [x.id, x.parent]));
  const depth = (id: string): number => {
    let n = 0;
    for (let at = parent.get(id); at !== undefined; at = parent.get(at)) n++;
    return n;
  };
  return f.bends
    .filter(b => b.angle !== 0)
    .map((b, i) => ({ id: b.id, depth: depth(b.id), i }))
    .sort((a, b) => b.depth - a.depth || a.i - b.i)
    .map(b => b.id);
}

/** Sets of bends looked at before the search gives up: ten bends in every order. */
const MOST_SETS = 1024;

/** By what is laid flat: a plate and the same plate drilled are bent alike. */
const known = new WeakMap<object, Map<string, BrakeOrder>>();

/**
 * An order of bends the brake can make: at every bend the part, as it is by then, is held against punch, beam, die and bed
 * from flat to finished, and no flat may meet them. Searched depth first over the sets of bends made, tips first. The
 * tools are an envelope (`TOOLS` where the shop tells none); the narrowest die that suits the sheet is taken.
 */
export function brakeOrder(f: FoldedPanel, shop: Shop): BrakeOrder {
  const tools = shop.tools ?? TOOLS;
  const die = dieFor(f.sheet.thickness, shop.dies) ?? 8 * f.sheet.thickness;
  const key = `${die} ${tools.punchHeight} ${tools.punchWidth} ${tools.dieHeight} ${tools.beam}`;
  const mine = known.get(f.blank.pieces) ?? new Map<string, BrakeOrder>();
  known.set(f.blank.pieces, mine);
  const hit = mine.get(key);
  if (hit) return hit;
  const all = tipsFirst(f);
  const failed = new Map<string, readonly Blocked[]>();
  const keyOf = (made: ReadonlySet<string>): string => all.filter(id => made.has(id)).join('|');
  let deepest: { readonly made: readonly string[]; readonly blocked: readonly Blocked[] } = {
    made: [],
    blocked: [],
  };
  const search = (made: readonly string[]): readonly string[] | undefined => {
    if (made.length === all.length) return made;
    const done = new Set(made);
    const k = keyOf(done);
    if (failed.has(k) || failed.size > MOST_SETS) return undefined;
    const blocked: Blocked[] = [];
    for (const id of all) {
      if (done.has(id)) continue;
      const why = blockedBy(f, id, done, die, tools);
      if (why) {
        blocked.push(why);
        continue;
      }
      const rest = search([...made, id]);
      if (rest) return rest;
    }
    failed.set(k, blocked);
    if (blocked.length > 0 && (deepest.blocked.length === 0 || made.length > deepest.made.length))
      deepest = { made, blocked };
    return undefined;
  };
  const order = search([]);
  const result: BrakeOrder = order
    ? { order, blocked: [] }
    : { order: [...deepest.made, ...all.filter(id => !deepest.made.includes(id))], blocked: deepest.blocked };
  mine.set(key, result);
  return result;
}
