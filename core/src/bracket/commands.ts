import { clinchHole, drawnPanels, outwardOf, threadNamed } from '../bolt';
import { dieFor, type FoldedPanel, leastFlange, shopOf } from '../fold';
import { contains, distanceToOutline, toSpace, underGround, type Vec2, type Vec3 } from '../geometry';
import {
  command,
  type Flange,
  freshId,
  inPlan,
  type Joint,
  jointFor,
  marked,
  type Panel,
  type PlanDocument,
  panelsRemoved,
  panelWord,
  plateNamed,
  presentOf,
  type SheetChoice,
  type SlotIn,
  topPlateOf,
} from '../plan';
import type { Mount } from '../rig';
import { err, ok, type Result, roundTo } from '../units';
import {
  type BracketChoices,
  type BracketMade,
  type BracketShape,
  bracketBetween,
  type Face,
} from './between';
import { hatBetween } from './hat';
import { asPanel, inTheWay } from './way';

/** What brackets are made of unless told: 3/16 in steel, which a shop has and a bolt's thread holds in. */
export const BRACKET_SHEET: SheetChoice = {
  material: 'steel-hr36',
  thickness: 4.7625,
  finish: 'powder',
  gauge: '3/16 in',
};
/** A bend under a hole is fine; flats steeper than this are no place to hang a bracket on, by the upright part of their normal. */
const FLAT = 0.3;
/** Holes this far from their mirrored place are still a pair, mm: what a tape reads wrong. */
const MIRRORED = 6;
/** Brackets differ by no more than this, mm or degrees, and are one part. */
const ALIKE = 0.05;

/** The face of a plate over a place on the ground plane: its upper side, where a bracket comes down on it; and how far off its edges that is, mm. */
export function plateFace(
  p: FoldedPanel,
  [x, y]: Vec2,
): { readonly at: Vec3; readonly normal: Vec3; readonly off: number } | undefined {
  for (const f of p.facets) {
    if (f.frame.n[2] < FLAT) continue;
    const on = underGround(f.frame, x, y);
    if (!contains(f.outline, on)) continue;
    return {
      at: toSpace(f.frame, on, p.sheet.thickness),
      normal: f.frame.n,
      off: distanceToOutline(f.outline, on),
    };
  }
  return undefined;
}

export const boltOf = (thread: string): number => {
  const t = threadNamed(thread);
  return t.ok ? t.value.d : 10;
};

export interface BracketWish {
  /** the hole in the vehicle */
  readonly mount: string;
  /** a second hole: a hat, with a foot at each */
  readonly second?: string;
  /** the plate, and where on it, on the ground plane, mm */
  readonly panel: string;
  readonly at: Vec2;
  /** plates below it that the same bolt holds, outermost first */
  readonly below?: readonly string[];
  readonly sheet?: SheetChoice;
  /** play for centring, mm: slots instead of round holes */
  readonly play?: number;
}

interface Fitted {
  readonly mounts: readonly Mount[];
  readonly plateAt: Vec3;
  readonly sheet: SheetChoice;
}

/** A bracket from a hole of the vehicle to a place on a plate, as it would be made; or why it cannot. */
export function bracketFor(doc: PlanDocument, wish: BracketWish): Result<Fitted & BracketMade> {
  const rig = presentOf(doc);
  const mounts: Mount[] = [];
  for (const id of wish.second === undefined ? [wish.mount] : [wish.mount, wish.second]) {
    const mount = rig.mounts.find(m => m.id === id);
    if (!mount) return err(`there is no hole ${id} with these options`);
    const taken = doc.plan.joints.find(j => j.mount === id);
    if (taken) return err(`bolt ${taken.id} is in hole ${id} already`);
    mounts.push(mount);
  }
  const panels = drawnPanels(doc);
  const plate = panels.find(p => p.panel.id === wish.panel);
  if (!plate) return err('there is no such plate');
  const face = plateFace(plate, wish.at);
  if (!face) return err(`${panelWord(plate.panel)} is not there: press a flat part of it`);
  for (const id of wish.below ?? []) {
    const under = panels.find(p => p.panel.id === id);
    if (!under || !plateFace(under, wish.at))
      return err(`${under ? panelWord(under.panel) : id} is not under that place`);
  }
  const sheet = wish.sheet ?? BRACKET_SHEET;
  const shop = shopOf(doc.plan);
  const die = dieFor(sheet.thickness, shop.dies);
  const threads = mounts.map(m => jointFor('j', m, []).fastener.thread);
  const [first, second] = mounts.map(
    (m, i): Face => ({ at: m.at, normal: outwardOf(m), bolt: boltOf(threads[i] ?? '') }),
  );
  if (!first) return err('there is no hole');
  const to: Face = { ...face, bolt: first.bolt, hole: clinchHole(threads[0] ?? '') };
  const choices: BracketChoices = {
    sheet,
    ...(die === undefined ? {} : { leastFlange: leastFlange(die) }),
    ...(wish.play === undefined ? {} : { play: wish.play }),
    blocked: shape => inTheWay(shape, sheet, rig, panels, shop),
  };
  const made = second ? hatBetween([first, second], to, choices) : bracketBetween(first, to, choices);
  return made.ok ? ok({ ...made.value, mounts, plateAt: face.at, sheet }) : made;
}

/** The bolts of a bracket: into the vehicle's hole or holes, and through the plate into a nut that is pressed into the bracket. */
function bracketJoints(
  doc: PlanDocument,
  id: string,
  wish: BracketWish,
  made: Pick<Fitted, 'mounts' | 'plateAt'> & Pick<BracketMade, 'slots'>,
): readonly Joint[] {
  const vehicle: Joint[] = [];
  for (const m of made.mounts)
    vehicle.push(jointFor(freshId('j', [...doc.plan.joints, ...vehicle]), m, [id]));
  const [one, two] = made.slots ?? [];
  const second: Joint = {
    ...(vehicle[0] as Joint),
    id: freshId('j', [...doc.plan.joints, ...vehicle]),
    mount: undefined,
    at: made.plateAt.map(c => roundTo(c, 3)) as unknown as Vec3,
    panels: [...(wish.below ?? []), wish.panel, id],
    nut: 'clinch',
    threadIn: id,
    ...(two ? { slots: { [id]: two } } : {}),
  };
  const { mount: _, ...plain } = second;
  return [...vehicle.map(j => ({ ...j, ...(one ? { slots: { [id]: one } } : {}) })), plain];
}

/** The plan with a bracket from a hole to a plate, bolted at both; and its id. */
export function bracketAdded(
  doc: PlanDocument,
  wish: BracketWish,
): Result<{ readonly document: PlanDocument; readonly id: string }> {
  const made = bracketFor(doc, wish);
  if (!made.ok) return made;
  const id = freshId('bracket', doc.plan.panels);
  const panel = asPanel(id, made.value.shape, made.value.sheet);
  const name = made.value.family === 'flat' ? 'strap' : `${made.value.family} bracket`;
  return ok({
    id,
    document: marked(
      inPlan(doc, {
        panels: [...doc.plan.panels, { ...panel, name }],
        joints: [...doc.plan.joints, ...bracketJoints(doc, id, wish, made.value)],
      }),
    ),
  });
}

export const addBracket = command<BracketWish>({
  id: 'bracket.add',
  label: (doc, { panel, mount, second }) =>
    second === undefined
      ? `add a bracket from hole ${mount} to ${plateNamed(doc, panel)}`
      : `add a hat from holes ${mount} and ${second} to ${plateNamed(doc, panel)}`,
  run: (doc, wish) => {
    const made = bracketAdded(doc, wish);
    return made.ok ? ok(made.value.document) : made;
  },
});

/** Whether two brackets are one part: the same strip with the same bends, or its mirror image, which a strip is by itself. */
export function sameBracket(a: BracketShape, b: BracketShape): boolean {
  const near = (x: number, y: number): boolean => Math.abs(x - y) < ALIKE;
  const size = (s: BracketShape): readonly number[] => {
    const us = s.base.outline.map(q => q[0]);
    const vs = s.base.outline.map(q => q[1]);
    return [Math.max(...us) - Math.min(...us), Math.max(...vs) - Math.min(...vs)];
  };
  const flat = (s: BracketShape): readonly number[] => [
    ...size(s),
    ...s.flanges
      .map(leg => {
        const out: number[] = [];
        for (let f: Flange | undefined = leg; f; f = f.flanges?.[0]) out.push(f.length, f.angle);
        return out;
      })
      .sort((p, q) => p.length - q.length || (p[2] ?? 0) - (q[2] ?? 0))
      .flat(),
  ];
  const [x, y] = [flat(a), flat(b)];
  return x.length === y.length && x.every((v, i) => near(v, y[i] as number));
}

/** The bolts of a bracket into the vehicle's holes, the first by itself, and the one through its plate. */
function boltsOf({ plan }: PlanDocument, bracket: string) {
  const holes = plan.joints.filter(j => j.mount !== undefined && j.panels.includes(bracket));
  return {
    holes,
    hole: holes[0],
    plate: plan.joints.find(j => j.mount === undefined && j.panels.at(-1) === bracket),
  };
}

/** The twin of a bracket on the other side of the vehicle: between the mirrored hole and the mirrored place. */
export const addTwin = command<{ readonly bracket: string }>({
  id: 'bracket.twin',
  label: (doc, { bracket }) => `add the twin of ${plateNamed(doc, bracket)}`,
  run: (doc, { bracket }) => {
    const panel = doc.plan.panels.find(p => p.id === bracket);
    const { holes, hole, plate } = boltsOf(doc, bracket);
    const rig = presentOf(doc);
    if (!panel || holes.length === 0 || !plate?.at) return err('it is not bolted to a hole and to a plate');
    const opposite: string[] = [];
    for (const h of holes) {
      const mount = rig.mounts.find(m => m.id === h.mount);
      if (!mount) return err(`there is no hole ${h.mount} with these options`);
      const [x, y, z] = mount.at;
      const n = outwardOf(mount);
      const twin = rig.mounts.find(m => {
        const o = outwardOf(m);
        return (
          m.id !== mount.id &&
          Math.hypot(m.at[0] - x, m.at[1] + y, m.at[2] - z) < MIRRORED &&
          Math.hypot(o[0] - n[0], o[1] + n[1], o[2] - n[2]) < 0.05
        );
      });
      if (!twin) return err(`there is no hole opposite ${mount.id}`);
      opposite.push(twin.id);
    }
    const [twinHole = '', second] = opposite;
    const at: Vec2 = [plate.at[0], -plate.at[1]];
    const panels = drawnPanels(doc);
    const over = panels.find(p => p.panel.role !== 'bracket' && plateFace(p, at));
    if (!over) return err('no plate lies opposite');
    const slots = hole?.slots?.[bracket] !== undefined;
    const made = bracketAdded(doc, {
      mount: twinHole,
      ...(second === undefined ? {} : { second }),
      panel: over.panel.id,
      at,
      ...(panel.sheet ? { sheet: panel.sheet } : {}),
      ...(slots ? { play: PLAY } : {}),
    });
    if (!made.ok) return made;
    const { document, id } = made.value;
    const added = document.plan.panels.find(p => p.id === id) as Panel;
    if (!sameBracket(panel, added)) return ok(document);
    const original = panel.pairOf ?? panel.id;
    return ok(
      inPlan(document, {
        panels: document.plan.panels.map(p =>
          p.id === id ? { ...p, name: panel.name, pairOf: original } : p,
        ),
      }),
    );
  },
});

/** Play of slots for centring, mm: common practice, no source. */
export const PLAY = 8;

interface Remade {
  readonly bracket: string;
  readonly sheet?: SheetChoice;
  /** where on its plate, on the ground plane, mm */
  readonly at?: Vec2;
  /** nought: round holes */
  readonly play?: number;
}

/** One bracket made anew in its place; its name, mark and bolts stay. */
function remade(doc: PlanDocument, { bracket, ...part }: Remade): Result<PlanDocument> {
  const panel = doc.plan.panels.find(p => p.id === bracket);
  const { holes, hole, plate } = boltsOf(doc, bracket);
  // a top plate stays where it lies, however thick it is
  if (panel && hole && topPlateOf(hole) === bracket)
    return part.at || part.play !== undefined
      ? err('a top plate lies over its holes: it has no other place and no slots')
      : ok(
          inPlan(doc, {
            panels: doc.plan.panels.map(p => (p === panel && part.sheet ? { ...p, sheet: part.sheet } : p)),
          }),
        );
  if (!panel || hole?.mount === undefined || !plate?.at)
    return err('it is not bolted to a hole and to a plate');
  const play = part.play ?? (hole.slots?.[bracket] ? PLAY : 0);
  const sheet = part.sheet ?? panel.sheet;
  const made = bracketAdded(panelsRemoved(doc, [bracket]), {
    mount: hole.mount,
    ...(holes[1]?.mount === undefined ? {} : { second: holes[1].mount }),
    panel: plate.panels.at(-2) ?? '',
    below: plate.panels.slice(0, -2),
    at: part.at ?? [plate.at[0], plate.at[1]],
    ...(sheet ? { sheet } : {}),
    ...(play > 0 ? { play } : {}),
  });
  if (!made.ok) return made;
  const { document, id } = made.value;
  const asItWas = (j: Joint): Joint =>
    j.mount === undefined ? plate : (holes.find(h => h.mount === j.mount) ?? hole);
  const known = new Map([
    [id, bracket],
    ...document.plan.joints.filter(j => j.panels.includes(id)).map(j => [j.id, asItWas(j).id] as const),
  ]);
  const named = (x: string): string => known.get(x) ?? x;
  const kept: Joint[] = document.plan.joints.map(j =>
    j.panels.includes(id)
      ? {
          ...asItWas(j),
          ...(j.at ? { at: j.at } : {}),
          slots: j.slots ? { [bracket]: Object.values(j.slots)[0] as SlotIn } : undefined,
        }
      : j,
  );
  const order = new Map(doc.plan.panels.map((p, i) => [p.id, i]));
  return ok(
    inPlan(document, {
      panels: document.plan.panels
        .map(p => (p.id === id ? { ...p, id: bracket, mark: panel.mark, name: p.name } : p))
        .sort((a, b) => (order.get(a.id) ?? 0) - (order.get(b.id) ?? 0)),
      joints: kept.map(j => ({ ...j, panels: j.panels.map(named) })),
    }),
  );
}

/** A bracket made anew: of another sheet, to another place on its plate, with or without play. Its twins follow, each in its own place. */
export const remakeBracket = command<Remade>({
  id: 'bracket.remake',
  label: (doc, { bracket }) => `change ${plateNamed(doc, bracket)}`,
  run: (doc, wish) => {
    const own = doc.plan.panels.find(p => p.id === wish.bracket);
    const original = own?.pairOf ?? wish.bracket;
    const family = doc.plan.panels.filter(
      p => p.id !== wish.bracket && (p.id === original || p.pairOf === original),
    );
    const first = remade(doc, wish);
    const all = family.reduce<Result<PlanDocument>>(
      (so, twin) =>
        so.ok
          ? remade(so.value, {
              ...wish,
              bracket: twin.id,
              ...(wish.at ? { at: [wish.at[0], -wish.at[1]] as const } : {}),
            })
          : so,
      first,
    );
    if (!all.ok) return all;
    const pairs = new Map(doc.plan.panels.map(p => [p.id, p.pairOf]));
    return ok(
      inPlan(all.value, {
        panels: all.value.plan.panels.map(p => {
          const pairOf = pairs.get(p.id);
          return pairOf === undefined || p.pairOf === pairOf ? p : { ...p, pairOf };
        }),
      }),
    );
  },
});
