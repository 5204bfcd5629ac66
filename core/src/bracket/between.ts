import { holeToBend, MOST_ANGLE } from '../fold';
import {
  add3,
  cross3,
  dot3,
  length3,
  scale3,
  sub3,
  toDegrees,
  toRadians,
  turnsOf,
  unit3,
  type Vec2,
  type Vec3,
} from '../geometry';
import type { Flange, Panel, SheetChoice, SlotIn } from '../plan';
import { MATERIALS, minimumRadius } from '../sheet';
import { err, ok, type Result, roundTo } from '../units';

/** A face that a bracket is bolted to: the middle of the hole in it, and the way out of it, toward the bracket. */
export interface Face {
  readonly at: Vec3;
  readonly normal: Vec3;
  /** thread diameter of the bolt there, mm */
  readonly bolt: number;
  /** the hole in the bracket over it, mm; a tenth more than the bolt unless told */
  readonly hole?: number;
}

export interface BracketChoices {
  readonly sheet: SheetChoice;
  /** across the strip, mm; what its bolts want unless told */
  readonly width?: number;
  /** inside radius of its bends, mm; the least the sheet takes unless told */
  readonly insideRadius?: number;
  /** the least flange that the shop's die takes, mm */
  readonly leastFlange?: number;
  /** play that its holes leave in the strip's direction at one end and across it at the other, mm; round holes where none is wanted */
  readonly play?: number;
  /** what keeps a shape from being used, in a few words; nothing where it is free */
  readonly blocked?: (shape: BracketShape) => string | undefined;
}

export const FAMILIES = ['flat', 'L', 'Z', 'C', 'hat'] as const;
export type Family = (typeof FAMILIES)[number];

/** What a bracket is made like, without a name and a place in the plan. */
export type BracketShape = Pick<Panel, 'base' | 'flanges'>;

export interface BracketMade {
  readonly family: Family;
  readonly shape: BracketShape;
  readonly widthMm: number;
  /** its slots, at the first face and at the second; none without play */
  readonly slots?: readonly [SlotIn, SlotIn];
}

/** Faces whose normals differ by less than this are parallel, degrees. */
const PARALLEL = 0.01;
/** A strip wider than this is a plate, mm. */
export const WIDEST = 250;
/** A hole stands this far from the strip's ends and sides, in bolt diameters: a head wants more than the least. */
export const END = 2;
/** No hole is nearer to an end or a mold line than so many bolt diameters: AISC 360-16 J3.4, from memory. */
export const EDGE = 1.5;
/** So much more than the least that rounding never brings it under, mm. */
export const SPARE = 0.1;
/** Half across a flanged head or its washer, in bolt diameters: common practice, no source. */
export const HEAD = 1.2;
/** A socket on a bolt wants so much room along it before the bracket's own other leg, mm: common practice, no source. */
const SOCKET = 70;
/** What a slanted web counts for beside a square one, mm. */
const SLANT = 60;
/** Webs are tried at these turns from the leg at the first face, degrees: square first, then slanted where there is no room. */
const WEBS = [90, 75, 105, 60, 120, 45] as const;

const left = ([x, y]: Vec2): Vec2 => [-y, x];
const dot2 = (a: Vec2, b: Vec2): number => a[0] * b[0] + a[1] * b[1];
const cross2 = (a: Vec2, b: Vec2): number => a[0] * b[1] - a[1] * b[0];
const along2 = (a: Vec2, d: Vec2, s: number): Vec2 => [a[0] + d[0] * s, a[1] + d[1] * s];
const turned = ([x, y]: Vec2, deg: number): Vec2 => {
  const [c, s] = [Math.cos(toRadians(deg)), Math.sin(toRadians(deg))];
  return [x * c - y * s, x * s + y * c];
};
const angle2 = (a: Vec2, b: Vec2): number => Math.abs(toDegrees(Math.atan2(cross2(a, b), dot2(a, b))));

/** The plane that a bracket is bent in: two directions in it, the bends' axis, and the second face's hole as its origin. */
interface Bench {
  readonly p: Vec3;
  readonly q: Vec3;
  readonly axis: Vec3;
  readonly origin: Vec3;
}

/** A leg as it may lie on its face: toward the bend, on which line its underside lies. */
interface Leg {
  readonly on: Vec2;
  readonly d: Vec2;
  /** out of the sheet's underside into the sheet */
  readonly n: Vec2;
  /** out of the face, and the hole's middle on it */
  readonly m: Vec2;
  readonly at: Vec2;
}

/** A strip from the free end at the first face to that at the second: its legs, and the mold lines between them. */
interface Strip {
  readonly family: Exclude<Family, 'hat'>;
  readonly first: Leg;
  readonly second: Leg;
  /** from the first leg's bend to the second's; one point where there is no web */
  readonly bends: readonly [Vec2, Vec2];
  readonly s: readonly [number, number];
  readonly length: number;
  /** a web that is not square is harder to bend true: it counts as so much longer, mm */
  readonly slant?: number;
}

/** Both ways of a leg along its face, and on both sides of the sheet. `side`: the sheet lies left (1) or right (-1) of the way along it. */
function legs(at: Vec2, m: Vec2, side: 1 | -1, t: number, toBend: boolean): readonly Leg[] {
  return [left(m), scaled(left(m), -1)].map(d => {
    const way = toBend ? d : scaled(d, -1);
    const n = scaled(left(way), side);
    // it lies on its underside, or on its upper face a thickness further out
    const on = dot2(n, m) > 0 ? at : along2(at, m, t);
    return { on, d, n, m, at };
  });
}
const scaled = (a: Vec2, s: number): Vec2 => [a[0] * s, a[1] * s];

/** How far along a leg's line, from its hole, another line crosses it; undefined where they never do. */
function crossing(a: Vec2, d: Vec2, b: Vec2, e: Vec2): number | undefined {
  const det = cross2(d, e);
  if (Math.abs(det) < 1e-9) return undefined;
  return cross2([b[0] - a[0], b[1] - a[1]], e) / det;
}

/** Whether the bolt through one leg can be got at: nothing of the strip stands across its axis within a socket's length. */
function reached(strip: Strip, of: Leg, e: readonly [number, number]): boolean {
  const [x1, x2] = strip.bends;
  const ends = [
    along2(strip.first.on, strip.first.d, -e[0]),
    x1,
    x2,
    along2(strip.second.on, strip.second.d, -e[1]),
  ] as const;
  return ([0, 1, 2] as const).every(i => {
    const [a, b] = [ends[i] as Vec2, ends[i + 1] as Vec2];
    const d: Vec2 = [b[0] - a[0], b[1] - a[1]];
    const l = Math.hypot(...d);
    if (l < 1e-9) return true;
    const far = crossing(of.at, of.m, a, d);
    if (far === undefined || far < 8 || far > SOCKET) return true;
    const where = dot2([of.at[0] + of.m[0] * far - a[0], of.at[1] + of.m[1] * far - a[1]], d) / l;
    return where < -HEAD * 10 || where > l + HEAD * 10;
  });
}

/**
 * A bracket between two faces: a strip of sheet, bent once or twice square to its length, that lies flat on both and has a hole over each
 * of theirs. Straight where both lie in one plane, an L where they stand across one another, a Z or a C where they face each other or
 * look the same way at different heights. The shortest that can be bent (least radius, hole from bend, flange on the die), be bolted (a
 * socket reaches its heads) and is not `blocked` is taken. Lengths in mm, places in the vehicle's frame.
 *
 * Faults say why none can be made. Source: plane geometry; distances from edges AISC 360-16 J3.4, from bends design guides for sheet metal.
 */
export function bracketBetween(from: Face, to: Face, choices: BracketChoices): Result<BracketMade> {
  const [n1, n2] = [unit3(from.normal), unit3(to.normal)];
  const { sheet } = choices;
  const t = sheet.thickness;
  const material = MATERIALS[sheet.material];
  const least = minimumRadius(material, t);
  const radius = choices.insideRadius ?? Math.max(least ?? t, t);
  const width = choices.width ?? 2 * END * Math.max(from.bolt, to.bolt);
  const ends = [END * from.bolt, END * to.bolt] as const;

  const bench = benchOf(from, to, n1, n2);
  const sideways = Math.abs(dot3(sub3(from.at, bench.origin), bench.axis));
  if (width + sideways > WIDEST)
    return err(
      'the faces are tilted across the way from hole to hole: it would have to be as wide as a plate',
    );
  const flat2 = (v: Vec3): Vec2 => [dot3(v, bench.p), dot3(v, bench.q)];
  const [m1, m2] = [flat2(n1), flat2(n2)];
  const p1 = flat2(sub3(from.at, bench.origin));
  const p2: Vec2 = [0, 0];

  const made: Strip[] = [];
  /** room from a hole to the mold line of a bend beside it, mm */
  const clear = ({ bolt, hole = 1.1 * bolt + (choices.play ?? 0) }: Face, deg: number): number => {
    const setback = (radius + t) * Math.tan(toRadians(Math.min(deg, MOST_ANGLE)) / 2);
    return Math.max(EDGE * bolt, setback + HEAD * bolt, holeToBend(radius, t) + hole / 2) + SPARE;
  };
  for (const side of [1, -1] as const)
    for (const a of legs(p1, m1, side, t, true))
      for (const b of legs(p2, m2, side, t, false)) {
        const straight = flatStrip(a, b);
        if (straight) made.push(straight);
        const bent = bentOnce(a, b, clear, from, to);
        if (bent) made.push(bent);
        for (const web of WEBS)
          for (const way of [1, -1] as const) {
            const twice = bentTwice(a, b, way * web, side, clear, from, to, {
              radius,
              t,
              leastFlange: choices.leastFlange ?? 0,
            });
            if (twice) made.push(twice);
          }
      }
  // what is bent must be bendable
  const sound = made.filter(s => s.family === 'flat' || (least !== undefined && radius >= least - 1e-9));
  if (made.length > 0 && sound.length === 0)
    return err(
      least === undefined
        ? `${material.name} cannot be bent`
        : 'the inside radius is under the least that this sheet takes',
    );
  const free = sound.filter(s => reached(s, s.first, ends) && reached(s, s.second, ends));
  if (sound.length > 0 && free.length === 0)
    return err('its own legs would stand in the way of a socket: the faces are too near each other');
  const order: Readonly<Record<Strip['family'], number>> = { flat: 0, L: 1, Z: 2, C: 3 };
  const sorted = [...free].sort(
    (a, b) => a.length + (a.slant ?? 0) - (b.length + (b.slant ?? 0)) || order[a.family] - order[b.family],
  );
  let why: string | undefined;
  for (const strip of sorted) {
    const shape = shapeOf(strip, bench, from, { width, ends, radius });
    const blocked = choices.blocked?.(shape);
    if (blocked !== undefined) {
      why ??= blocked;
      continue;
    }
    return ok({
      family: strip.family,
      shape,
      widthMm: width,
      ...(choices.play
        ? {
            slots: [
              { length: from.bolt + 1 + choices.play, along: 90 },
              { length: to.bolt + 1 + choices.play, along: 0 },
            ] as const,
          }
        : {}),
    });
  }
  return err(
    why ??
      'the two holes are too near each other for a bend between them: nothing with its bends at their least radius fits',
  );
}

function benchOf(from: Face, to: Face, n1: Vec3, n2: Vec3): Bench {
  const across = cross3(n1, n2);
  const apart = sub3(to.at, from.at);
  const parallel = length3(across) < Math.sin(toRadians(PARALLEL));
  let axis: Vec3;
  if (!parallel) axis = unit3(across);
  else {
    // the strip runs from hole to hole as seen square to the faces; where one is over the other, along the vehicle
    const over = sub3(apart, scale3(n2, dot3(apart, n2)));
    const run: Vec3 = length3(over) > 1 ? over : Math.abs(n2[0]) > 0.9 ? [0, 1, 0] : [1, 0, 0];
    axis = unit3(cross3(n2, run));
  }
  const q = n2;
  return { axis, q, p: cross3(q, axis), origin: to.at };
}

/** Both faces in one plane: a straight strip. */
function flatStrip(a: Leg, b: Leg): Strip | undefined {
  const off = dot2([b.on[0] - a.on[0], b.on[1] - a.on[1]], a.n);
  const l = dot2([b.on[0] - a.on[0], b.on[1] - a.on[1]], a.d);
  if (angle2(a.d, scaled(b.d, -1)) > PARALLEL || Math.abs(off) > 0.01 || l < 1) return undefined;
  const middle = along2(a.on, a.d, l / 2);
  return { family: 'flat', first: a, second: b, bends: [middle, middle], s: [l / 2, l / 2], length: l };
}

type Clear = (face: Face, deg: number) => number;

function bentOnce(a: Leg, b: Leg, clear: Clear, from: Face, to: Face): Strip | undefined {
  const s1 = crossing(a.on, a.d, b.on, b.d);
  const s2 = crossing(b.on, b.d, a.on, a.d);
  if (s1 === undefined || s2 === undefined) return undefined;
  // on from the first leg the strip goes away from the second leg's bend
  const deg = angle2(a.d, scaled(b.d, -1));
  if (deg < 5 || deg > MOST_ANGLE || s1 < clear(from, deg) || s2 < clear(to, deg)) return undefined;
  const x = along2(a.on, a.d, s1);
  return { family: 'L', first: a, second: b, bends: [x, x], s: [s1, s2], length: s1 + s2 };
}

function bentTwice(
  a: Leg,
  b: Leg,
  turn: number,
  side: 1 | -1,
  clear: Clear,
  from: Face,
  to: Face,
  { radius, t, leastFlange }: { radius: number; t: number; leastFlange: number },
): Strip | undefined {
  const w = turned(a.d, turn);
  const deg1 = Math.abs(turn);
  const deg2 = angle2(w, scaled(b.d, -1));
  if (deg2 < 5 || deg2 > MOST_ANGLE) return undefined;
  // the sheet lies on the same side of the web as of its legs
  if (Math.abs(dot2(scaled(left(w), side), turned(a.n, turn)) - 1) > 1e-6) return undefined;
  const [c1, c2] = [clear(from, deg1), clear(to, deg2)];
  /** where the web comes down on the second leg, for a first leg of that length: its own length, and that of the second leg */
  const at = (s1: number): readonly [number, number] | undefined => {
    const x1 = along2(a.on, a.d, s1);
    const web = crossing(x1, w, b.on, b.d);
    const s2 = crossing(b.on, b.d, x1, w);
    return web === undefined || s2 === undefined ? undefined : [web, s2];
  };
  const [near, far] = [at(c1), at(c1 + 1)];
  if (!near || !far) return undefined;
  // a longer first leg makes the second longer or shorter, in step
  const per = far[1] - near[1];
  const s1 = near[1] >= c2 ? c1 : per > 1e-6 ? c1 + (c2 - near[1]) / per : undefined;
  const found = s1 === undefined ? undefined : at(s1);
  if (s1 === undefined || !found) return undefined;
  const [web, s2] = found;
  const bendRoom = (deg: number): number => (radius + t) * Math.tan(toRadians(deg) / 2);
  if (web < Math.max(bendRoom(deg1) + bendRoom(deg2) + 1, leastFlange)) return undefined;
  const x1 = along2(a.on, a.d, s1);
  return {
    family: dot2(a.d, b.d) < 0 ? 'Z' : 'C',
    first: a,
    second: b,
    bends: [x1, along2(x1, w, web)],
    s: [s1, s2],
    length: s1 + web + s2,
    slant: deg1 === 90 ? 0 : SLANT,
  };
}

/** The strip as a panel: its base on the second face, flanges from there. */
function shapeOf(
  { family, first, second, bends, s }: Strip,
  { p, q, axis, origin }: Bench,
  from: Face,
  { width, ends, radius }: { width: number; ends: readonly [number, number]; radius: number },
): BracketShape {
  const out3 = (v: Vec2): Vec3 => add3(scale3(p, v[0]), scale3(q, v[1]));
  const at3 = (v: Vec2): Vec3 => add3(origin, out3(v));
  const [x1, x2] = bends;
  // from its bend to its free end
  const d2 = scaled(second.d, -1);
  const [u, n] = [out3(d2), out3(second.n)];
  const v = cross3(n, u);
  const sideways = dot3(sub3(from.at, origin), axis) * dot3(axis, v);
  const [v0, v1] = [Math.min(0, sideways) - width / 2, Math.max(0, sideways) + width / 2];
  const start = family === 'flat' ? -(s[0] + ends[0]) : 0;
  const base = {
    origin: at3(x2).map(c => roundTo(c, 6)) as unknown as Vec3,
    ...turnsOf(u, v),
    outline: (
      [
        [start, v0],
        [s[1] + ends[1], v0],
        [s[1] + ends[1], v1],
        [start, v1],
      ] as const
    ).map(([a, b]): Vec2 => [roundTo(a, 6), roundTo(b, 6)]),
  };
  if (family === 'flat') return { base, flanges: [] };
  /** the angle that a flange is turned by, from the way out of its parent, up along its normal */
  const angle = (out: Vec2, up: Vec2, to: Vec2): number =>
    roundTo(toDegrees(Math.atan2(dot2(up, to), dot2(out, to))), 9);
  const length = roundTo(s[0] + ends[0], 6);
  const l1 = scaled(first.d, -1);
  if (family === 'L')
    return {
      base,
      flanges: [{ id: 'leg', edge: 3, length, angle: angle(second.d, second.n, l1), insideRadius: radius }],
    };
  const web: Vec2 = [x1[0] - x2[0], x1[1] - x2[1]];
  const far = Math.hypot(...web);
  const w = scaled(web, 1 / far);
  const a = angle(second.d, second.n, w);
  // the web's upper side, turned with it
  const up: Vec2 = [
    second.n[0] * Math.cos(toRadians(a)) - second.d[0] * Math.sin(toRadians(a)),
    second.n[1] * Math.cos(toRadians(a)) - second.d[1] * Math.sin(toRadians(a)),
  ];
  const leg: Flange = { id: 'leg', edge: 'far', length, angle: angle(w, up, l1), insideRadius: radius };
  return {
    base,
    flanges: [
      { id: 'web', edge: 3, length: roundTo(far, 6), angle: a, insideRadius: radius, flanges: [leg] },
    ],
  };
}
