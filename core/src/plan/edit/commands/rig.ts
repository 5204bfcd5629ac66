import { boxOf, contains, type Polygon, type Vec2, type Vec3 } from '../../../geometry';
import {
  type Component,
  type ComponentKind,
  entryMoved,
  entryRemoved,
  type HoleKind,
  type MeasureId,
  type Measures,
  type Misfit,
  type Mount,
  measureFaults,
  measuresOf,
  type Remeasuring,
  type Rig,
  type RigList,
  remeasured,
  takenMeasures,
  typicalMeasures,
  withChoice,
  withEntry,
} from '../../../rig';
import { err, ok, roundTo, spoken, type UnitSystem } from '../../../units';
import type { PlanDocument } from '../../plan';
import { freshId } from '../change';
import { command } from '../command';
import { fitted } from '../fitted';

const inRig = (doc: PlanDocument, part: Partial<Rig>): PlanDocument => ({
  ...doc,
  rig: { ...doc.rig, ...part },
});

type Entry<L extends RigList = RigList> = { readonly list: L; readonly id: string };
const ONE: Readonly<Record<RigList, string>> = {
  components: 'part',
  members: 'member',
  mounts: 'hole',
  servicePoints: 'service point',
  factoryParts: 'factory part',
};
/** An entry of the rig as undo names it: `hole rail-l6`, `the oil pan`. */
const named = ({ rig }: PlanDocument, { list, id }: Entry): string => {
  const entry = (rig[list] as readonly { readonly id: string; readonly name?: string }[]).find(
    e => e.id === id,
  );
  return entry?.name === undefined ? `${ONE[list]} ${id}` : `the ${entry.name}`;
};

export const renameRig = command<{ readonly name: string }>({
  id: 'rig.rename',
  label: () => 'rename the vehicle',
  run: (doc, { name }) => inRig(doc, { name }),
});

export const setDriverSide = command<{ readonly side: Rig['driverSide'] }>({
  id: 'rig.driver-side',
  label: () => 'set the driver’s side',
  run: (doc, { side }) => inRig(doc, { driverSide: side }),
});

export const chooseOption = command<{ readonly option: string; readonly choice: string }>({
  id: 'rig.option',
  label: (doc, { option }) => `set ${doc.rig.options.find(o => o.id === option)?.name ?? option}`,
  run: (doc, { option, choice }) => ({ ...doc, rig: withChoice(doc.rig, option, choice) }),
});

/** Combinations of options that do not fit at all. */
export const setMisfits = command<{ readonly misfits: readonly Misfit[] }>({
  id: 'rig.misfits',
  label: () => 'change the options that do not go together',
  run: (doc, { misfits }) => inRig(doc, { misfits }),
});

/** Spring rates at the wheel, N/mm, of the axles that are named. */
export const setWheelRates = command<{ readonly front?: number; readonly rear?: number }>({
  id: 'rig.wheel-rates',
  label: () => 'set the wheel rates',
  run: (doc, { front, rear }) => {
    const { axles } = doc.rig;
    return inRig(doc, {
      axles: {
        front: { ...axles.front, wheelRate: front ?? axles.front.wheelRate },
        rear: { ...axles.rear, wheelRate: rear ?? axles.rear.wheelRate },
      },
    });
  },
});

const measuresNow = ({ rig }: PlanDocument): Measures =>
  (rig.measures ?? typicalMeasures(rig.body)) as Measures;

/** Some measures counted among those that were taken on the vehicle, where it was begun from measures. */
function takenWith(rig: Rig, ids: readonly string[]): Pick<Rig, 'measured'> {
  const taken = takenMeasures(rig);
  return taken ? { measured: [...new Set([...taken, ...ids])] } : {};
}

/** One number of the measuring sheet; refused where it cannot be right beside the others. */
export const takeMeasure = command<{
  readonly measure: MeasureId;
  readonly value: number;
  readonly how?: Remeasuring;
  /** of the reader, for what is said of a refusal */
  readonly units?: UnitSystem;
}>({
  id: 'rig.measure',
  label: (doc, { measure }) =>
    `measure the ${
      measuresOf(doc.rig.body)
        .find(m => m.id === measure)
        ?.name.toLowerCase() ?? measure
    }`,
  run: (doc, { measure, value, how = 'keep-mine', units }) => {
    const { rig } = doc;
    const before = measuresNow(doc);
    const next = { ...before, [measure]: value };
    // only what this number brings about is its fault: a pair may be out of order while both ends are being typed
    const old = new Set(measureFaults(rig.body, before, units).map(f => f.fault));
    const fault = measureFaults(rig.body, next, units).find(f => f.id === measure && !old.has(f.fault));
    if (fault) return err(`${fault.fault}.`);
    const used = new Set(doc.plan.joints.flatMap(j => j.mount ?? []));
    return ok(fitted({ ...doc, rig: { ...remeasured(rig, next, how, used), ...takenWith(rig, [measure]) } }));
  },
});

/** Loads of the axles as weighed, kg. */
export const weighAxles = command<{ readonly frontKg: number; readonly rearKg: number }>({
  id: 'rig.axle-loads',
  label: () => 'use the axle loads',
  run: (doc, { frontKg, rearKg }) => ({
    ...doc,
    rig: {
      ...remeasured(doc.rig, { ...measuresNow(doc), frontAxleKg: frontKg, rearAxleKg: rearKg }),
      ...takenWith(doc.rig, ['frontAxleKg', 'rearAxleKg']),
    },
  }),
});

/** On the ground plane, mm; a member takes its holes along. */
export const moveEntry = command<Entry & { readonly by: Vec2 }>({
  id: 'rig.entry.move',
  label: (doc, a) => `move ${named(doc, a)}`,
  run: (doc, { list, id, by }) =>
    by[0] === 0 && by[1] === 0 ? doc : { ...doc, rig: entryMoved(doc.rig, list, id, by) },
});

/** A part or member stretched along (0) or across (1) the vehicle, its outline from one mm to another. */
export const stretchEntry = command<
  Entry<'components' | 'members'> & { readonly axis: 0 | 1; readonly from: number; readonly to: number }
>({
  id: 'rig.entry.stretch',
  label: (doc, a) => `set the size of ${named(doc, a)}`,
  run: (doc, { list, id, axis, from, to }) => {
    const stretched = (o: Polygon): Polygon => {
      const { min, max } = boxOf(o);
      const [lo, hi] = [min[axis], max[axis]];
      const map = (v: number): number => from + ((v - lo) / (hi - lo)) * (to - from);
      return o.map((p): Vec2 => (axis === 0 ? [map(p[0]), p[1]] : [p[0], map(p[1])]));
    };
    return {
      ...doc,
      rig:
        list === 'components'
          ? withEntry(doc.rig, list, id, c => ({ ...c, footprint: stretched(c.footprint) }))
          : withEntry(doc.rig, list, id, m => ({ ...m, footprint: stretched(m.footprint) })),
    };
  },
});

/** Underside and top of a part or member, mm above ground; holes stay in the underside of their member. */
export const setHeights = command<
  Entry<'components' | 'members'> & { readonly zBottom?: number; readonly zTop?: number }
>({
  id: 'rig.entry.heights',
  label: (doc, a) => `set the height of ${named(doc, a)}`,
  run: (doc, { list, id, zBottom, zTop }) => {
    const part = { ...(zBottom === undefined ? {} : { zBottom }), ...(zTop === undefined ? {} : { zTop }) };
    const rig =
      list === 'components'
        ? withEntry(doc.rig, list, id, c => ({ ...c, ...part }))
        : withEntry(doc.rig, list, id, m => ({ ...m, ...part }));
    return inRig(doc, {
      ...rig,
      mounts:
        list === 'members' && zBottom !== undefined
          ? rig.mounts.map(m => (m.member === id ? { ...m, at: [m.at[0], m.at[1], zBottom] as const } : m))
          : rig.mounts,
    });
  },
});

/** Fields of an entry that nothing else hangs on. */
type Plain = {
  readonly keepOut?: number;
  readonly protect?: boolean;
  readonly wall?: number;
  readonly at?: Vec3;
  readonly opening?: number;
  readonly condition?: Mount['condition'];
};
export const changeEntry = command<Entry & { readonly part: Plain }>({
  id: 'rig.entry.change',
  label: (doc, a) => `change ${named(doc, a)}`,
  run: (doc, { list, id, part }) =>
    inRig(doc, {
      [list]: (doc.rig[list] as readonly { readonly id: string }[]).map(e =>
        e.id === id ? { ...e, ...part } : e,
      ),
    }),
});

/** Takes an entry out of the rig, and what of the plan went to it. */
export const removeEntry = command<Entry>({
  id: 'rig.entry.remove',
  label: (doc, a) => `delete ${named(doc, a)}`,
  run: (doc, { list, id }) => fitted({ ...doc, rig: entryRemoved(doc.rig, list, id) }),
});

/** One more of a list, like its last. */
export const repeatEntry = command<{ readonly list: RigList }>({
  id: 'rig.entry.add',
  label: (_, { list }) => `add a ${ONE[list]}`,
  run: (doc, { list }) => {
    const rows = doc.rig[list] as readonly { readonly id: string }[];
    const last = rows.at(-1);
    return last
      ? inRig(doc, { [list]: [...rows, { ...last, id: freshId(ONE[list].replace(' ', '-'), rows) }] })
      : err(`there is no ${ONE[list]} to be repeated`);
  },
});

const PROTECTED: ReadonlySet<ComponentKind> = new Set<ComponentKind>([
  'engine',
  'transmission',
  'transfer-case',
  'fuel-tank',
  'catalytic-converter',
  'front-differential',
  'rear-differential',
  'battery',
]);
const MOVES: ReadonlySet<ComponentKind> = new Set<ComponentKind>(['drive-shaft', 'sway-bar']);
/** Room kept under a part that is added, and under one that moves, mm: common practice, no source. */
const KEEP_OUT = { still: 20, moving: 10 } as const;

/** A part over an outline that was drawn, mm: kind, name and heights. */
export const addPart = command<{
  readonly kind: ComponentKind;
  readonly name: string;
  readonly z: number;
  readonly tall: number;
  readonly footprint: Polygon;
}>({
  id: 'rig.part.add',
  label: (_, { kind, name }) => `add the ${name.trim() || spoken(kind)}`,
  run: (doc, { kind, name, z, tall, footprint }) => {
    const moves = MOVES.has(kind);
    const part: Component = {
      id: freshId('part', doc.rig.components),
      kind,
      name: name.trim() || spoken(kind),
      footprint,
      zBottom: z,
      zTop: z + tall,
      protect: PROTECTED.has(kind),
      keepOut: moves ? KEEP_OUT.moving : KEEP_OUT.still,
      ...(moves ? { moves: true } : {}),
    };
    return inRig(doc, { components: [...doc.rig.components, part] });
  },
});

/** Holes without a thread of their own. */
export const PLAIN_HOLES: ReadonlySet<HoleKind> = new Set<HoleKind>(['through', 'slot', 'drill']);

/** A hole at a place, mm, in the face of the lowest member that lies over it; refused where none does. */
export const addHole = command<{
  readonly kind: HoleKind;
  readonly thread: string;
  readonly diameter: number;
  readonly at: Vec2;
}>({
  id: 'rig.hole.add',
  label: () => 'add a hole',
  run: (doc, { kind, thread, diameter, at: [x, y] }) => {
    const over = doc.rig.members
      .filter(m => contains(m.footprint, [x, y]))
      .sort((p, q) => p.zBottom - q.zBottom)[0];
    if (!over) return err('There is no frame or crossmember above that spot. Add or move one first.');
    const size = kind === 'drill' ? {} : { diameter };
    const hole: Mount = {
      id: freshId('hole', doc.rig.mounts),
      member: over.id,
      at: [roundTo(x, 1), roundTo(y, 1), over.zBottom],
      hole: { kind, ...(PLAIN_HOLES.has(kind) ? size : { thread }) },
      condition: 'good',
      nutReach: kind === 'through' ? 'slot' : 'none',
    };
    return ok(inRig(doc, { mounts: [...doc.rig.mounts, hole] }));
  },
});
