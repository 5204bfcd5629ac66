import type { Assembly } from '../derive';
import { dot3, factored, UNTOLD, type Vec3 } from '../geometry';
import { tiedGroups } from '../sequence';
import { adjustmentOf } from '../survey';
import { normalFrom, numbersFrom } from '../units';
import { BEND_SIGMA, type BoltIn, type Model, modelOf } from './play';
import { trialOf } from './start';

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

/** How holes of the vehicle are off in one trial: those of a survey together, as their covariances say, the others each by itself. */
function vehicleDraw(of: Assembly, model: Model): (normal: () => number) => ReadonlyMap<string, Vec3> {
  const survey = of.document.rig.survey;
  const a = survey && adjustmentOf(of.document);
  const loose = new Set(a?.loose.map(l => l.point));
  const mounts = new Map(model.bolts.flatMap(b => (b.mount ? [[b.mount.id, b.mount.sigma] as const] : [])));
  const surveyed = (a?.points ?? []).flatMap(p => {
    const mount = a?.solution.net.points.find(q => q.id === p.id)?.mount;
    return mount !== undefined && mounts.has(mount) && !loose.has(p.id) ? [{ mount, id: p.id }] : [];
  });
  /** the free coordinates of surveyed holes: which hole and axis, and which unknown */
  const free = surveyed.flatMap(({ mount, id }) => {
    const i = a?.solution.net.index.get(id) ?? -1;
    return (a?.solution.unknowns.point.get(i) ?? []).flatMap((unknown, axis) =>
      unknown === undefined ? [] : [{ mount, axis, unknown }],
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
  return normal => {
    const out = new Map<string, Vec3>(surveyed.map(s => [s.mount, [0, 0, 0]]));
    const z = free.map(normal);
    free.forEach(({ mount, axis }, i) => {
      // what others tell wholly has no doubt of its own
      if ((rest[i] as number) <= UNTOLD) return;
      let s = 0;
      for (let c = 0; c <= i; c++) s += (l[i * n + c] as number) * (z[c] as number);
      const at = out.get(mount) as Vec3;
      out.set(mount, at.map((v, k) => (k === axis ? s / (scale[i] as number) : v)) as unknown as Vec3);
    });
    for (const [id, sigma] of mounts)
      if (!out.has(id)) out.set(id, sigma.map(s => s * normal()) as unknown as Vec3);
    return out;
  };
}

/** Holes of the vehicle that are known better than they are, by joint, mm: what a measurement would bring. */
export type Known = ReadonlyMap<string, number>;

/** Offsets of all holes of one trial after another, bolt after bolt: two numbers a hole. */
function drawer(of: Assembly, model: Model, known: Known): (normal: () => number) => Float64Array {
  const draw = vehicleDraw(of, model);
  const off = new Float64Array(2 * model.bolts.reduce((s, b) => s + b.holes.length, 0));
  return normal => {
    const vehicle = draw(normal);
    const bends = Array.from({ length: model.bends }, () => [
      BEND_SIGMA.place * normal(),
      BEND_SIGMA.angle * normal(),
    ]);
    let k = 0;
    for (const b of model.bolts)
      for (const h of b.holes) {
        let [x, y] = [0, 0];
        // the numbers are drawn whether or not they count, so that two looks differ by the plan alone
        const [p, q] = [normal(), normal()];
        if (h.body === undefined) {
          const d = (b.mount && vehicle.get(b.mount.id)) ?? [0, 0, 0];
          const better = known.get(b.joint.id);
          const k = better === undefined || !b.mount ? 1 : better / Math.max(...b.mount.sigma);
          [x, y] = [k * dot3(d, b.e1), k * dot3(d, b.e2)];
        } else {
          [x, y] = [h.sigma * p, h.sigma * q];
          for (const s of h.bends) {
            const [place, angle] = bends[s.bend] as [number, number];
            x += s.place[0] * place + s.angle[0] * angle;
            y += s.place[1] * place + s.angle[1] * angle;
          }
        }
        off[k++] = x;
        off[k++] = y;
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

/**
 * The chance that all bolts of each plate, each group that hangs together and the whole plan start by hand, by trials with holes where they
 * may well be. Errors stated are of the trials alone, not of the doubts that go in.
 */
export function fitOf(of: Assembly, trials = TRIALS, known: Known = new Map()): Fit {
  const model = modelOf(of);
  const index = new Map(model.bodies.map((b, i) => [b.id, i]));
  const starts: number[] = [];
  let k = 0;
  for (const b of model.bolts) {
    starts.push(k);
    k += 2 * b.holes.length;
  }
  /** a set of bodies with the bolts that are among them, and where their numbers lie */
  const part = (bodies: readonly number[], whole: boolean) => {
    const bolts = model.bolts.flatMap((b, i) => {
      const mine = b.holes.filter(h => h.body !== undefined);
      const among = mine.filter(h => bodies.includes(h.body as number));
      return (whole ? among.length === mine.length && among.length > 0 : among.length > 0) ? [i] : [];
    });
    const places = bolts.flatMap(i =>
      Array.from({ length: 2 * (model.bolts[i]?.holes.length ?? 0) }, (_, c) => (starts[i] as number) + c),
    );
    return { bolts, places, trial: trialOf(model, bodies, bolts), off: new Float64Array(places.length) };
  };
  const groups = tiedGroups(of.document, [...of.panels])
    .map(g => g.flatMap(p => index.get(p.panel.id) ?? []))
    .filter(g => g.length > 0)
    .map(g => {
      // crossbars come with the plates that are bolted to them
      const bars = model.bodies.flatMap((b, i) =>
        b.kind === 'bar' &&
        model.bolts.some(
          x => x.holes.some(h => h.body === i) && x.holes.some(h => g.includes(h.body as number)),
        )
          ? [i]
          : [],
      );
      return { panels: g, bodies: [...g, ...bars], ...part([...g, ...bars], true), passed: 0 };
    });
  const panels = model.bodies.map((b, i) => ({ id: b.id, ...part([i], false), passed: 0 }));
  const refused = new Map<string, number>();
  const clouds = new Map<string, (readonly [number, number])[]>();
  const spread = new Map<string, [number, number, number]>();
  const next = numbersFrom(SEED);
  const normal = (): number => normalFrom(next);
  const draw = drawer(of, model, known);
  let whole = 0;
  const tried = (
    g: { places: readonly number[]; off: Float64Array; trial: ReturnType<typeof trialOf> },
    off: Float64Array,
  ) => {
    for (let c = 0; c < g.places.length; c++) g.off[c] = off[g.places[c] as number] as number;
    return g.trial(g.off);
  };
  for (let t = 0; t < trials; t++) {
    const off = draw(normal);
    let all = true;
    const refuses = (of: readonly number[], worst: number): void => {
      const id = model.bolts[of[worst] ?? -1]?.joint.id;
      if (id !== undefined) refused.set(id, (refused.get(id) ?? 0) + 1);
    };
    // a plate that does not start by itself does not start with others: the few unknowns of one are tried first
    const ready = panels.map(p => {
      const r = p.bolts.length === 0 ? undefined : tried(p, off);
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
      const r = g.bodies.length === 1 ? undefined : tried(g, off);
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
      const s = spread.get(b.joint.id) ?? [0, 0, 0];
      spread.set(b.joint.id, [s[0] + d[0] * d[0], s[1] + d[1] * d[1], s[2] + 1]);
      if (t < SHOWN) clouds.set(b.joint.id, [...(clouds.get(b.joint.id) ?? []), d]);
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
    joints: model.bolts.map(b => {
      const s = spread.get(b.joint.id);
      return {
        id: b.joint.id,
        refuses: (refused.get(b.joint.id) ?? 0) / trials,
        clearanceMm: clearanceOf(b),
        sigmaMm: s ? Math.sqrt(Math.max(s[0], s[1]) / s[2]) : 0,
      };
    }),
    clouds,
    model,
  };
}
