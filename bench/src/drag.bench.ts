import { callOf, moveCorner, type PlanDocument } from '@plate-fold/core/plan';
import { demo } from '@plate-fold/demo';
import { letGo, preview } from '@plate-fold/web/state/commands/run';
import { selectFacts, selectFindings, selectWeights } from '@plate-fold/web/state/derived';
import { documentOpened } from '@plate-fold/web/state/plan-actions';
import { makeStore } from '@plate-fold/web/state/store';
import { cpuMedian, line } from './measure';
import { repeated } from './repeated';

/*
 * One frame of a dragged corner, as the interface computes it: the change is run, and everything that the screen derives is asked for
 * (facts, findings, weights of all builds) through the store itself. Then the release: the change is made, checked, weighed in all
 * builds and written out as a draft. Processor time; the reference is the budget of a frame.
 */
const BUDGET = { five: 8, twenty: 16, release: 1000 / 60 } as const;

/** Asks for what the screen shows. */
function drag(doc: PlanDocument) {
  const store = makeStore();
  store.dispatch(documentOpened({ document: doc, revision: 1 }));
  const screen = (): void => {
    const s = store.getState();
    selectFacts(s);
    selectFindings(s);
    selectWeights(s);
  };
  screen();
  const panel = doc.plan.panels[1];
  if (!panel) throw new Error('the plan has no second plate');
  const [u, v] = panel.base.outline[0] as readonly [number, number];
  let by = 0;
  return {
    frame: (): void => {
      by += 0.1;
      store.dispatch(preview(callOf(moveCorner, { panel: panel.id, corner: 0, to: [u - (by % 20), v] })));
      screen();
    },
    release: (): void => {
      store.dispatch(letGo());
      screen();
      JSON.stringify(store.getState().document.present.document);
    },
  };
}

console.log('A frame of a dragged corner, with everything that the screen derives; processor time, median');
const five = drag(demo('bramble'));
const twenty = drag(repeated(demo('bramble'), 4));
/** Frames of a page that was just opened, while its code is still being compiled; and of one that has been worked with. */
const COLD = [60, 1] as const;
const WARM = [121, 200] as const;
const cold = cpuMedian(five.frame, ...COLD);
line('5 plates, the first second', cold, cold / BUDGET.five, 'the budget, 8 ms');
const frame5 = cpuMedian(five.frame, ...WARM);
line('5 plates', frame5, frame5 / BUDGET.five, 'the budget, 8 ms');
const frame20 = cpuMedian(twenty.frame, ...WARM);
line('20 plates', frame20, frame20 / BUDGET.twenty, 'the budget, 16 ms');
const released = cpuMedian(
  () => {
    five.frame();
    five.release();
  },
  15,
  4,
);
line('5 plates, a frame and the release', released, released / BUDGET.release, 'one frame of 60 Hz');
