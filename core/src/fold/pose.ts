import { add3, type Frame, frameOf, scale3, toRadians, toSpace, type Vec2, type Vec3 } from '../geometry';
import { type Developed, type FoldedPanel, inBlank } from './folded-panel';

/** How far each bend is made, 0 flat to 1 finished. */
export type Shares = (bend: string) => number;

/** One bend on its way: everything that maps a point of its strip in the blank to space. */
export interface PosedBend {
  readonly id: string;
  /** degrees made so far, signed as the bend */
  readonly angle: number;
  /** inside radius at that angle, mm; infinite while flat */
  readonly insideRadius: number;
  /** where the strip leaves its parent: a point of the underside, its direction out and along, and the upper side */
  readonly start: Vec3;
  readonly out: Vec3;
  readonly along: Vec3;
  readonly up: Vec3;
  /** the blank point that `start` is, and the two directions in the blank */
  readonly from: Vec2;
  readonly u: Vec2;
  readonly v: Vec2;
  readonly allowanceMm: number;
  readonly width: number;
}

/** A plate somewhere between flat and finished: where every flat of the blank stands, and every bend between them. */
export interface Pose {
  /** from blank coordinates to space, by facet */
  readonly frames: ReadonlyMap<string, Frame>;
  readonly bends: readonly PosedBend[];
}

const STRAIGHT = 1e-4;

/** A point of a bend's strip, `d` mm past its start, `s` along it and `w` above the underside, in space. */
export function onBend(b: PosedBend, d: number, s: number, w: number, thickness: number): Vec3 {
  const { start, along, out, up: square } = b;
  /** from the bend's start: along its line, out from it, and square to the sheet */
  const put = (o: number, h: number): Vec3 => [
    start[0] + along[0] * s + (out[0] * o + square[0] * h),
    start[1] + along[1] * s + (out[1] * o + square[1] * h),
    start[2] + along[2] * s + (out[2] * o + square[2] * h),
  ];
  if (!Number.isFinite(b.insideRadius)) return put(d, w);
  const phi = (Math.abs(toRadians(b.angle)) * d) / b.allowanceMm;
  const up = b.angle > 0;
  const axis = up ? b.insideRadius + thickness : -b.insideRadius;
  const r = up ? axis - w : b.insideRadius + w;
  const height = up ? axis - r * Math.cos(phi) : axis + r * Math.cos(phi);
  return put(r * Math.sin(phi), height);
}

/**
 * A folded plate with every bend made to a share of its angle. The neutral fiber keeps its length on the way: a strip of
 * allowance BA bent by A has the inside radius BA/A − K·t, which at the full angle is the bend's own.
 */
export function pose(f: FoldedPanel, shares: Shares = () => 1): Pose {
  const t = f.sheet.thickness;
  const frames = new Map<string, Frame>();
  const bends: PosedBend[] = [];
  const byId = new Map(f.blank.developed.map(d => [d.facet.id, d]));
  for (const d of f.blank.developed) {
    const parent = d.facet.parent === undefined ? undefined : byId.get(d.facet.parent);
    const under = parent && frames.get(parent.facet.id);
    if (!under || !d.bend || !d.facet.hinge) {
      frames.set(d.facet.id, frameOf(f.panel.base));
      continue;
    }
    const posed = posedBend(d, under, t, shares(d.facet.id));
    bends.push(posed);
    frames.set(d.facet.id, frameBeyond(posed, t));
  }
  return { frames, bends };
}

function posedBend(d: Developed, under: Frame, t: number, share: number): PosedBend {
  const bend = d.bend as NonNullable<Developed['bend']>;
  const angle = bend.angle * Math.max(0, Math.min(1, share));
  const a = Math.abs(toRadians(angle));
  const from = inBlank(d, [bend.setbackMm - bend.allowanceMm, 0]);
  const direction = (q: Vec2): Vec3 => add3(scale3(under.u, q[0]), scale3(under.v, q[1]));
  return {
    id: d.facet.id,
    angle,
    insideRadius: a < STRAIGHT ? Number.POSITIVE_INFINITY : bend.allowanceMm / a - bend.kFactor * t,
    start: toSpace(under, from),
    out: direction(d.u),
    along: direction(d.v),
    up: under.n,
    from,
    u: d.u,
    v: d.v,
    allowanceMm: bend.allowanceMm,
    width: d.facet.hinge?.width ?? 0,
  };
}

/** The frame of the flat beyond a bend, from blank coordinates to space. */
function frameBeyond(b: PosedBend, t: number): Frame {
  const a = Number.isFinite(b.insideRadius) ? toRadians(b.angle) : 0;
  const out = add3(scale3(b.out, Math.cos(a)), scale3(b.up, Math.sin(a)));
  const n = add3(scale3(b.up, Math.cos(a)), scale3(b.out, -Math.sin(a)));
  const u = add3(scale3(out, b.u[0]), scale3(b.along, b.v[0]));
  const v = add3(scale3(out, b.u[1]), scale3(b.along, b.v[1]));
  const end = onBend(b, b.allowanceMm, 0, 0, t);
  const to: Vec2 = [b.from[0] + b.u[0] * b.allowanceMm, b.from[1] + b.u[1] * b.allowanceMm];
  return { origin: add3(end, add3(scale3(u, -to[0]), scale3(v, -to[1]))), u, v, n };
}
