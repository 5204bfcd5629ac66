import type { RigList } from '../edit';
import type { Body, Component, Member, Mount, Rig } from '../rig';
import { ladderFrame } from './ladder-frame';
import type { Layout } from './layout';
import { type Measures, typicalMeasures } from './measures';
import { tubeFrame } from './tube-frame';
import { unibody } from './unibody';

const NAMES: Readonly<Record<Body, string>> = {
  truck: 'Pickup',
  suv: 'SUV',
  car: 'Car',
  'side-by-side': 'Side-by-side',
};

/** Wheel rates a tape cannot give, N/mm per wheel: guesses, to be replaced by a measured pair. */
const WHEEL_RATE: Readonly<Record<Body, readonly [front: number, rear: number]>> = {
  truck: [32, 30],
  suv: [30, 34],
  car: [24, 22],
  'side-by-side': [13, 15],
};

const layoutOf = (body: Body, m: Measures): Layout => {
  switch (body) {
    case 'truck':
      return ladderFrame(m, 'left', false);
    case 'suv':
      return ladderFrame(m, 'center', true);
    case 'car':
      return unibody(m);
    case 'side-by-side':
      return tubeFrame(m);
  }
};

/** Crossings nearer than this to one already there are the same member, mm. */
const SAME = 120;
const CLEARANCE_M12 = 13.5;

const box = (x0: number, x1: number, y0: number, y1: number) =>
  [
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ] as const;

const within = (c: Component, x0: number, x1: number, y0: number, y1: number): boolean => {
  const xs = c.footprint.map(p => p[0]);
  const ys = c.footprint.map(p => p[1]);
  return Math.min(...xs) < x1 && Math.max(...xs) > x0 && Math.min(...ys) < y1 && Math.max(...ys) > y0;
};

/** Rails and crossmembers: where the layout wants them, no taller than what passes over them allows. */
function membersOf(body: Body, m: Measures, layout: Layout): readonly Member[] {
  const tube = body === 'side-by-side';
  const railWidth = tube ? 38 : body === 'car' ? 90 : 70;
  const outside = m.railOutside / 2;
  const inside = outside - railWidth;
  const from = -m.frontOverhang * 0.85;
  const to = m.wheelbase + m.rearOverhang * 0.85;
  const half = tube ? 19 : 28;
  const xs: (readonly [number, number])[] = [];
  for (const c of [...layout.crossings].sort((a, b) => a[0] - b[0]))
    if (!xs.some(x => Math.abs(x[0] - c[0]) < SAME)) xs.push(c);
  const rails = [-1, 1].map(
    (s): Member => ({
      id: s < 0 ? 'rail-left' : 'rail-right',
      kind: tube ? 'tube' : 'rail',
      footprint: box(from, to, s < 0 ? -outside : inside, s < 0 ? -inside : outside),
      zBottom: m.railHeight,
      zTop: m.railHeight + (tube ? 38 : body === 'car' ? 60 : 130),
      wall: tube ? 2 : body === 'car' ? 1.8 : 4,
    }),
  );
  return [
    ...rails,
    ...xs.map(([x, higher], i): Member => {
      const zBottom = m.crossHeight + higher;
      const over = layout.components
        .filter(c => within(c, x - half, x + half, -inside, inside))
        .map(c => c.zBottom - 1);
      return {
        id: `cross-${i + 1}`,
        kind: tube ? 'tube' : body === 'car' ? 'subframe' : 'crossmember',
        footprint: box(x - half, x + half, -inside, inside),
        zBottom,
        zTop: Math.max(zBottom + 8, Math.min(zBottom + (tube ? 38 : 50), ...over)),
        wall: tube ? 2 : body === 'car' ? 2 : 3,
      };
    }),
  ];
}

/** Holes: four a crossmember, and a row along each rail. */
function mountsOf(m: Measures, layout: Layout, members: readonly Member[]): readonly Mount[] {
  const { kind, outer, inner, nutReach, side, taken } = layout.holes;
  const across = members
    .filter(x => x.id.startsWith('cross-'))
    .flatMap(c => {
      const xs = c.footprint.map(p => p[0]);
      const ys = c.footprint.map(p => p[1]);
      const x = (Math.min(...xs) + Math.max(...xs)) / 2;
      const reach = Math.max(...ys);
      const places = [
        ['lo', -0.84, outer],
        ['li', -0.38, inner],
        ['ri', 0.38, inner],
        ['ro', 0.84, outer],
      ] as const;
      return places.map(
        ([name, f, thread]): Mount => ({
          id: `h${c.id.slice(6)}${name}`,
          member: c.id,
          at: [x, Math.round(f * reach), c.zBottom],
          hole: { kind, thread },
          condition: 'good',
          nutReach,
        }),
      );
    });
  if (!side) return across;
  const first = Math.ceil((m.crossFrontX + 100) / 400) * 400;
  const rows = Array.from(
    { length: Math.floor((m.wheelbase - 200 - first) / 400) + 1 },
    (_, i) => first + 400 * i,
  );
  const along = members
    .filter(x => x.id.startsWith('rail-'))
    .flatMap(r => {
      const ys = r.footprint.map(p => p[1]);
      const y = (Math.min(...ys) + Math.max(...ys)) / 2;
      return rows.map(
        (x, i): Mount => ({
          id: `${r.id === 'rail-left' ? 'rail-l' : 'rail-r'}${i + 1}`,
          member: r.id,
          at: [x, y, r.zBottom],
          hole: side === 'through' ? { kind: 'through', diameter: CLEARANCE_M12 } : { kind: side },
          condition: 'good',
          nutReach: side === 'through' ? 'slot' : 'none',
          ...(taken && i % 2 === 1 ? { when: taken } : {}),
        }),
      );
    });
  return [...across, ...along];
}

/**
 * A starting rig of a body that has the shape its measures say. Everything a tape does not give is a plausible guess,
 * to be corrected on the map or in the tables. Faulty measures are not checked here: see `measureFaults`.
 */
export function startingRig(
  body: Body,
  measures: Measures = typicalMeasures(body),
  id: string = body,
  name: string = NAMES[body],
): Rig {
  const layout = layoutOf(body, measures);
  const members = membersOf(body, measures, layout);
  const [front, rear] = WHEEL_RATE[body];
  return {
    id,
    name,
    body,
    driverSide: 'left',
    wheelbase: measures.wheelbase,
    tyreRadius: measures.tyreRadius,
    trackWidth: measures.trackWidth,
    frontOverhang: measures.frontOverhang,
    rearOverhang: measures.rearOverhang,
    axles: {
      front: { massKg: measures.frontAxleKg, wheelRate: front },
      rear: { massKg: measures.rearAxleKg, wheelRate: rear },
    },
    measures,
    options: layout.options,
    selected: layout.selected,
    components: layout.components,
    members,
    mounts: mountsOf(measures, layout, members),
    servicePoints: layout.servicePoints,
    factoryParts: layout.factoryParts,
  };
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** What becomes of what the owner has changed where a new measure would move it too. */
export type Remeasuring = 'keep-mine' | 'follow';

/** What a new measure does beside reshaping what nobody has touched: ids by list. */
export interface MeasureEffect {
  /** entries that the owner has changed and that the measure would move */
  readonly edited: readonly { readonly list: RigList; readonly id: string }[];
  /** holes and members that the measure leaves no place for */
  readonly dropped: readonly { readonly list: RigList; readonly id: string }[];
  /** members left lower than half of what they were, mm */
  readonly squashed: readonly { readonly id: string; readonly heightMm: number }[];
}

const LISTS: readonly RigList[] = ['components', 'members', 'mounts', 'servicePoints', 'factoryParts'];

/** A member thinner than this is squashed, mm, if it was at least twice as high before. */
const SQUASHED = 25;

/**
 * A list after new measures: the rest follows the tape; what the owner has changed, added or taken away stays so, or where it `follow`s
 * goes where the tape puts it. `held` entries stay though the tape leaves no place for them.
 */
function followed<T extends { readonly id: string }>(
  mine: readonly T[],
  before: readonly T[],
  after: readonly T[],
  how: Remeasuring,
  held: ReadonlySet<string>,
): readonly T[] {
  const was = new Map(before.map(x => [x.id, x]));
  const will = new Map(after.map(x => [x.id, x]));
  const kept = mine.flatMap(x => {
    const start = was.get(x.id);
    if (!start) return [x];
    const next = will.get(x.id);
    const moves = next !== undefined && !same(start, next);
    if (!same(start, x)) return how === 'follow' && moves ? [next] : [x];
    return next ?? (how === 'keep-mine' && held.has(x.id) ? [x] : []);
  });
  const here = new Set(mine.map(x => x.id));
  return [...kept, ...after.filter(x => !here.has(x.id) && !was.has(x.id))];
}

const beforeAndAfter = (rig: Rig, measures: Measures): readonly [Rig, Rig] => [
  startingRig(rig.body, rig.measures as Measures, rig.id, rig.name),
  startingRig(rig.body, measures, rig.id, rig.name),
];

/** What new measures would do to what the owner has changed, and what they would do away with; nothing on a rig not begun from measures. */
export function measureEffect(rig: Rig, measures: Measures): MeasureEffect {
  if (!rig.measures) return { edited: [], dropped: [], squashed: [] };
  const [before, after] = beforeAndAfter(rig, measures);
  const edited: { list: RigList; id: string }[] = [];
  const dropped: { list: RigList; id: string }[] = [];
  for (const list of LISTS) {
    type Entry = { readonly id: string };
    const was = new Map((before[list] as readonly Entry[]).map(x => [x.id, x]));
    const will = new Map((after[list] as readonly Entry[]).map(x => [x.id, x]));
    for (const x of rig[list] as readonly Entry[]) {
      const start = was.get(x.id);
      if (!start) continue;
      const next = will.get(x.id);
      if (!next) {
        if (list === 'mounts' || list === 'members') dropped.push({ list, id: x.id });
      } else if (!same(start, x) && !same(start, next)) edited.push({ list, id: x.id });
    }
  }
  const squashed = after.members.flatMap(m => {
    const old = rig.members.find(x => x.id === m.id);
    const heightMm = m.zTop - m.zBottom;
    return old && heightMm < SQUASHED && heightMm < (old.zTop - old.zBottom) / 2
      ? [{ id: m.id, heightMm }]
      : [];
  });
  return { edited, dropped, squashed };
}

/**
 * A rig after new measures were taken. One that was not begun from measures gets its outer numbers only. `how` tells what becomes of what
 * the owner has changed; `held` are holes that the plan uses: kept with what is kept, their members with them.
 */
export function remeasured(
  rig: Rig,
  measures: Measures,
  how: Remeasuring = 'keep-mine',
  held: ReadonlySet<string> = new Set(),
): Rig {
  const outlines = startingRig(rig.body, measures, rig.id, rig.name);
  const outer = {
    ...rig,
    measures,
    wheelbase: outlines.wheelbase,
    tyreRadius: outlines.tyreRadius,
    trackWidth: outlines.trackWidth,
    frontOverhang: outlines.frontOverhang,
    rearOverhang: outlines.rearOverhang,
    axles: {
      front: { ...rig.axles.front, massKg: measures.frontAxleKg },
      rear: { ...rig.axles.rear, massKg: measures.rearAxleKg },
    },
  };
  if (!rig.measures) return outer;
  const [before, after] = beforeAndAfter(rig, measures);
  const bearing = new Set(rig.mounts.flatMap(m => (held.has(m.id) ? [m.member] : [])));
  const none: ReadonlySet<string> = new Set();
  const members = followed(rig.members, before.members, after.members, how, bearing);
  const alive = new Set(members.map(m => m.id));
  return {
    ...outer,
    components: followed(rig.components, before.components, after.components, how, none),
    members,
    mounts: followed(rig.mounts, before.mounts, after.mounts, how, held).filter(m => alive.has(m.member)),
    servicePoints: followed(rig.servicePoints, before.servicePoints, after.servicePoints, how, none),
    factoryParts: followed(rig.factoryParts, before.factoryParts, after.factoryParts, how, none),
  };
}
