import { check } from '@plate-fold/core/checks';
import { gatherFacts } from '@plate-fold/core/derive';
import type { Vec2 } from '@plate-fold/core/geometry';
import { blankPlan, type Panel, type PlanDocument, readDocument, USUAL_SHEET } from '@plate-fold/core/plan';
import { propose } from '@plate-fold/core/propose';
import { BODIES, startingRig } from '@plate-fold/core/rig';
import { demoText } from '@plate-fold/demo';
import { line, median } from './measure';

/*
 * The whole derived state (folded plates, joints, coverage, gaps, ground, weights, findings) after an edit,
 * as the interface computes it: nothing remembered of the plates that changed. Reference of the first block: one
 * frame of a 60 Hz screen, 16.67 ms. Reference of the second: proportional growth from five plates.
 */
const FRAME = 1000 / 60;

function demo(): PlanDocument {
  const read = readDocument(demoText('bramble'));
  if (!read.ok) throw new Error(read.faults[0]?.fault);
  return read.document;
}

const all = (doc: PlanDocument): void => void check(gatherFacts(doc));

const nudged = (p: Panel, mm: number): Panel => ({
  ...p,
  base: { ...p.base, outline: p.base.outline.map(([u, v], i): Vec2 => (i === 0 ? [u + mm, v] : [u, v])) },
});

/** Changes one sheet, as a click on another thickness does. */
function changeSheet(doc: PlanDocument, turn: number): PlanDocument {
  const [first] = doc.plan.panels;
  if (!first) return doc;
  const builds = doc.plan.builds.map(b =>
    b.id === doc.plan.activeBuild
      ? {
          ...b,
          sheets: {
            ...b.sheets,
            [first.id]: {
              material: 'al-5052-h32' as const,
              thickness: 4 + (turn % 50) / 10,
              finish: 'raw' as const,
            },
          },
        }
      : b,
  );
  return { ...doc, plan: { ...doc.plan, builds } };
}

/** Moves one corner, as dragging does. */
const dragCorner = (doc: PlanDocument, turn: number): PlanDocument => ({
  ...doc,
  plan: { ...doc.plan, panels: doc.plan.panels.map((p, i) => (i === 1 ? nudged(p, 0.1 + turn / 100) : p)) },
});

/** The same plan with its set repeated along an ever longer vehicle: parts, holes and joints go with the plates. */
function repeated(doc: PlanDocument, times: number): PlanDocument {
  const shift = 4000;
  const each = <T>(of: (k: number, at: (id: string) => string) => readonly T[]): T[] =>
    Array.from({ length: times }, (_, k) => of(k, id => (k === 0 ? id : `${id}-${k}`))).flat();
  const { rig, plan } = doc;
  const along = (o: readonly Vec2[], k: number): Vec2[] => o.map(([x, y]): Vec2 => [x + k * shift, y]);
  const panels = each((k, id) =>
    plan.panels.map(
      (p): Panel => ({
        ...p,
        id: id(p.id),
        guards: p.guards.map(id),
        openings: p.openings.map(o => ({ ...o, serves: o.serves && id(o.serves) })),
        base: { ...p.base, origin: [p.base.origin[0] + k * shift, p.base.origin[1], p.base.origin[2]] },
      }),
    ),
  );
  return {
    ...doc,
    rig: {
      ...rig,
      wheelbase: rig.wheelbase + (times - 1) * shift,
      components: each((k, id) =>
        rig.components.map(c => ({ ...c, id: id(c.id), footprint: along(c.footprint, k) })),
      ),
      members: each((k, id) =>
        rig.members.map(m => ({ ...m, id: id(m.id), footprint: along(m.footprint, k) })),
      ),
      mounts: each((k, id) =>
        rig.mounts.map(m => ({
          ...m,
          id: id(m.id),
          member: id(m.member),
          at: [m.at[0] + k * shift, m.at[1], m.at[2]] as const,
          behind: m.behind && { ...m.behind, component: id(m.behind.component) },
        })),
      ),
      servicePoints: each((k, id) =>
        rig.servicePoints.map(s => ({
          ...s,
          id: id(s.id),
          component: id(s.component),
          at: [s.at[0] + k * shift, s.at[1], s.at[2]] as const,
        })),
      ),
    },
    plan: {
      ...plan,
      panels,
      joints: each((_, id) =>
        plan.joints.map(j => ({
          ...j,
          id: id(j.id),
          mount: j.mount && id(j.mount),
          panels: j.panels.map(id),
        })),
      ),
      seams: each((_, id) =>
        plan.seams.map(s => ({ ...s, front: id(s.front), rear: id(s.rear), outside: id(s.outside) })),
      ),
      builds: plan.builds.map(b => ({
        ...b,
        sheets: Object.fromEntries(
          each((_, id) => Object.entries(b.sheets).map(([p, s]) => [id(p), s] as const)),
        ),
      })),
    },
  };
}

/** Nothing remembered from before: every plate and part is a new object. */
const fresh = (doc: PlanDocument): PlanDocument => structuredClone(doc);

const bramble = demo();
all(bramble);
console.log('Whole derived state of Bramble, five plates, median');
let turn = 0;
const edits: readonly (readonly [string, () => void])[] = [
  ['after another sheet for one plate', () => all(changeSheet(bramble, turn++))],
  ['after dragging a corner', () => all(dragCorner(bramble, turn++))],
  ['from nothing (opening a plan)', () => all(fresh(bramble))],
];
for (const [what, run] of edits) {
  const ms = median(run);
  line(what, ms, ms / FRAME, 'one frame');
}

console.log('\nGrowth with the number of plates, from nothing');
const five = median(() => all(fresh(bramble)));
for (const times of [2, 4, 10]) {
  const doc = repeated(bramble, times);
  const ms = median(() => all(fresh(doc)), 15, 4);
  line(`${times * 5} plates`, ms, ms / (five * times), 'linear growth');
}

console.log('\nDragging a corner in a plan of many plates');
for (const times of [4, 10]) {
  const doc = repeated(bramble, times);
  all(doc);
  const ms = median(() => all(dragCorner(doc, turn++)), 21, 6);
  line(`${times * 5} plates`, ms, ms / FRAME, 'one frame');
}

console.log('\nProposing a whole set');
for (const body of BODIES) {
  const doc = blankPlan(startingRig(body), body, body);
  const wish = {
    components: doc.rig.components.filter(c => c.protect).map(c => c.id),
    sheet: USUAL_SHEET,
    maxBlank: [2440, 1220] as const,
    maxLiftKg: 23,
  };
  const ms = median(() => void propose(doc, wish), 15, 4);
  line(body, ms, ms / 2000, 'two seconds');
}
