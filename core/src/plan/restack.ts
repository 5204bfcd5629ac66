import { toDegrees, toRadians, type Vec3 } from '../geometry';
import { roundTo } from '../units';
import { type Build, type Joint, type Panel, type PlanDocument, type SheetChoice, stackedIn } from './plan';
import { holeNamed } from './present';
import { isBracket } from './select';

type Sheets = Readonly<Record<string, SheetChoice>>;

/** How far a plate has come down over a place, mm: a level or a plane that rises or falls. */
interface Drop {
  readonly z: number;
  readonly b: number;
  readonly c: number;
  readonly about: readonly [number, number];
}
const LEVEL: Drop = { z: 0, b: 0, c: 0, about: [0, 0] };
const at = (d: Drop, [x, y]: Vec3): number => d.z + d.b * (x - d.about[0]) + d.c * (y - d.about[1]);

/** Places and heights are kept to this many decimals, so that a change there and back again leaves no trace. */
const DECIMALS = 9;
/** A plate whose bolts are met by a plane this nearly tilts onto them, mm; else it hangs level and spacers make up the rest. */
const MET = 0.05;
/** No plate is tilted by more than this, mm a mm: half of the slope that a head takes. */
const MOST_TILT = 0.025;
const ROUNDS = 20;

interface Want {
  readonly place: Vec3;
  readonly by: number;
  /** no less than this: a spacer that is there may be made shorter, down to none */
  readonly least: number;
}

/** The plane nearest to what a plate's bolts want, about their middle. */
function planeThrough(wants: readonly Want[]): Drop {
  const n = wants.length;
  const mean = (f: (w: Want) => number): number => wants.reduce((s, w) => s + f(w), 0) / n;
  const [mx, my, mz] = [mean(w => w.place[0]), mean(w => w.place[1]), mean(w => w.by)];
  // a touch of stiffness against turning settles what bolts in one line leave open
  const soft = 1e-3;
  const sum = (f: (x: number, y: number, z: number) => number): number =>
    wants.reduce((s, w) => s + f(w.place[0] - mx, w.place[1] - my, w.by - mz), 0);
  const [xx, yy, xy] = [sum(x => x * x) + soft, sum((_, y) => y * y) + soft, sum((x, y) => x * y)];
  const [xz, yz] = [sum((x, _, z) => x * z), sum((_, y, z) => y * z)];
  const det = xx * yy - xy * xy;
  return { z: mz, b: (xz * yy - yz * xy) / det, c: (yz * xx - xz * xy) / det, about: [mx, my] };
}

/** The plane that meets all wants, or undefined where none does without tilting the plate too far. */
function metBy(wants: readonly Want[]): Drop | undefined {
  const first = wants[0]?.by ?? 0;
  if (wants.every(w => Math.abs(w.by - first) < 1e-9)) return { ...LEVEL, z: first };
  const plane = planeThrough(wants);
  if (Math.hypot(plane.b, plane.c) > MOST_TILT) return undefined;
  return wants.every(w => Math.abs(at(plane, w.place) - w.by) <= MET) ? plane : undefined;
}

/** A plate let down: its origin goes straight down, its base turns with the plane. */
function letDown(panel: Panel, drop: Drop): Panel {
  const { origin, pitch, roll } = panel.base;
  const turned = drop.b !== 0 || drop.c !== 0;
  const p = Math.atan(Math.tan(toRadians(pitch)) + drop.b);
  const r = Math.atan((Math.tan(toRadians(roll)) / Math.cos(toRadians(pitch)) - drop.c) * Math.cos(p));
  return {
    ...panel,
    base: {
      ...panel.base,
      origin: [origin[0], origin[1], roundTo(origin[2] - at(drop, origin), DECIMALS)],
      pitch: turned ? roundTo(toDegrees(p), DECIMALS) : pitch,
      roll: turned ? roundTo(toDegrees(r), DECIMALS) : roll,
    },
  };
}

/** Plates as they hang in other sheets, and what that adds to spacers, mm by joint. */
export interface Restacked {
  readonly panels: readonly Panel[];
  readonly spacers: ReadonlyMap<string, number>;
}

/**
 * Plates as they hang in other sheets: what presses them up stays where it is, so a thicker sheet hangs lower by its growth, and one that
 * lies outside another also by that one's. Where that differs from bolt row to bolt row the plate tilts onto its bolts, if a plane meets
 * them all; else it hangs level at the lowest of them and spacers fill what is left at the others. Stacks that closed still close.
 */
export function restacked(
  { rig, plan }: Pick<PlanDocument, 'rig' | 'plan'>,
  from: Sheets,
  to: Sheets,
): Restacked {
  const grown = (id: string): number =>
    (to[id]?.thickness ?? 0) - (from[id]?.thickness ?? to[id]?.thickness ?? 0);
  if (plan.panels.every(p => Math.abs(grown(p.id)) < 1e-9))
    return { panels: plan.panels, spacers: new Map() };
  const bolts = plan.joints.flatMap(j => {
    const place = holeNamed({ rig, plan }, j.mount)?.at ?? j.at;
    return place ? [{ joint: j, place }] : [];
  });
  // a bracket is bent for its place: it hangs where it hangs, whatever the sheet of the plates on it
  const drops = new Map(plan.panels.map(p => [p.id, { ...LEVEL, z: isBracket(p) ? 0 : grown(p.id) }]));
  const hangers = new Set(plan.panels.filter(isBracket).map(p => p.id));
  const floors = new Map<string, number>();
  // from the member outward, again and again until nothing moves: an outer plate that cannot tilt pushes the inner one down
  const inner = plan.panels
    .filter(p => !isBracket(p))
    .sort(
      (a, b) =>
        Math.max(-1, ...bolts.map(({ joint: j }) => stackedIn(j).indexOf(b.id))) -
        Math.max(-1, ...bolts.map(({ joint: j }) => stackedIn(j).indexOf(a.id))),
    );
  for (let round = 0; round < ROUNDS; round++) {
    let moved = false;
    for (const p of inner) {
      const held = bolts.flatMap(({ joint, place }) => {
        const stack = stackedIn(joint);
        const k = stack.indexOf(p.id);
        const next = stack[k + 1];
        return k < 0 ? [] : [{ joint, place, next, above: next === undefined ? undefined : drops.get(next) }];
      });
      const wants = held.map(({ joint, place, above }): Want => {
        const floor = floors.get(`${p.id} ${joint.id}`) ?? Number.NEGATIVE_INFINITY;
        const by = Math.max(grown(p.id) + (above ? at(above, place) : 0), floor);
        return { place, by, least: above ? by : Math.max(grown(p.id) - joint.spacer, floor) };
      });
      const own = wants.length > 0 ? wants : [{ place: p.base.origin, by: grown(p.id), least: grown(p.id) }];
      const drop = metBy(own) ?? { ...LEVEL, z: Math.max(...own.map(w => w.least)) };
      const was = drops.get(p.id) as Drop;
      if (Math.abs(drop.z - was.z) + 1e3 * (Math.abs(drop.b - was.b) + Math.abs(drop.c - was.c)) > 1e-9)
        moved = true;
      drops.set(p.id, drop);
      // where it stays away from an inner neighbor that neighbor comes down to it
      for (const { joint, place, next, above } of held) {
        const low = at(drop, place) - grown(p.id);
        if (next === undefined || !above || at(above, place) >= low - MET) continue;
        const key = `${next} ${joint.id}`;
        if ((floors.get(key) ?? Number.NEGATIVE_INFINITY) >= low - 1e-9) continue;
        floors.set(key, low);
        moved = true;
      }
    }
    if (!moved) break;
  }
  const spacers = new Map<string, number>();
  for (const { joint, place } of bolts) {
    // at a hole what fills up lies behind the innermost plate, else before the bracket that the others are bolted to
    const stack = stackedIn(joint);
    const inmost = stack.at(-1);
    const bracket =
      joint.mount === undefined && inmost !== undefined && hangers.has(inmost) ? inmost : undefined;
    const last = bracket === undefined ? inmost : stack.at(-2);
    const drop = last === undefined ? undefined : drops.get(last);
    if (last === undefined || !drop || (joint.mount === undefined && bracket === undefined)) continue;
    const more = at(drop, place) - grown(last);
    if (Math.abs(more) > MET) spacers.set(joint.id, roundTo(more, DECIMALS));
  }
  const panels = plan.panels.map(p => {
    const drop = drops.get(p.id) as Drop;
    return Math.abs(drop.z) + Math.abs(drop.b) + Math.abs(drop.c) < 1e-9 ? p : letDown(p, drop);
  });
  return { panels, spacers };
}

const keptPanels = new WeakMap<Panel, Map<string, Panel>>();
const keptJoints = new WeakMap<Joint, Map<number, Joint>>();

/** The same object for as long as it is the same. */
function kept<K extends object, N, V>(store: WeakMap<K, Map<N, V>>, of: K, name: N, made: V): V {
  const known = store.get(of) ?? new Map<N, V>();
  store.set(of, known);
  const hit = known.get(name) ?? made;
  known.set(name, hit);
  return hit;
}

/**
 * The plates and bolts of a build as they hang in it. Shapes and spacers are drawn for the plan's first build; in the others, thicker or
 * thinner sheet keeps its seats and hangs lower or higher (`restacked`). The same plate comes back for as long as it hangs the same.
 */
export function hungIn(
  doc: Pick<PlanDocument, 'rig' | 'plan'>,
  build: Build,
): Pick<PlanDocument['plan'], 'panels' | 'joints'> {
  const first = doc.plan.builds[0];
  if (!first || first.id === build.id) return doc.plan;
  const { panels, spacers } = restacked(doc, first.sheets, build.sheets);
  return {
    panels: panels.map((hung, i) => {
      const panel = doc.plan.panels[i] as Panel;
      const { origin, pitch, roll } = hung.base;
      return hung === panel ? panel : kept(keptPanels, panel, `${origin[2]} ${pitch} ${roll}`, hung);
    }),
    joints: doc.plan.joints.map(j => {
      const more = spacers.get(j.id);
      return more === undefined
        ? j
        : kept(keptJoints, j, more, { ...j, spacer: Math.max(0, j.spacer + more) });
    }),
  };
}

/** The plan with the sheets of one build changed. In the first build, for which plates are drawn, they keep their seats. */
export function sheetsSet(doc: PlanDocument, build: string, sheets: Sheets): PlanDocument {
  const first = doc.plan.builds[0];
  const old = doc.plan.builds.find(b => b.id === build);
  if (!old) return doc;
  const next = { ...old.sheets, ...sheets };
  const builds = doc.plan.builds.map(b => (b === old ? { ...b, sheets: next } : b));
  if (first !== old) return { ...doc, plan: { ...doc.plan, builds } };
  const { panels, spacers } = restacked(doc, old.sheets, next);
  const joints = doc.plan.joints.map(j => {
    const more = spacers.get(j.id);
    return more === undefined ? j : { ...j, spacer: Math.max(0, roundTo(j.spacer + more, 3)) };
  });
  return { ...doc, plan: { ...doc.plan, panels, joints, builds } };
}

/** The plan redrawn for another build: its plates as they hang in that one, which comes first from then on. */
export const redrawnFor = (doc: PlanDocument, build: Build): PlanDocument => ({
  ...doc,
  plan: {
    ...doc.plan,
    panels: hungIn(doc, build).panels,
    joints: hungIn(doc, build).joints,
    builds: [build, ...doc.plan.builds.filter(b => b.id !== build.id)],
  },
});
