import { type Balance, balanceOf } from './balance';
import { copied } from './bent';
import { movesOf, stressOf } from './bent-answer';
import { type Place, shareThatDents } from './denting';
import { type Mechanism, mechanismOf, solved } from './linear';
import type { ShellModel } from './model';
import { DOF_PER_NODE, type Factor } from './sparse';

export interface LargeAnswer {
  /** displacements under the full load (or what was reached), rotations as if they were small: node · 6 + freedom */
  readonly u: Float64Array;
  /** what the structure pushes back with there */
  readonly inner: Float64Array;
  readonly stress: Float64Array;
  readonly steps: number;
  /** share of the load at which a balance was last found; 1 when all of it is borne, of a fall what stops it */
  readonly reached: number;
  /** true where all of it was borne, or the fall stopped */
  readonly done: boolean;
  /** share of the load at which it first gave way and went on to where it bears more; undefined where it never did */
  readonly gaveWayAt?: number;
  /** true where some layer has passed its yield */
  readonly yielded: boolean;
  /** displacements that stay after unloading */
  readonly rest?: Float64Array;
  /** share of the load at which the dent asked for stays; undefined where the whole leaves less, or was not borne */
  readonly dentsAt?: number;
}

/**
 * A weight, by its share of the load, that comes down from `heightMm` over the structure. One that is let go as it touches (0 mm) on what is
 * stiff alike all the way counts twice (Timoshenko, Strength of Materials, part I). No mass but the weight's; nothing gives but the structure.
 */
export interface Fall {
  readonly weight: number;
  readonly heightMm: number;
}

export interface LargeWish {
  readonly plastic: boolean;
  /** takes the load off again, so that what stays is known */
  readonly unload?: boolean;
  /** isotropic hardening, MPa; none unless told */
  readonly hardening?: number;
  /** a move of the load's place beyond which it has given way, mm */
  readonly most?: number;
  /** longest step of the load's place, mm: for a closer look at how it gives way */
  readonly longest?: number;
  /** imbalance that counts as balance, as a share of the load */
  readonly tolerance?: number;
  /** it falls: the load is borne up to what stops it, which is found first */
  readonly fall?: Fall;
  /** a dent whose load is asked for, mm, and how it is read from the displacements that stay */
  readonly dent?: { readonly limit: number; readonly of: (rest: Float64Array) => number };
}

/** Misfit that counts as balance at the end and on the way there, as shares of the load. */
const TOLERANCE = 1e-6;
const ON_THE_WAY = 3e-2;
/** Below this share of the load a tangent is used again, as long as every round leaves less than this of the imbalance. */
const NEAR = 0.3;
const REUSE = 0.4;
const MOST_ROUNDS = 16;
/** Rounds of one answer; a load that asks for more is given up where it stands. */
const MOST_IN_ALL = 150;
/** The first step gives way by this share of the thickness, or by what small deflections would give if that is less. */
const FIRST_STEP = 1;
/** A step that found no balance is cut to this share. */
const CUT = 0.5;
/** From this round on a imbalance that grows by more than ASTRAY ends the step, and one left at more than STALLS is looked at closer. */
const SEARCH = 3;
const ASTRAY = 1.3;
const STALLS = 0.6;
/** On the way of a fall, whose work is summed step by step, steps grow by no more; what is left of it counts as none under this share. */
const FALLS_BY = 1.25;
const STOPPED = 3e-3;
const MOST_STOPS = 6;
/** Steps shorter than this share of the thickness are given up: what such a step still bears is no longer the plate, it is how well its balance is found. */
const LEAST_STEP = 1 / 24;

/**
 * Bears a load in steps, each a move of the load's place that is brought to balance by Newton's method while the share of the
 * load follows (Batoz and Dhatt 1979), so that a structure which gives way is followed to where it bears again; the last step
 * holds the load and lets the place follow. A step that finds no balance is cut, one that finds it quickly is followed by a
 * longer one.
 */
export function solveLarge(model: ShellModel, wish: LargeWish): LargeAnswer | Mechanism {
  const b = balanceOf(model, wish);
  try {
    return borne(model, b, wish);
  } finally {
    b.done();
  }
}

function borne(model: ShellModel, b: Balance, wish: LargeWish): LargeAnswer | Mechanism {
  const path = new Path(model, b, wish);
  const whole = wish.fall ? path.fall(wish.fall) : 1;
  const done = whole !== undefined && path.go(whole);
  if (path.mechanism && path.steps === 0) return path.mechanism;
  b.imbalance(path.share);
  const u = movesOf(model, b.bent);
  const inner = b.inner.slice();
  const stress = stressOf(model, b.rest, b.bent, b.layers);
  const yielded = b.layers?.measure.some(v => v > 1e-6) ?? false;
  const answer = {
    u,
    inner,
    stress,
    steps: path.steps,
    reached: done ? whole : path.share,
    done,
    ...(path.gaveWayAt === undefined ? {} : { gaveWayAt: path.gaveWayAt }),
    yielded,
  };
  if (!(done && wish.unload && yielded && path.go(0))) return answer;
  const rest = movesOf(model, b.bent);
  const { dent } = wish;
  const dentsAt =
    dent &&
    shareThatDents(path.places, { share: whole, dent: dent.of(rest) }, dent.limit, place =>
      path.unloaded(place) ? dent.of(movesOf(model, b.bent)) : undefined,
    );
  return { ...answer, rest, ...(dentsAt === undefined ? {} : { dentsAt }) };
}

/** The way of a structure under a growing (or waning) share of its load. */
class Path {
  share = 0;
  steps = 0;
  rounds = 0;
  mechanism: Mechanism | undefined;
  gaveWayAt: number | undefined;
  /** balances on the way up, kept where a dent's load is asked for */
  readonly places: Place[] = [];
  private readonly keeps: boolean;
  /** the step before: moves of all nodes, of the load's place, and of the share */
  private last: { du: Float64Array; place: number; share: number } | undefined;
  /** the same for the step that is being tried */
  private tried = { du: new Float64Array(0), place: 0, share: 0 };
  private ready: Factor | undefined;
  /** a step is at most so many times the one before */
  private growth = 2;
  private readonly tolerance: number;
  private readonly most: number;
  private readonly longest: number;
  /** how far the load's place has moved, mm */
  private place = 0;
  /** sum of the load's forces: a move of its place is their work on it by this */
  private readonly force: number;

  constructor(
    private readonly model: ShellModel,
    private readonly b: Balance,
    wish: LargeWish,
  ) {
    this.tolerance = wish.tolerance ?? TOLERANCE;
    this.most = wish.most ?? Infinity;
    this.longest = wish.longest ?? Infinity;
    this.keeps = wish.dent !== undefined && wish.unload === true;
    this.force = model.load.reduce((s, v, i) => s + (i % DOF_PER_NODE < 3 ? Math.abs(v) : 0), 0) || 1;
  }

  /**
   * The share of the load that stops a fall, all being taken back to the last balance before it; undefined where nothing did. What has
   * been taken up on the way (the area under load and move of its place) is then what the weight has given on its way down.
   */
  fall({ weight, heightMm }: Fall): number | undefined {
    const { b, model, force } = this;
    this.growth = FALLS_BY;
    let kept = { at: b.keep(), share: this.share, place: this.place };
    const given = weight * heightMm * force;
    /** what is still to be taken up, N·mm: the weight's own way down adds to it, the structure takes from it */
    let left = given;
    let part = 0;
    const after = (du: Float64Array): number =>
      left + b.work(model.load, du) * (weight - (kept.share + this.share) / 2);
    const stopped = this.go(Number.POSITIVE_INFINITY, () => {
      const { du, place } = this.last ?? { du: new Float64Array(0), place: 0 };
      const now = after(du);
      if (now <= 0) {
        part = (place * left) / (left - now);
        return true;
      }
      left = now;
      kept = { at: b.keep(), share: this.share, place: this.place };
      return false;
    });
    if (!stopped) return undefined;
    if (this.keeps) this.places.pop();
    // within the last step its place is looked for until what is left is nought
    for (let tries = 1; ; tries++) {
      b.goBack(kept.at);
      this.share = kept.share;
      this.ready = undefined;
      if (this.balance(part, undefined) === undefined) return undefined;
      const off = after(this.tried.du);
      if (Math.abs(off) < STOPPED * (given + weight * force * this.place) || tries === MOST_STOPS) break;
      part -= off / (force * (weight - this.share));
    }
    b.settle();
    this.steps++;
    this.place = kept.place + this.tried.place;
    if (this.balance(0, this.share) === undefined) return undefined;
    b.settle();
    if (this.keeps) this.places.push({ share: this.share, kept: b.keep() });
    return this.share;
  }

  /**
   * Goes to a share of the load; false where no balance was found any more. `enough` is asked after every balance
   * whether that is far enough.
   */
  go(to: number, enough?: () => boolean): boolean {
    const { b, model } = this;
    const sign = Math.sign(to - this.share);
    let step: number | undefined;
    // a step as long as one that found no balance is not tried again
    let tooLong = Infinity;
    this.last = undefined;
    this.ready = undefined;
    while (this.share !== to) {
      const [before, share] = [copied(b.bent), this.share];
      // to the end at once where the last step says that it is near
      const ahead: number = this.last
        ? (sign * ((to - share) * this.last.place)) / this.last.share
        : Number.POSITIVE_INFINITY;
      const end = step !== undefined && ahead > 0 && ahead < Math.min(1.1 * step, tooLong);
      let rounds = end ? this.balance(sign * ahead, to) : this.balance(step && sign * step, undefined);
      // past the end: from there straight back to it
      if (!end && rounds !== undefined && sign * (this.share - to) > 0) rounds = this.balance(0, to);
      if (rounds === undefined) {
        if (this.mechanism && this.steps === 0) return false;
        b.bent = before;
        b.forget();
        this.ready = undefined;
        this.share = share;
        tooLong = end ? ahead : (step ?? Math.abs(this.tried.place));
        step = CUT * tooLong;
        if (!(step > LEAST_STEP * model.thickness) || this.rounds > MOST_IN_ALL) return false;
        continue;
      }
      b.settle();
      if (sign > 0 && this.share < share) this.gaveWayAt ??= share;
      this.steps++;
      if (sign > 0 && this.keeps) this.places.push({ share: this.share, kept: b.keep() });
      this.last = this.tried;
      this.place += this.last.place;
      if (enough?.()) return true;
      if (sign > 0 && this.place > this.most) return false;
      const took: number = Math.abs(this.last.place);
      step = Math.min(
        took * Math.min(this.growth, rounds <= 3 ? 2 : rounds <= 4 ? 1.6 : rounds <= 6 ? 1.3 : 0.8),
        Math.max(took, 0.75 * tooLong),
        this.longest,
      );
    }
    return true;
  }

  /** Takes the load off again from a balance on the way up; false where no balance was found. */
  unloaded(from: Place): boolean {
    this.b.goBack(from.kept);
    this.share = from.share;
    this.rounds = 0;
    return this.go(0);
  }

  /**
   * Balance after the load's place has moved by `place` mm, the share of the load following; or, where `to` is given, at that share,
   * which is looked for from there. Without a place the first step is as short as the sheet wants. How many rounds it took, or
   * undefined where there was no balance.
   */
  private balance(place: number | undefined, to: number | undefined): number | undefined {
    const { b, model, force } = this;
    const fixed = to !== undefined;
    const straightOn = place === 0;
    if (!straightOn) this.tried = { du: new Float64Array(model.load.length), place: 0, share: -this.share };
    if (fixed && straightOn) this.share = to;
    let off = b.imbalance(this.share);
    // the last tangent of the step before serves as the first of this one
    let factor = straightOn ? undefined : this.ready;
    this.ready = undefined;
    let push: Float64Array | undefined;
    let gain = 1;
    let stalled = 0;
    for (let r = 1; r <= MOST_ROUNDS; r++) {
      if (++this.rounds > MOST_IN_ALL) return undefined;
      // near the balance the tangent of a round before serves again: taking it apart is what costs
      if (!factor || (r > 1 && (gain > REUSE || off > NEAR * b.whole))) {
        const made = b.tangent();
        if ('free' in made) {
          this.mechanism ??= mechanismOf(made.free);
          return undefined;
        }
        factor = made;
        push = undefined;
      }
      if (!push && !(fixed && (straightOn || r > 1))) push = solved(b.plan, factor, model.load);
      let du: Float64Array;
      const from = this.share;
      if (push && r === 1) {
        const gives = b.work(model.load, push) / force;
        const move = place ?? this.heading(gives);
        this.tried.place = move;
        du = push.map(v => (v * move) / gives);
        this.share += move / gives;
        if (fixed) this.share = to;
      } else {
        du = solved(b.plan, factor, b.residual);
        if (push && !fixed) {
          const more = -b.work(model.load, du) / b.work(model.load, push);
          this.share += more;
          for (let i = 0; i < du.length; i++) du[i] = (du[i] as number) + more * (push[i] as number);
        }
      }
      const now = this.moveBy(du, r >= SEARCH ? off : Infinity, from);
      if (!Number.isFinite(now) || now > 1e5 * b.whole) return undefined;
      gain = now / off;
      off = now;
      const enough = fixed ? this.tolerance : Math.max(this.tolerance, ON_THE_WAY);
      if (off < enough * b.whole) {
        this.tried.place = b.work(model.load, this.tried.du) / force;
        this.tried.share += this.share;
        this.ready = factor;
        return r;
      }
      // a step that goes astray is given up at once
      if (r >= 3 && gain > ASTRAY && off > b.whole) return undefined;
      stalled = gain > STALLS ? stalled + 1 : 0;
      if (stalled >= 3) return undefined;
    }
    return undefined;
  }

  /**
   * Makes a move, which took the share from `share` to where it is, and returns the imbalance there. Where that is not much less than
   * `before` and the force along the move has turned, the move is cut to where it was nought: friction that gives out throws
   * Newton's method from one side to the other.
   */
  private moveBy(du: Float64Array, before: number, share: number): number {
    const { b, tried } = this;
    const from = before < Infinity ? copied(b.bent) : undefined;
    const start = from ? b.work(b.residual, du) : 0;
    b.move(du);
    let now = b.imbalance(this.share);
    let part = 1;
    if (from && now > STALLS * before) {
      const end = b.work(b.residual, du);
      if (Number.isFinite(end) && start * end < 0) {
        part = Math.max(0.1, start / (start - end));
        const whole = this.share;
        b.bent = from;
        this.share = share + part * (whole - share);
        b.forget();
        b.move(du.map(v => v * part));
        now = b.imbalance(this.share);
      }
    }
    for (let i = 0; i < du.length; i++) tried.du[i] = (tried.du[i] as number) + part * (du[i] as number);
    return now;
  }

  /** First move of the load's place, mm, where it gives by so much under the whole load. */
  private heading(gives: number): number {
    const move = Math.min(FIRST_STEP * this.model.thickness, Math.abs(gives), this.longest);
    return this.share > 0 ? -move : move;
  }
}
