import type { Assembly } from '../derive';
import { factored, UNTOLD } from '../geometry';
import { tiedGroups } from '../sequence';
import { adjustmentOf } from '../survey';
import { normalFrom, numbersFrom } from '../units';
import { BEND_SIGMA, type BoltIn, type Model, modelOf } from './play';
import { type Trial, trialOf } from './start';

/** So many trials where nothing else is asked; their standard error is a percent at the most. */
export const TRIALS = 2000;
/** Always the same numbers: what changes between two looks is the plan. */
const SEED = 20260;

export interface Chance {
  /** share of trials in which all bolts start */
  readonly chance: number;
  /** its standard error */
  readonly error: number;
}
export interface JointFit {
  readonly id: string;
  /** share of trials in which this bolt is the furthest from starting */
  readonly refuses: number;
  /** how far its holes may be apart from one another, mm; endless where it is marked through the plate */
  readonly clearanceMm: number;
  /** how far they may well be, one standard deviation of the larger direction, mm */
  readonly sigmaMm: number;
}
export interface Fit {
  readonly trials: number;
  readonly all: Chance;
  readonly groups: readonly ({ readonly panels: readonly string[] } & Chance)[];
  readonly panels: readonly ({ readonly id: string } & Chance)[];
  readonly joints: readonly JointFit[];
  /** by joint, where its thread may lie beside its hole, mm in the joint's plane: the first trials */
  readonly clouds: ReadonlyMap<string, readonly (readonly [number, number])[]>;
  readonly model: Model;
}

const chanceOf = (count: number, trials: number): Chance => {
  const chance = count / trials;
  return { chance, error: Math.sqrt(Math.max(chance * (1 - chance), 0.25 / trials) / trials) };
};

/** What draws how the holes of the vehicle are off, three numbers a hole that counts, into `out`. */
type VehicleDraw = (normal: () => number, out: Float64Array) => void;

/**
 * How holes of the vehicle are off in one trial: those of a survey together, as their covariances say, the others each by itself. `place` is
 * where a hole's three numbers lie.
 */
function vehicleDraw(
  of: Assembly,
  model: Model,
): { readonly place: ReadonlyMap<string, number>; readonly draw: VehicleDraw } {
  const survey = of.document.rig.survey;
  const a = survey && adjustmentOf(of.document);
  const loose = new Set(a?.loose.map(l => l.point));
  const mounts = new Map(model.bolts.flatMap(b => (b.mount ? [[b.mount.id, b.mount.sigma] as const] : [])));
  const place = new Map([...mounts.keys()].map((id, i) => [id, 3 * i]));
  const surveyed = (a?.points ?? []).flatMap(p => {
    const mount = a?.solution.net.points.find(q => q.id === p.id)?.mount;
    return mount !== undefined && mounts.has(mount) && !loose.has(p.id) ? [{ mount, id: p.id }] : [];
  });
  /** the free coordinates of surveyed holes: where they go, and which unknown */
  const free = surveyed.flatMap(({ mount, id }) => {
    const i = a?.solution.net.index.get(id) ?? -1;
    return (a?.solution.unknowns.point.get(i) ?? []).flatMap((unknown, axis) =>
      unknown === undefined ? [] : [{ to: (place.get(mount) as number) + axis, unknown }],
    );
  });
  const n = free.length;
  const count = a?.solution.unknowns.count ?? 0;
  const covariance = new Float64Array(n * n);
  free.forEach((p, i) => {
    free.forEach((q, j) => {
      covariance[i * n + j] = a?.solution.cofactors[p.unknown * count + q.unknown] ?? 0;
    });
  });
  // a draw of all of them together is the factor of their covariance times as many single ones
  const { l, scale, rest } = factored(covariance, n);
  const to = Int32Array.from(free, f => f.to);
  const taped = new Set(surveyed.map(s => s.mount));
  const single = [...mounts].filter(([id]) => !taped.has(id));
  const z = new Float64Array(n);
  return {
    place,
    draw: (normal, out) => {
      out.fill(0);
      for (let i = 0; i < n; i++) z[i] = normal();
      for (let i = 0; i < n; i++) {
        // what others tell wholly has no doubt of its own
        if ((rest[i] as number) <= UNTOLD) continue;
        let s = 0;
        for (let c = 0; c <= i; c++) s += (l[i * n + c] as number) * (z[c] as number);
        out[to[i] as number] = s / (scale[i] as number);
      }
      for (const [id, sigma] of single) {
        const at = place.get(id) as number;
        for (let k = 0; k < 3; k++) out[at + k] = (sigma[k] as number) * normal();
      }
    },
  };
}

/** Holes of the vehicle that are known better than they are, by joint, mm: what a measurement would bring. */
export type Known = ReadonlyMap<string, number>;

/** Offsets of all holes of one trial after another, bolt after bolt: two numbers a hole. */
function drawer(of: Assembly, model: Model, known: Known): (normal: () => number) => Float64Array {
  const { place, draw } = vehicleDraw(of, model);
  const vehicle = new Float64Array(3 * place.size);
  const bends = new Float64Array(2 * model.bends);
  const holes = model.bolts.flatMap(b => {
    const at = b.mount ? (place.get(b.mount.id) ?? -1) : -1;
    const better = known.get(b.joint.id);
    const share = better === undefined || !b.mount ? 1 : better / Math.max(...b.mount.sigma);
    return b.holes.map(h => ({ ...h, b, at, share }));
  });
  const off = new Float64Array(2 * holes.length);
  return normal => {
    draw(normal, vehicle);
    for (let i = 0; i < model.bends; i++) {
      bends[2 * i] = BEND_SIGMA.place * normal();
      bends[2 * i + 1] = BEND_SIGMA.angle * normal();
    }
    for (let k = 0; k < holes.length; k++) {
      const h = holes[k] as (typeof holes)[number];
      let x = 0;
      let y = 0;
      // the numbers are drawn whether or not they count, so that two looks differ by the plan alone
      const p = normal();
      const q = normal();
      if (h.body !== undefined) {
        x = h.sigma * p;
        y = h.sigma * q;
        for (const s of h.bends) {
          const by = bends[2 * s.bend] as number;
          const turn = bends[2 * s.bend + 1] as number;
          x += s.place[0] * by + s.angle[0] * turn;
          y += s.place[1] * by + s.angle[1] * turn;
        }
      } else if (h.at >= 0) {
        for (let a = 0; a < 3; a++) {
          const d = h.share * (vehicle[h.at + a] as number);
          x += d * (h.b.e1[a] as number);
          y += d * (h.b.e2[a] as number);
        }
      }
      off[2 * k] = x;
      off[2 * k + 1] = y;
    }
    return off;
  };
}

/** The room between a bolt's holes, mm: how far any may be from where the others want it. */
const clearanceOf = (b: BoltIn): number =>
  b.holes.length < 2 || b.joint.mount?.hole.kind === 'drill'
    ? Number.POSITIVE_INFINITY
    : b.holes.reduce((s, h) => s + h.room.radius, 0);

const SHOWN = 200;

/** Some bodies with the bolts among them, made ready to be tried. */
interface Part {
  readonly bodies: readonly number[];
  /** places in the model */
  readonly bolts: readonly number[];
  readonly trial: (off: Float64Array) => ReturnType<Trial>;
}
interface Parts {
  readonly model: Model;
  /** where each bolt's offsets begin */
  readonly starts: readonly number[];
  /** every body by itself */
  readonly alone: readonly Part[];
  /** plates that hang together, with the crossbars that are bolted to them; `panels` are the plates */
  readonly groups: readonly (Part & { readonly panels: readonly number[] })[];
  readonly draw: (normal: () => number) => Float64Array;
}

function partsOf(of: Assembly, known: Known): Parts {
  const model = modelOf(of);
  const index = new Map(model.bodies.map((b, i) => [b.id, i]));
  const starts: number[] = [];
  let k = 0;
  for (const b of model.bolts) {
    starts.push(k);
    k += 2 * b.holes.length;
  }
  const part = (bodies: readonly number[], whole: boolean): Part => {
    const bolts = model.bolts.flatMap((b, i) => {
      const mine = b.holes.filter(h => h.body !== undefined);
      const among = mine.filter(h => bodies.includes(h.body as number));
      return (whole ? among.length === mine.length && among.length > 0 : among.length > 0) ? [i] : [];
    });
    const places = Int32Array.from(
      bolts.flatMap(i =>
        Array.from({ length: 2 * (model.bolts[i]?.holes.length ?? 0) }, (_, c) => (starts[i] as number) + c),
      ),
    );
    const trial = trialOf(model, bodies, bolts);
    const own = new Float64Array(places.length);
    return {
      bodies,
      bolts,
      trial: off => {
        for (let c = 0; c < places.length; c++) own[c] = off[places[c] as number] as number;
        return trial(own);
      },
    };
  };
  return {
    model,
    starts,
    alone: model.bodies.map((_, i) => part([i], false)),
    groups: tiedGroups(of.document, [...of.panels])
      .map(g => g.flatMap(p => index.get(p.panel.id) ?? []))
      .filter(g => g.length > 0)
      .map(panels => {
        // crossbars come with the plates that are bolted to them
        const bars = model.bodies.flatMap((b, i) =>
          b.kind === 'bar' &&
          model.bolts.some(
            x => x.holes.some(h => h.body === i) && x.holes.some(h => panels.includes(h.body as number)),
          )
            ? [i]
            : [],
        );
        return { panels, ...part([...panels, ...bars], true) };
      }),
    draw: drawer(of, model, known),
  };
}

/**
 * The chance of `fitOf` that all bolts start, without what else it tells: a trial is over at the first plate that does not start, and what
 * failed last is tried first.
 */
export function chanceOfAll(of: Assembly, trials: number, known: Known = new Map()): number {
  const { alone, groups, draw } = partsOf(of, known);
  const within = new Set(groups.flatMap(g => g.bodies));
  const asked = [
    ...alone.filter(p => within.has(p.bodies[0] as number) && p.bolts.length > 0),
    ...groups.filter(g => g.bodies.length > 1),
  ];
  const next = numbersFrom(SEED);
  const normal = (): number => normalFrom(next);
  let whole = 0;
  for (let t = 0; t < trials; t++) {
    const off = draw(normal);
    const failed = asked.findIndex(p => !p.trial(off).starts);
    if (failed < 0) whole++;
    else asked.unshift(...asked.splice(failed, 1));
  }
  return whole / trials;
}

/**
 * The chance that all bolts of each plate, each group that hangs together and the whole plan start by hand, by trials with holes where they
 * may well be. Errors stated are of the trials alone, not of the doubts that go in.
 */
export function fitOf(of: Assembly, trials = TRIALS, known: Known = new Map()): Fit {
  const { model, starts, draw, ...made } = partsOf(of, known);
  const groups = made.groups.map(g => ({ ...g, passed: 0 }));
  const panels = made.alone.map((p, i) => ({ id: model.bodies[i]?.id ?? '', ...p, passed: 0 }));
  const refused = new Map<string, number>();
  const clouds = new Map<string, (readonly [number, number])[]>();
  const spread = new Float64Array(2 * model.bolts.length);
  const next = numbersFrom(SEED);
  const normal = (): number => normalFrom(next);
  let whole = 0;
  for (let t = 0; t < trials; t++) {
    const off = draw(normal);
    let all = true;
    const refuses = (of: readonly number[], worst: number): void => {
      const id = model.bolts[of[worst] ?? -1]?.joint.id;
      if (id !== undefined) refused.set(id, (refused.get(id) ?? 0) + 1);
    };
    // a plate that does not start by itself does not start with others: the few unknowns of one are tried first
    const ready = panels.map(p => {
      const r = p.bolts.length === 0 ? undefined : p.trial(off);
      if (r?.starts ?? true) p.passed++;
      return r;
    });
    for (const g of groups) {
      const held = g.bodies.find(i => ready[i]?.starts === false);
      if (held !== undefined) {
        all = false;
        refuses(panels[held]?.bolts ?? [], ready[held]?.worst ?? -1);
        continue;
      }
      const r = g.bodies.length === 1 ? undefined : g.trial(off);
      if (r?.starts ?? true) g.passed++;
      else {
        all = false;
        refuses(g.bolts, r?.worst ?? -1);
      }
    }
    if (all) whole++;
    model.bolts.forEach((b, i) => {
      if (b.holes.length < 2) return;
      const at = starts[i] as number;
      const last = at + 2 * (b.holes.length - 1);
      const d = [
        (off[at] as number) - (off[last] as number),
        (off[at + 1] as number) - (off[last + 1] as number),
      ] as const;
      spread[2 * i] = (spread[2 * i] as number) + d[0] * d[0];
      spread[2 * i + 1] = (spread[2 * i + 1] as number) + d[1] * d[1];
      if (t >= SHOWN) return;
      const cloud = clouds.get(b.joint.id) ?? [];
      if (t === 0) clouds.set(b.joint.id, cloud);
      cloud.push(d);
    });
  }
  return {
    trials,
    all: chanceOf(whole, trials),
    groups: groups.map(g => ({
      panels: g.panels.map(i => model.bodies[i]?.id ?? ''),
      ...chanceOf(g.passed, trials),
    })),
    panels: panels
      .filter((_, i) => model.bodies[i]?.kind === 'panel')
      .map(p => ({ id: p.id, ...chanceOf(p.passed, trials) })),
    joints: model.bolts.map((b, i) => ({
      id: b.joint.id,
      refuses: (refused.get(b.joint.id) ?? 0) / trials,
      clearanceMm: clearanceOf(b),
      sigmaMm: Math.sqrt(Math.max(spread[2 * i] as number, spread[2 * i + 1] as number) / trials),
    })),
    clouds,
    model,
  };
}
