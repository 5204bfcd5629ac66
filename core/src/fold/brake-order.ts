import { add3, type Convex, penetration, prism, scale3, toRadians, type Vec3 } from '../geometry';
import type { Shop } from '../plan';
import { dieFor } from './brake';
import { flatBodies } from './collision';
import type { FoldedPanel } from './folded-panel';
import { baseCorners, LEAST_TURN } from './mitre';
import { type Pose, type PosedBend, pose } from './pose';

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
  /** the search ended before every order was looked at: there may be one that works */
  readonly gaveUp?: true;
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

/**
 * Which flats meet which tools at which bend. A flat stands where the bends on its way to the base put it, so that whether it meets a tool
 * at bend `b` hangs on those and on the bends below `b` alone: every such case is computed once, however many orders come past it.
 */
function meetings(f: FoldedPanel, die: number, tools: BrakeTools) {
  const t = f.sheet.thickness;
  const parent = new Map(f.facets.map(x => [x.id, x.parent]));
  const way = new Map<string, readonly string[]>();
  const wayOf = (id: string): readonly string[] => {
    const known = way.get(id);
    if (known) return known;
    const made: string[] = [];
    for (let at: string | undefined = id; at !== undefined; at = parent.get(at)) made.push(at);
    way.set(id, made);
    return made;
  };
  const bending = new Set(f.bends.filter(b => b.angle !== 0).map(b => b.id));
  const flats = f.facets.map(x => x.id);
  /** The bends that decide whether flat and tool meet. */
  const deciding = (bend: string, flat: string): readonly string[] =>
    [...new Set([...wayOf(flat), ...wayOf(bend)])].filter(id => id !== bend && bending.has(id));
  const decidingOf = new Map<string, readonly string[]>();
  const posed = new Map<
    string,
    readonly { readonly pose: Pose; readonly around: readonly [ToolPart, Convex][] }[]
  >();
  const standing = (bend: string, made: readonly string[]) => {
    const key = `${bend}|${made.join('|')}`;
    const known = posed.get(key);
    if (known) return known;
    const done = new Set(made);
    const all = WATCHED.flatMap(share => {
      const p = pose(f, id => (id === bend ? share : done.has(id) ? 1 : 0));
      const at = p.bends.find(b => b.id === bend);
      return at ? [{ pose: p, around: toolsAt(at, pressed(f, at), t, die, tools) }] : [];
    });
    posed.set(key, all);
    return all;
  };
  const met = new Map<string, ToolPart | null>();
  return {
    flats,
    deciding: (bend: string, flat: string): readonly string[] => {
      const key = `${bend}|${flat}`;
      const known = decidingOf.get(key) ?? deciding(bend, flat);
      decidingOf.set(key, known);
      return known;
    },
    /** The tool that a flat meets while a bend is made, with these of the deciding bends finished; null when it goes. */
    tool: (bend: string, flat: string, made: readonly string[]): ToolPart | null => {
      const key = `${bend}|${flat}|${made.join('|')}`;
      const known = met.get(key);
      if (known !== undefined) return known;
      let found: ToolPart | null = null;
      for (const { pose: p, around } of standing(bend, made)) {
        const [body] = flatBodies(f, p, flat);
        if (!body) break;
        found =
          around.find(([, solid]) => body.bodies.some(q => penetration(solid, q, CLEAR) > CLEAR))?.[0] ??
          null;
        if (found) break;
      }
      met.set(key, found);
      return found;
    },
  };
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

/** Sets of bends looked at before the search gives up. */
const MOST_SETS = 3000;

/** By what is laid flat: a plate and the same plate drilled are bent alike. */
const known = new WeakMap<object, Map<string, BrakeOrder>>();

/**
 * An order of bends the brake can make: at every bend the part, as it is by then, is held against punch, beam, die and bed
 * from flat to finished, and no flat may meet them. Searched depth first over the sets of bends made, tips first; a set from which some
 * bend can never be made any more is left at once, and no set is looked at twice. The tools are an envelope (`TOOLS` where the shop tells
 * none); the narrowest die that suits the sheet is taken.
 */
export function brakeOrder(f: FoldedPanel, shop: Shop): BrakeOrder {
  const tools = shop.tools ?? TOOLS;
  const die = dieFor(f.sheet.thickness, shop.dies) ?? 8 * f.sheet.thickness;
  const key = `${die} ${tools.punchHeight} ${tools.punchWidth} ${tools.dieHeight} ${tools.beam}`;
  const mine = known.get(f.blank.pieces) ?? new Map<string, BrakeOrder>();
  known.set(f.blank.pieces, mine);
  const hit = mine.get(key);
  if (hit) return hit;
  const result = searched(tipsFirst(f), meetings(f, die, tools));
  mine.set(key, result);
  return result;
}

function searched(
  all: readonly string[],
  { flats, deciding, tool }: ReturnType<typeof meetings>,
): BrakeOrder {
  /** Why a bend cannot be made now; `lost` when no further bend can mend that. */
  const judged = (
    bend: string,
    made: ReadonlySet<string>,
  ): (Blocked & { readonly lost: boolean }) | undefined => {
    let first: (Blocked & { lost: boolean }) | undefined;
    for (const flat of flats) {
      const on = deciding(bend, flat);
      const done = on.filter(id => made.has(id));
      const by = tool(bend, flat, done);
      if (by === null) continue;
      const lost = done.length === on.length;
      if (lost) return { bend, by: flat, tool: by, lost };
      first ??= { bend, by: flat, tool: by, lost };
    }
    return first;
  };
  const failed = new Set<string>();
  let sets = 0;
  const search = (made: readonly string[]): readonly string[] | undefined => {
    if (made.length === all.length) return made;
    const done = new Set(made);
    const k = all.map(id => (done.has(id) ? 1 : 0)).join('');
    if (failed.has(k) || sets >= MOST_SETS) return undefined;
    sets++;
    const left = all.filter(id => !done.has(id)).map(id => ({ id, why: judged(id, done) }));
    // a bend that is lost makes every order from here on one that does not work
    const lost = left.some(({ why }) => why?.lost);
    if (!lost || made.length === 0)
      for (const { id, why } of left) {
        if (why) continue;
        const rest = search([...made, id]);
        if (rest) return rest;
      }
    failed.add(k);
    return undefined;
  };
  const order = search([]);
  if (order) return { order, blocked: [] };
  // no order works: as far as it goes all the same, so that what is left is what stands in the way
  const made: string[] = [];
  let left: readonly { readonly id: string; readonly why: Blocked | undefined }[] = [];
  for (;;) {
    const done = new Set(made);
    left = all.filter(id => !done.has(id)).map(id => ({ id, why: judged(id, done) }));
    // the one that spoils the fewest of the others
    const spoils = (id: string): number => {
      const after = new Set(made).add(id);
      return left.filter(o => o.id !== id && judged(o.id, after)?.lost).length;
    };
    const next = left
      .filter(({ why }) => !why)
      .map(({ id }) => ({ id, n: spoils(id) }))
      .reduce<{ id: string; n: number } | undefined>((a, b) => (a && a.n <= b.n ? a : b), undefined);
    if (!next) break;
    made.push(next.id);
  }
  return {
    order: [...made, ...left.map(({ id }) => id)],
    blocked: left.flatMap(({ why }) => (why ? [{ bend: why.bend, by: why.by, tool: why.tool }] : [])),
    ...(sets >= MOST_SETS ? { gaveUp: true } : {}),
  };
}
