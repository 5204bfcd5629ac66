import { check } from '@plate-fold/core/checks';
import { gatherFacts } from '@plate-fold/core/derive';
import type { Vec2 } from '@plate-fold/core/geometry';
import { blankPlan, type Panel, type PlanDocument, USUAL_SHEET } from '@plate-fold/core/plan';
import { propose } from '@plate-fold/core/propose';
import { BODIES, startingRig } from '@plate-fold/core/rig';
import { demo } from '@plate-fold/demo';
import { line, median } from './measure';
import { repeated } from './repeated';

/*
 * The whole derived state (folded plates, joints, coverage, gaps, ground, weights, findings) after an edit,
 * as the interface computes it: nothing remembered of the plates that changed. Reference of the first block: one
 * frame of a 60 Hz screen, 16.67 ms. Reference of the second: proportional growth from five plates.
 */
const FRAME = 1000 / 60;

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

/** Nothing remembered from before: every plate and part is a new object. */
const fresh = (doc: PlanDocument): PlanDocument => structuredClone(doc);

const bramble = demo('bramble');
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
